/** Where a use is put: its place, size and turn over time, a tilted plane, a path, a followed point, which of its layers are seen. */
import { rideables } from '@tallow/core/assembly';
import { find, findAll, newPath, randomId, shotOf, type Placement } from '@tallow/core/document';
import { addPath, makeUseOwn, setCorners, setPlaceAnchor, setPlacements } from '@tallow/core/edit';
import { isEmpty } from '@tallow/core/geometry';
import { wayThrough } from '@tallow/core/plan';
import { timedLayers, placementsOf } from '@tallow/core/timing';
import { Check, Fold, SelectRow, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { withDrawings } from '../saving/drawings.ts';
import { shotFrameNow } from '../playback/shot-time.ts';
import { edit, endGesture } from '../shot/document.ts';
import { boxIn, frameOn, levelNow, setPlacing, usePlacing, type Level } from '../tools/place/placing.ts';
import { CutRows } from '../tools/place/cut-rows.tsx';
import { isSeat, rideableKey, rideableLabel } from '../tools/point/rideable.ts';
import { ValueRow } from './value-row.tsx';

const set = (name: string, { id }: Placement, settings: Partial<Placement>, gesture?: string): void => {
  edit(name, (doc) => setPlacements(doc, [id], settings), gesture);
};

/** px of a new path. */
const PATH_LENGTH = 420;

/** Gives a use a path of its own, from where its anchor stands to the right, to be bent. */
function addWay(level: Level, placement: Placement): void {
  const element = find(level.doc, 'element', placement.elementId);
  if (!element) return;
  const { x, y } = placement.anchor ?? element.anchor;
  const nodes = wayThrough(
    [
      { x, y },
      { x: x + PATH_LENGTH / 2, y: y - PATH_LENGTH / 5 },
      { x: x + PATH_LENGTH, y },
    ],
    false,
  );
  edit('along a path', (doc) => {
    const path = newPath(element.id, `Way ${element.paths.length + 1}`, nodes, false, randomId);
    const added = addPath(doc, element.id, { nodes: path.nodes, closed: false }, 0, randomId);
    return setPlacements(added.doc, [placement.id], { way: { pathId: added.pathId, turned: true } });
  });
}

function Way({ level, placement }: { level: Level; placement: Placement }) {
  const element = find(level.doc, 'element', placement.elementId)!;
  const paths = findAll(level.doc, 'path', element.paths);
  const { way } = placement;
  return (
    <>
      <SelectRow
        label="Goes along"
        value={way?.pathId ?? ''}
        options={[{ value: '', label: 'no path' }, ...paths.map(({ id, name }) => ({ value: id, label: name }))]}
        onChoose={(pathId) => {
          set('along a path', placement, { way: pathId ? { pathId, turned: way?.turned ?? true } : null });
        }}
      />
      {way ? (
        <Check
          label="turned along it"
          title="It turns as its way turns"
          checked={way.turned}
          onChange={(turned) => {
            set('turned along its path', placement, { way: { ...way, turned } });
          }}
        />
      ) : null}
    </>
  );
}

/** Followed points of other elements that a use can ride on. */
function Seat({ level, placement }: { level: Level; placement: Placement }) {
  const { seat } = placement;
  const points = rideables(level.doc).filter(({ onElementId }) => onElementId !== placement.elementId);
  if (points.length === 0 || level.holder) return null;
  const on =
    seat && (points.find((each) => isSeat(each, seat)) ?? points.find((each) => each.traceId === seat.traceId));
  const turns = points.filter(
    (each) => on && each.onElementId === on.onElementId && each.onUseId === on.onUseId && each.traceId !== on.traceId,
  );
  return (
    <>
      <SelectRow
        label="Rides on"
        value={on ? rideableKey(on) : ''}
        options={[
          { value: '', label: 'nothing' },
          ...points.map((each) => ({ value: rideableKey(each), label: rideableLabel(each) })),
        ]}
        onChoose={(value) => {
          const point = points.find((each) => rideableKey(each) === value);
          set('ride on a point', placement, {
            seat: point
              ? { onElementId: point.onElementId, onUseId: point.onUseId, traceId: point.traceId, turnId: null }
              : null,
          });
        }}
      />
      {seat && turns.length > 0 ? (
        <SelectRow
          label="Turned by"
          value={seat.turnId ?? ''}
          options={[
            { value: '', label: 'nothing' },
            ...turns.map((each) => ({ value: each.traceId, label: rideableLabel(each) })),
          ]}
          onChoose={(value) => {
            set('turned by a point', placement, { seat: { ...seat, turnId: value || null } });
          }}
        />
      ) : null}
    </>
  );
}

function Layers({ level, placement }: { level: Level; placement: Placement }) {
  const element = find(level.doc, 'element', placement.elementId)!;
  const all = timedLayers(level.doc, element);
  const seen = placement.layers;
  return (
    <Fold label={seen ? `${seen.length} of its ${all.length} layers` : 'Only some of its layers'}>
      {all.map(({ layer }) => (
        <Check
          key={layer.id}
          label={layer.name}
          checked={!seen || seen.includes(layer.id)}
          onChange={(on) => {
            const now = seen ?? all.map((each) => each.layer.id);
            const next = on ? [...now, layer.id] : now.filter((id) => id !== layer.id);
            set('layers of a use', placement, { layers: next.length === all.length ? null : next });
          }}
        />
      ))}
    </Fold>
  );
}

export function PlacePanel({ level, placement, since }: { level: Level; placement: Placement; since: number }) {
  const corners = usePlacing((s) => s.corners);
  const snaps = usePlacing((s) => s.snaps);
  const { width, height } = shotOf(level.doc);
  const element = find(level.doc, 'element', placement.elementId)!;
  const uses = placementsOf(level.doc, element.id).length;
  const row = { placement, since };
  return (
    <div className="pb-2">
      <ValueRow {...row} which="x" label="Across" unit="px" min={-width} max={2 * width} per={1} />
      <ValueRow {...row} which="y" label="Down" unit="px" min={-height} max={2 * height} per={1} />
      <ValueRow {...row} which="scale" label="Size" unit="%" min={5} max={400} per={100} />
      <ValueRow {...row} which="angle" label="Turn" unit="°" min={-180} max={180} per={180 / Math.PI} />
      <ValueRow {...row} which="opacity" label="Opacity" unit="%" min={0} max={100} per={100} />
      <div className="flex flex-wrap gap-1.5 py-1.5">
        <Small
          pressed={corners}
          title="Drag its four corners: it lies on a tilted plane"
          onClick={() => {
            setPlacing({ corners: !corners });
          }}
        >
          On a tilted plane
        </Small>
        {placement.corners ? (
          <Small
            onClick={() => {
              const { box } = placement.corners!;
              edit('flat again', (doc) => setCorners(doc, placement.id, 0, box, null));
              setPlacing({ corners: false });
            }}
          >
            Flat again
          </Small>
        ) : null}
        {placement.way ? null : (
          <Small
            title="A way of its own, with ticks: bend it in the picture"
            onClick={() => {
              addWay(level, placement);
            }}
          >
            Along a path
          </Small>
        )}
        <Small
          title="It is turned and scaled about the foot of what shows where it begins"
          onClick={() => {
            const now = levelNow();
            if (!now) return;
            const box = boxIn(now, placement, now.holder ? shotFrameNow() : placement.start);
            if (isEmpty(box)) return;
            const foot = { x: (box.left + box.right) / 2, y: box.bottom };
            edit('anchor of a use', (doc) => setPlaceAnchor(doc, placement.id, frameOn(now, shotFrameNow()), foot));
          }}
        >
          Anchor where it begins
        </Small>
        <Small
          title="A copy of its element: drawing on it changes no other use"
          whyNot={uses > 1 ? null : 'It is the only use of its element.'}
          onClick={() => {
            const layers = timedLayers(level.doc, element);
            withDrawings(
              layers.flatMap(({ layer }) => Object.values(layer.slots)),
              () => {
                edit('make this one its own', (doc) => makeUseOwn(doc, placement.id, randomId));
              },
            );
          }}
        >
          Make this one its own
        </Small>
      </div>
      <Way level={level} placement={placement} />
      <Seat level={level} placement={placement} />
      <Layers level={level} placement={placement} />
      {level.holder ? null : (
        <CutRows
          doc={level.doc}
          id={placement.id}
          cut={placement.cut}
          onChange={(name, cut) => {
            set(name, placement, { cut });
          }}
        />
      )}
      <Fold label="Mirror, lean, drift, snapping">
        <Check
          label="Snaps while it is dragged"
          title="To guides, anchors and followed points"
          checked={snaps}
          onChange={(on) => {
            setPlacing({ snaps: on });
          }}
        />
        <Check
          label="mirrored"
          checked={placement.mirror}
          onChange={(mirror) => {
            set('mirror', placement, { mirror });
          }}
        />
        <Slider
          label="Leans over"
          unit="°"
          min={-60}
          max={60}
          value={(placement.skew * 180) / Math.PI}
          onMove={(degrees) => {
            set('lean', placement, { skew: (degrees * Math.PI) / 180 }, `skew-${placement.id}`);
          }}
          onDone={endGesture}
        />
        {(['x', 'y'] as const).map((axis) => (
          <Slider
            key={axis}
            label={axis === 'x' ? 'Drifts across' : 'Drifts down'}
            title="So far it goes on each turn"
            unit="px"
            min={-400}
            max={400}
            value={placement.drift[axis]}
            onMove={(by) => {
              set('drift', placement, { drift: { ...placement.drift, [axis]: by } }, `drift-${placement.id}`);
            }}
            onDone={endGesture}
          />
        ))}
      </Fold>
    </div>
  );
}
