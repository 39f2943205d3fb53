/** The place about which what is picked up is turned, scaled and mirrored: dragged, and drawn to places that mean something. */
import { apply, invert, multiply, type Matrix, type Point } from '@tallow/core/geometry';
import { exposureAt, roundOf, shiftAt } from '@tallow/core/timing';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { startDrag } from '../../parts/dragging.ts';
import { current } from '../../selection/current.ts';
import { selection } from '../../selection/selection.ts';
import { matrixNow, selectMiddle, pick, pickUp, pivotNow, setPick, usePick } from './pick.ts';
import { STILL } from '@tallow/core/marks';

/** How near a place draws the pivot to it, CSS px. */
const NEAR = 12;

/** Places the pivot is drawn to, in the active layer's space: anchor, bases, traced points of this frame, corners and middle of the box. */
function pivotPlaces(): Point[] {
  const now = current();
  const { box } = pick();
  const own = [
    selectMiddle(box),
    { x: box.left, y: box.top },
    { x: box.right, y: box.top },
    { x: box.right, y: box.bottom },
    { x: box.left, y: box.bottom },
    { x: (box.left + box.right) / 2, y: box.bottom },
  ];
  if (!now?.active) return own;
  const { active, element, length } = now;
  const { frame } = selection();
  // Anchor and bases lie in the element, where its layers may have been put elsewhere.
  const back = invert(shiftAt(active, element.anchor, frame, roundOf(element, length)));
  const slot = exposureAt(active.list, frame, length)?.run.slot ?? '';
  const traced = element.traces
    .filter(({ layerId }) => layerId === active.layer.id)
    .flatMap(({ points }) => points[slot] ?? []);
  return [...[element.anchor, ...element.bases].map(({ x, y }) => apply(back, { x, y })), ...traced, ...own];
}

/** The nearest of some places, or the place itself where none is near. */
function drawnTo(at: Point, places: readonly Point[], near: number): Point {
  const [first] = places
    .map((place) => ({ place, far: Math.hypot(place.x - at.x, place.y - at.y) }))
    .sort((a, b) => a.far - b.far);
  return first && first.far <= near ? { x: first.place.x, y: first.place.y } : at;
}

/** @param rests where it stands while nothing is set, CSS px: beside the turning handle, so that the middle is free for moving. */
export function PivotHandle({
  matrix,
  rests,
  placeOf,
}: {
  matrix: Matrix;
  rests: Point;
  placeOf: (event: { clientX: number; clientY: number }) => Point;
}) {
  const transform = usePick((s) => s.transform);
  const pivot = usePick((s) => s.pivot);
  usePick((s) => s.box);
  const at = pivot ? apply(multiply(matrix, matrixNow(transform)), pivotNow()) : rests;
  const drag = (event: ReactPointerEvent) => {
    startDrag(event, () => {
      // What was done so far stays as it is: the new place counts from here on.
      if (pick().transform !== STILL) pickUp(pick().sets);
      const before = pick().pivot;
      const places = pivotPlaces();
      const near = NEAR / Math.hypot(matrix[0], matrix[1]);
      return {
        move: (e) => {
          setPick({ pivot: e.altKey ? placeOf(e) : drawnTo(placeOf(e), places, near) });
        },
        up: () => undefined,
        drop: () => {
          setPick({ pivot: before });
        },
      };
    });
  };
  return (
    <g
      className="pointer-events-auto cursor-move"
      data-testid="pivot"
      data-set={pivot !== null}
      onPointerDown={drag}
      onDoubleClick={() => {
        if (pick().transform !== STILL) pickUp(pick().sets);
        setPick({ pivot: null });
      }}
    >
      <title>
        {pivot
          ? 'It turns, scales and mirrors about this; press twice for the middle again'
          : 'Drag this where it shall turn, scale and mirror about'}
      </title>
      <circle cx={at.x} cy={at.y} r={12} fill="transparent" />
      <circle cx={at.x} cy={at.y} r={5} fill="none" stroke="#14110f" strokeWidth={3.5} />
      <circle cx={at.x} cy={at.y} r={5} fill="none" stroke="#ffc25c" strokeWidth={pivot ? 2 : 1.2} />
      <path
        d={`M${at.x - 8} ${at.y}H${at.x + 8}M${at.x} ${at.y - 8}V${at.y + 8}`}
        stroke="#ffc25c"
        strokeWidth={pivot ? 1.6 : 1}
      />
    </g>
  );
}
