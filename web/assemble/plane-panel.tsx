/** One plane: its depth, seen or not, locked or not, alone, its looks, and the air of the shot. */
import { addPlane, removePlane, setDepthOfShot, setPlane, setPlaneDepth, whyNotRemovePlane } from '@tallow/core/edit';
import {
  AIR_LIMITS,
  DEPTH_LIMITS,
  findAll,
  FOCAL_LIMITS,
  randomId,
  shotOf,
  type Plane,
  type ShotDocument,
} from '@tallow/core/document';
import { depthScale, focalOf } from '@tallow/core/assembly';
import { LOOKS, lookKinds } from '@tallow/core/looks';
import { Eye, EyeOff, Lock, Unlock } from 'lucide-react';
import { useState } from 'react';
import { LightsList } from './lights-list.tsx';
import { LookList } from '../looks/look-list.tsx';
import { NameField } from '../parts/name-field.tsx';
import { Fold, Line, SelectRow, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { setShowing, useShowing } from '../picture/showing.ts';
import { useReadFrame } from '../playback/read-frame.ts';
import { edit, endGesture } from '../shot/document.ts';
import { selectPlane } from '../tools/place/placing.ts';

/** px of depth that the slider goes over; farther is typed. */
const REACH = { min: -900, max: 6000 } as const;
/** px of depth at which half of the air has come, when it is first let in. */
const FIRST_REACH = 2400;

function Name({ plane }: { plane: Plane }) {
  const [naming, setNaming] = useState(false);
  if (naming)
    return (
      <NameField
        label="Name of the plane"
        value={plane.name}
        onDone={(name) => {
          setNaming(false);
          if (name && name !== plane.name) edit('plane name', (doc) => setPlane(doc, plane.id, { name }));
        }}
      />
    );
  return (
    <button
      type="button"
      className="font-name min-w-0 flex-1 truncate text-left text-[17px]"
      data-tip={`${plane.name} · click to rename`}
      onClick={() => {
        setNaming(true);
      }}
    >
      {plane.name}
    </button>
  );
}

/** What far planes turn towards, and how far away they are half turned. */
function Air({ doc }: { doc: ShotDocument }) {
  const shot = shotOf(doc);
  const swatches = findAll(doc, 'swatch', shot.swatches);
  const { air } = shot;
  return (
    <>
      <SelectRow
        label="Far planes pale to"
        value={air?.swatch ?? ''}
        options={[
          { value: '', label: 'nothing: clear air' },
          ...swatches.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChoose={(swatch) => {
          edit('air', (now) =>
            setDepthOfShot(now, { air: swatch ? { swatch, reach: air?.reach ?? FIRST_REACH } : null }),
          );
        }}
      />
      {air ? (
        <Slider
          label="Half of it at"
          title="The depth at which a plane has turned half way"
          unit="px"
          min={100}
          max={10_000}
          typed={AIR_LIMITS}
          step={10}
          value={air.reach}
          onMove={(reach) => {
            edit('air', (now) => setDepthOfShot(now, { air: { ...air, reach } }), 'air-reach');
          }}
          onDone={endGesture}
        />
      ) : null}
      <Slider
        label="Seen from"
        title="How far off the eye is: the nearer it is, the stronger depth shows"
        unit="px"
        min={300}
        max={8000}
        typed={FOCAL_LIMITS}
        step={10}
        value={focalOf(shot)}
        onMove={(focal) => {
          edit('how far it is seen from', (now) => setDepthOfShot(now, { focal }), 'focal');
        }}
        onDone={endGesture}
      />
    </>
  );
}

/** Lines take their colour from fills, and outlines move where they are drawn: neither is on a plane as a whole. */
const KINDS = lookKinds().filter((kind) => !LOOKS[kind].forLayers && LOOKS[kind].moves === undefined);

export function PlanePanel({ doc, plane }: { doc: ShotDocument; plane: Plane }) {
  const alone = useShowing((s) => s.planeAlone);
  const frame = useReadFrame((s) => s.frame);
  const { id, depth, visible, locked } = plane;
  const size = Math.round(100 * depthScale(focalOf(shotOf(doc)), depth));
  return (
    <section aria-label="Plane" data-testid="plane-panel" className="pb-2">
      <div className="flex items-center justify-between gap-2">
        <Name key={id} plane={plane} />
        <Small
          title="All that stands in the shot"
          onClick={() => {
            selectPlane(null);
          }}
        >
          All
        </Small>
      </div>
      <p className="text-xs text-wax-500">
        {depth === 0
          ? 'The picture plane: seen as large as it is drawn.'
          : `Seen at ${size} % of its size, ${depth > 0 ? 'behind' : 'before'} the picture plane.`}
      </p>
      <Slider
        label="Depth"
        unit="px"
        {...REACH}
        typed={DEPTH_LIMITS}
        step={10}
        value={depth}
        onMove={(to) => {
          edit('depth', (now) => setPlaneDepth(now, id, to), `depth-${id}`);
        }}
        onDone={endGesture}
      />
      <div className="flex flex-wrap gap-1.5 py-1">
        <Small
          pressed={visible}
          title="Whether it is seen at all, here and in what is taken away"
          onClick={() => {
            edit(visible ? 'hide a plane' : 'show a plane', (now) => setPlane(now, id, { visible: !visible }));
          }}
        >
          {visible ? <Eye size={14} /> : <EyeOff size={14} />} Seen
        </Small>
        <Small
          pressed={locked}
          title="Nothing that stands on it is moved; its depth can be"
          onClick={() => {
            edit(locked ? 'unlock a plane' : 'lock a plane', (now) => setPlane(now, id, { locked: !locked }));
          }}
        >
          {locked ? <Lock size={14} /> : <Unlock size={14} />} Locked
        </Small>
        <Small
          pressed={alone === id}
          title="Shows this plane alone, here only"
          onClick={() => {
            setShowing({ planeAlone: alone === id ? null : id });
          }}
        >
          Alone
        </Small>
        <Small
          title="Another plane, as deep as this one, before it"
          onClick={() => {
            edit('add plane', (now) => addPlane(now, `Plane ${shotOf(now).planes.length + 1}`, id, randomId).doc);
          }}
        >
          One before it
        </Small>
        <Small
          whyNot={whyNotRemovePlane(doc, id)}
          onClick={() => {
            edit('take a plane away', (now) => removePlane(now, id));
            selectPlane(null);
          }}
        >
          Take away
        </Small>
      </div>
      <Line />
      <LightsList doc={doc} source={{ planeId: id }} />
      <LookList
        doc={doc}
        label="Looks of the plane"
        ownerId={id}
        finishes={plane.finishes}
        kinds={KINDS}
        frame={frame}
      />
      <Line />
      <Fold label="Air and distance, for all planes">
        <Air doc={doc} />
      </Fold>
    </section>
  );
}
