/** What is picked of the assembled shot: its frame with handles, its anchor, its corners on a tilted plane, its way. */
import { anchorPlace, movePlaces, setCorners, setPlaceAnchor, type PlaceMove } from '@tallow/core/edit';
import { isFixed } from '@tallow/core/assembly';
import { find, shotOf, type Placement } from '@tallow/core/document';
import {
  apply,
  cornersOf,
  invert,
  isEmpty,
  multiply,
  project,
  type Box,
  type Matrix,
  type Point,
  type Quad,
} from '@tallow/core/geometry';
import { useRef, type PointerEvent } from 'react';
import { setShowing } from '../../picture/showing.ts';
import { usePlayback } from '../../playback/playback.ts';
import { useShotTime } from '../../playback/shot-time.ts';
import { drag } from '../../shot/drag.ts';
import { useDocument } from '../../shot/document.ts';
import { viewMatrix } from '../../view/view.ts';
import { useViewed } from '../../view/viewed.ts';
import {
  boxIn,
  flatMatrix,
  frameOn,
  levelMatrix,
  levelOf,
  selectedUses,
  standsAs,
  usePlacing,
  type Level,
} from './placing.ts';
import { carry } from './carry.ts';
import { Handle } from '../../parts/handle.tsx';
import { LightMarks } from './light-marks.tsx';
import { WayMark } from './way-mark.tsx';

const FLAME = '#ffc25c';
/** CSS px above the frame at which it is turned. */
const ABOVE = 26;

const lineThrough = (points: readonly Point[]): string =>
  points.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('');

/** What the handles of a use need to know. */
interface Sight {
  readonly level: Level;
  readonly placement: Placement;
  readonly shotFrame: number;
  /** Frame of the level. */
  readonly frame: number;
  readonly box: Box;
  /** The corners of what it covers as they are seen, CSS px. */
  readonly quad: Quad;
  /** Where its anchor is, in the level's space and in CSS px. */
  readonly anchor: Point;
  readonly seenAnchor: Point;
  /** From the level's space to CSS px. */
  readonly outward: Matrix;
  readonly placeOf: (event: { clientX: number; clientY: number }) => Point;
}

function sightOf(
  level: Level,
  placement: Placement,
  shotFrame: number,
  view: Matrix,
  svg: () => DOMRect,
): Sight | null {
  const use = standsAs(level, placement, shotFrame);
  if (!use) return null;
  const box = boxIn(level, placement, shotFrame);
  const outward = multiply(view, levelMatrix(level, shotFrame));
  const { bend } = use;
  const whole = multiply(view, use.matrix);
  const quad = cornersOf(box).map((p) => apply(whole, bend ? project(bend, p) : p)) as unknown as Quad;
  const frame = frameOn(level, shotFrame);
  const anchor = anchorPlace(level.doc, placement, frame);
  const inward = invert(outward);
  return {
    level,
    placement,
    shotFrame,
    frame,
    box,
    quad,
    anchor,
    seenAnchor: apply(outward, anchor),
    outward,
    placeOf: ({ clientX, clientY }) => {
      const rect = svg();
      return apply(inward, { x: clientX - rect.left, y: clientY - rect.top });
    },
  };
}

/** Turned or scaled about its anchor, or about where all that is picked has its middle. */
function turning({ level, frame, placeOf }: Sight, ids: readonly string[], about: Point, how: 'turn' | 'scale') {
  const moveFor = (at: Point, from: Point): PlaceMove => {
    const [a, b] = [from, at].map((p) => ({
      far: Math.max(1e-3, Math.hypot(p.x - about.x, p.y - about.y)),
      angle: Math.atan2(p.y - about.y, p.x - about.x),
    })) as [{ far: number; angle: number }, { far: number; angle: number }];
    return {
      about,
      dx: 0,
      dy: 0,
      scale: how === 'scale' ? Math.min(50, Math.max(0.02, b.far / a.far)) : 1,
      angle: how === 'turn' ? b.angle - a.angle : 0,
    };
  };
  return (event: PointerEvent<SVGElement>): void => {
    const carrying = carry(level, ids);
    drag(event, {
      placeOf,
      name: how,
      change: (doc, at, from) => movePlaces(doc, ids, frame, moveFor(at, from)),
      moved: (at, from) => {
        carrying.show(moveFor(at, from));
      },
      over: carrying.end,
    });
  };
}

/** The corners one by one: what is picked lies on a tilted plane. */
function Corners({ sight }: { sight: Sight }) {
  const { placement, box, quad, frame, outward, placeOf } = sight;
  const { corners } = placement;
  // What is kept is the box the corners were first taken of.
  const kept = corners?.box ?? box;
  const flat = flatMatrix(sight.level, placement, sight.shotFrame);
  const into = multiply(invert(levelMatrix(sight.level, sight.shotFrame)), flat);
  const at = (corners?.at ?? cornersOf(kept)).map((p) => apply(into, p)) as unknown as Quad;
  const seen = corners ? (at.map((p) => apply(outward, p)) as unknown as Quad) : quad;
  return (
    <>
      <path d={`${lineThrough(seen)}Z`} fill="none" stroke={FLAME} strokeWidth={1.5} />
      {seen.map((p, i) => (
        <Handle
          key={i}
          at={p}
          label={`Corner ${['top left', 'top right', 'bottom right', 'bottom left'][i]!}`}
          cursor="move"
          onDown={(event) => {
            drag(event, {
              placeOf,
              name: 'corner',
              change: (doc, to) => setCorners(doc, placement.id, frame, kept, at.with(i, to) as unknown as Quad),
              moved: () => {
                setShowing({ rough: true });
              },
              over: () => {
                setShowing({ rough: false });
              },
            });
          }}
        />
      ))}
    </>
  );
}

/** The frame of one use, with what scales and turns it; of one that is locked the frame alone. */
function Frame({ sight, ids, about }: { sight: Sight; ids: readonly string[]; about: Point }) {
  const { quad } = sight;
  const stays = isFixed(sight.level.doc, sight.placement);
  const top = { x: (quad[0].x + quad[1].x) / 2, y: (quad[0].y + quad[1].y) / 2 };
  const middle = { x: (quad[0].x + quad[2].x) / 2, y: (quad[0].y + quad[2].y) / 2 };
  const size = Math.hypot(top.x - middle.x, top.y - middle.y) || 1;
  const up = { x: (top.x - middle.x) / size, y: (top.y - middle.y) / size };
  const knob = { x: top.x + up.x * ABOVE, y: top.y + up.y * ABOVE };
  return (
    <>
      <path d={`${lineThrough(quad)}Z`} fill="none" stroke="#14110f" strokeOpacity={0.6} strokeWidth={3} />
      <path d={`${lineThrough(quad)}Z`} fill="none" stroke={FLAME} strokeWidth={1.5} />
      {stays ? null : <path d={lineThrough([top, knob])} stroke={FLAME} strokeWidth={1.5} />}
      {(stays ? [] : quad).map((p, i) => (
        <Handle key={i} at={p} label="Size" cursor="nwse-resize" onDown={turning(sight, ids, about, 'scale')} />
      ))}
      {stays ? null : <Handle at={knob} label="Turn" cursor="grab" onDown={turning(sight, ids, about, 'turn')} />}
    </>
  );
}

function Anchor({ sight }: { sight: Sight }) {
  const { level, placement, shotFrame, frame, seenAnchor, placeOf } = sight;
  return (
    <Handle
      at={seenAnchor}
      label="Anchor: what it turns and is scaled about"
      cursor="move"
      round={false}
      onDown={(event) => {
        const into = multiply(invert(flatMatrix(level, placement, shotFrame)), levelMatrix(level, shotFrame));
        drag(event, {
          placeOf,
          name: 'anchor of a use',
          change: (doc, to) => setPlaceAnchor(doc, placement.id, frame, apply(into, to)),
        });
      }}
    />
  );
}

export function PlaceOverlay() {
  const doc = useDocument((s) => s.doc);
  const { selected, inside, corners, light } = usePlacing();
  const view = useViewed((s) => s.view);
  const area = useViewed((s) => s.area);
  const shotFrame = useShotTime((s) => s.frame);
  const playing = usePlayback((s) => s.playing);
  const svg = useRef<SVGSVGElement>(null);
  if (!doc || area.width === 0) return null;
  const level = levelOf(doc, inside);
  const matrix = viewMatrix(view, shotOf(doc), area);
  const uses = selectedUses(level, selected);
  const sights = uses.flatMap(
    (placement) => sightOf(level, placement, shotFrame, matrix, () => svg.current!.getBoundingClientRect()) ?? [],
  );
  const [first] = sights;
  const ids = uses.map(({ id }) => id);
  const about =
    sights.length > 1
      ? {
          x: sights.reduce((sum, { anchor }) => sum + anchor.x, 0) / sights.length,
          y: sights.reduce((sum, { anchor }) => sum + anchor.y, 0) / sights.length,
        }
      : (first?.anchor ?? { x: 0, y: 0 });
  return (
    <svg ref={svg} className="pointer-events-none absolute inset-0 size-full" data-testid="place-overlay">
      {level.holder ? null : <LightMarks doc={doc} shotFrame={shotFrame} view={matrix} svg={svg} selected={light} />}
      {sights.map((sight) => {
        const path = find(doc, 'path', sight.placement.way?.pathId);
        return (
          <g key={sight.placement.id}>
            {path ? <WayMark level={level} placement={sight.placement} path={path} view={matrix} svg={svg} /> : null}
            {playing || isEmpty(sight.box) ? null : corners && sights.length === 1 && !isFixed(doc, sight.placement) ? (
              <Corners sight={sight} />
            ) : (
              <Frame sight={sight} ids={ids} about={about} />
            )}
            {playing || corners || sights.length > 1 || isFixed(doc, sight.placement) ? null : <Anchor sight={sight} />}
          </g>
        );
      })}
    </svg>
  );
}
