/** The box round what is picked up, with handles that scale, turn, and say about what. */
import { apply, invert, type Matrix, type Point } from '@tallow/core/geometry';
import type { Transform } from '@tallow/core/marks';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { startDrag } from '../../parts/dragging.ts';
import { matrixNow, pick, pivotNow, usePick } from './pick.ts';
import { cornersNow, followTransform } from './pick-pen.ts';
import { PivotHandle } from './pivot-handle.tsx';

const FLAME = '#ffc25c';
/** How far the turning handle stands off the box, CSS px. */
const STEM = 30;
/** How far beside it the pivot stands while none is set, CSS px. */
const BESIDE = 30;
const LEVEL = Math.PI / 12;

/** Places of the box's handles in shares of its sides. */
const HANDLES = [
  [0, 0],
  [0.5, 0],
  [1, 0],
  [1, 0.5],
  [1, 1],
  [0.5, 1],
  [0, 1],
  [0, 0.5],
] as const;

/** The transform that brings a handle to a place, its opposite staying where it is; with Alt, or where a pivot is set, that stays. */
function scaledTo(
  before: Transform,
  [u, v]: readonly [number, number],
  at: Point,
  { free, centred }: { free: boolean; centred: boolean },
): Transform {
  const { box } = pick();
  const [width, height] = [box.right - box.left, box.bottom - box.top];
  const handle = { x: box.left + u * width, y: box.top + v * height };
  const fixed = centred || pick().pivot ? pivotNow() : { x: box.left + (1 - u) * width, y: box.top + (1 - v) * height };
  const held = apply(matrixNow(before), fixed);
  // The pen's way from what stays, with turning and skewing undone.
  const inner = matrixNow({ ...before, x: 0, y: 0, scaleX: 1, scaleY: 1 });
  const back = invert([inner[0], inner[1], inner[2], inner[3], 0, 0]);
  const way = apply(back, { x: at.x - held.x, y: at.y - held.y });
  const [spanX, spanY] = [handle.x - fixed.x, handle.y - fixed.y];
  let scaleX = u === 0.5 || spanX === 0 ? before.scaleX : way.x / spanX;
  let scaleY = v === 0.5 || spanY === 0 ? before.scaleY : way.y / spanY;
  if (u !== 0.5 && v !== 0.5 && !free) {
    const grown = Math.max(
      0,
      (way.x * spanX * before.scaleX + way.y * spanY * before.scaleY) /
        (spanX * spanX * before.scaleX * before.scaleX + spanY * spanY * before.scaleY * before.scaleY || 1),
    );
    scaleX = before.scaleX * grown;
    scaleY = before.scaleY * grown;
  }
  // Nothing has no way back: a thousandth is as small as it gets.
  const min = (scale: number) => (Math.abs(scale) < 1e-3 ? 1e-3 * (scale < 0 ? -1 : 1) : scale);
  const next = { ...before, scaleX: min(scaleX), scaleY: min(scaleY) };
  const now = apply(matrixNow(next), fixed);
  return { ...next, x: before.x + held.x - now.x, y: before.y + held.y - now.y };
}

export function PickBox({
  matrix,
  placeOf,
}: {
  matrix: Matrix;
  placeOf: (event: { clientX: number; clientY: number }) => Point;
}) {
  const transform = usePick((s) => s.transform);
  const corners = cornersNow().map((p) => apply(matrix, p));
  const [a, b, c, d] = corners as [Point, Point, Point, Point];
  const at = (u: number, v: number): Point => ({
    x: (1 - v) * ((1 - u) * a.x + u * b.x) + v * ((1 - u) * d.x + u * c.x),
    y: (1 - v) * ((1 - u) * a.y + u * b.y) + v * ((1 - u) * d.y + u * c.y),
  });
  const top = at(0.5, 0);
  const middle = at(0.5, 0.5);
  const away = Math.hypot(top.x - middle.x, top.y - middle.y) || 1;
  const stem = {
    x: top.x + ((top.x - middle.x) / away) * STEM,
    y: top.y + ((top.y - middle.y) / away) * STEM - (away === 1 ? STEM : 0),
  };
  const across = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  const rests = { x: stem.x + ((b.x - a.x) / across) * BESIDE, y: stem.y + ((b.y - a.y) / across) * BESIDE };
  const scale = (spot: readonly [number, number]) => (event: ReactPointerEvent) => {
    startDrag(event, () => {
      const before = pick().transform;
      let keys = { free: false, centred: false };
      const follow = followTransform('scale', (p) => scaledTo(before, spot, p, keys));
      return {
        move: (e) => {
          keys = { free: e.shiftKey, centred: e.altKey };
          follow.moveTo(placeOf(e));
        },
        up: follow.up,
        drop: follow.drop,
      };
    });
  };
  const turn = (event: ReactPointerEvent) => {
    startDrag(event, () => {
      const before = pick().transform;
      const pivot = apply(matrixNow(before), pivotNow());
      const angleTo = (p: Point) => Math.atan2(p.y - pivot.y, p.x - pivot.x);
      const from = angleTo(placeOf(event));
      let level = false;
      const follow = followTransform('turn', (p) => {
        const angle = before.angle + angleTo(p) - from;
        return { ...before, angle: level ? Math.round(angle / LEVEL) * LEVEL : angle };
      });
      return {
        move: (e) => {
          level = e.shiftKey;
          follow.moveTo(placeOf(e));
        },
        up: follow.up,
        drop: follow.drop,
      };
    });
  };
  const square = (spot: readonly [number, number]) => {
    const p = at(...spot);
    return (
      <g key={spot.join()} className="pointer-events-auto cursor-nwse-resize" onPointerDown={scale(spot)}>
        <title>Scale; Shift frees the corners, Alt keeps the middle</title>
        <circle cx={p.x} cy={p.y} r={14} fill="transparent" />
        <circle
          cx={p.x}
          cy={p.y}
          r={spot[0] === 0.5 || spot[1] === 0.5 ? 4 : 5.5}
          fill="#14110f"
          stroke={FLAME}
          strokeWidth={1.5}
          data-testid={`scale-${spot[0]}-${spot[1]}`}
        />
      </g>
    );
  };
  return (
    <g data-angle={transform.angle}>
      <path
        d={`M${corners.map((p) => `${p.x} ${p.y}`).join('L')}Z`}
        fill="none"
        stroke={FLAME}
        strokeOpacity={0.7}
        strokeDasharray="2 4"
      />
      <path d={`M${top.x} ${top.y}L${stem.x} ${stem.y}`} stroke={FLAME} strokeOpacity={0.7} />
      <g className="pointer-events-auto cursor-grab" onPointerDown={turn}>
        <title>Turn; Shift for every 15 degrees</title>
        <circle cx={stem.x} cy={stem.y} r={14} fill="transparent" />
        <circle cx={stem.x} cy={stem.y} r={5.5} fill={FLAME} data-testid="turn-picked" />
      </g>
      {HANDLES.map(square)}
      <PivotHandle matrix={matrix} rests={rests} placeOf={placeOf} />
    </g>
  );
}
