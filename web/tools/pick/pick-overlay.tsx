/** What is picked up, over the picture: its lines, its box with handles, the lasso, and the grid that bends. */
import { apply, invert, multiply, type Matrix, type Point } from '@tallow/core/geometry';
import { bent, flatGrid, shareOf, STILL, type Grid, type Transform } from '@tallow/core/marks';
import { useEffect, useRef, useState, type PointerEvent as ReactPointerEvent } from 'react';
import { useSelection } from '../../selection/selection.ts';
import { endGesture, takeBack, useDocument } from '../../shot/document.ts';
import {
  changePicked,
  followDesk,
  followDocument,
  gestureName,
  matrixNow,
  pick,
  pickedCount,
  pickUp,
  pivotOf,
  sharesNow,
  usePick,
} from './pick.ts';
import { tracedPath, useLayerSpace } from '../../picture/layer-space.ts';
import { followHandle } from '../../parts/follow-handle.ts';
import { cornersNow, followTransform } from './pick-pen.ts';

const FLAME = '#ffc25c';
/** Marks whose lines are traced; of more the box is enough. */
const TRACED = 150;
/** How far the turning handle stands off the box, CSS px. */
const STEM = 30;
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

/** The transform that brings a handle to a place, its opposite (or with Alt the middle) staying where it is. */
function scaledTo(
  before: Transform,
  [u, v]: readonly [number, number],
  at: Point,
  { free, centred }: { free: boolean; centred: boolean },
): Transform {
  const { box } = pick();
  const [width, height] = [box.right - box.left, box.bottom - box.top];
  const handle = { x: box.left + u * width, y: box.top + v * height };
  const fixed = centred ? pivotOf(box) : { x: box.left + (1 - u) * width, y: box.top + (1 - v) * height };
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
  const least = (scale: number) => (Math.abs(scale) < 1e-3 ? 1e-3 * (scale < 0 ? -1 : 1) : scale);
  const next = { ...before, scaleX: least(scaleX), scaleY: least(scaleY) };
  const now = apply(matrixNow(next), fixed);
  return { ...next, x: before.x + held.x - now.x, y: before.y + held.y - now.y };
}

function Box({ matrix, placeOf }: { matrix: Matrix; placeOf: (event: { clientX: number; clientY: number }) => Point }) {
  const box = usePick((s) => s.box);
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
  const scale = (spot: readonly [number, number]) => (event: ReactPointerEvent<Element>) => {
    followHandle(event, () => {
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
  const turn = (event: ReactPointerEvent<Element>) => {
    followHandle(event, () => {
      const before = pick().transform;
      const pivot = apply(matrixNow(before), pivotOf(box));
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
    </g>
  );
}

/** The grid over what is picked up; each of its points is dragged on its own. */
function Bend({
  cells,
  matrix,
  placeOf,
}: {
  cells: number;
  matrix: Matrix;
  placeOf: (e: { clientX: number; clientY: number }) => Point;
}) {
  const box = usePick((s) => s.box);
  const [grid, setGrid] = useState<Grid>(() => flatGrid(pick().box, cells));
  const take = (row: number, column: number) => (event: ReactPointerEvent<Element>) => {
    followHandle(event, () => {
      const before = grid;
      const gesture = gestureName();
      const share = sharesNow();
      const flat = flatGrid(box, cells);
      return {
        move: (e) => {
          const at = placeOf(e);
          const next = before.map((line, r) => line.map((p, c) => (r === row && c === column ? at : p)));
          setGrid(next);
          changePicked(
            'bend',
            (mark, drawingId) => {
              const w = share[drawingId] ?? 1;
              const own = next.map((line, r) =>
                line.map((p, c) => {
                  const f = flat[r]![c]!;
                  return { x: f.x + (p.x - f.x) * w, y: f.y + (p.y - f.y) * w };
                }),
              );
              return bent(mark, box, own);
            },
            gesture,
          );
        },
        up: endGesture,
        drop: () => {
          takeBack(gesture);
          setGrid(before);
        },
      };
    });
  };
  const shown = grid.map((line) => line.map((p) => apply(matrix, p)));
  const path = (points: readonly Point[]) => `M${points.map((p) => `${p.x} ${p.y}`).join('L')}`;
  return (
    <g>
      {shown.map((line, r) => (
        <path key={`r${r}`} d={path(line)} fill="none" stroke={FLAME} strokeOpacity={0.6} />
      ))}
      {shown[0]!.map((_, c) => (
        <path key={`c${c}`} d={path(shown.map((line) => line[c]!))} fill="none" stroke={FLAME} strokeOpacity={0.6} />
      ))}
      {shown.flatMap((line, r) =>
        line.map((p, c) => (
          <g key={`${r}-${c}`} className="pointer-events-auto cursor-move" onPointerDown={take(r, c)}>
            <circle cx={p.x} cy={p.y} r={14} fill="transparent" />
            <circle
              cx={p.x}
              cy={p.y}
              r={5}
              fill="#14110f"
              stroke={FLAME}
              strokeWidth={1.5}
              data-testid={`bend-${r}-${c}`}
            />
          </g>
        )),
      )}
    </g>
  );
}

export function PickOverlay() {
  const svg = useRef<SVGSVGElement>(null);
  const sight = useLayerSpace(svg);
  const { sets, base, draft, transform, bend } = usePick();
  const frame = useSelection((s) => s.frame);
  const layerId = useSelection((s) => s.layerId);
  useEffect(followDesk, [frame, layerId]);
  useEffect(
    () =>
      useDocument.subscribe((now, before) => {
        if (now.serial !== before.serial) followDocument();
      }),
    [],
  );
  if (!sight) return null;
  const count = pickedCount(sets);
  const share = sharesNow(sets);
  return (
    <svg
      ref={svg}
      className="pointer-events-none absolute inset-0 size-full"
      data-testid="pick-overlay"
      data-count={count}
    >
      {count > 0 && count <= TRACED && bend === null
        ? Object.entries(sets).flatMap(([drawing, ids]) =>
            ids.map((id) => {
              const mark = base[id];
              const moved = multiply(sight.matrix, matrixNow(shareOf(transform, share[drawing] ?? 1)));
              return mark ? (
                <path
                  key={id}
                  d={tracedPath(mark, moved)}
                  fill="none"
                  stroke={FLAME}
                  strokeWidth={1}
                  strokeOpacity={0.9}
                />
              ) : null;
            }),
          )
        : null}
      {count === 0 ? null : bend === null ? <Box {...sight} /> : <Bend key={bend} cells={bend} {...sight} />}
      {draft.length > 1 ? (
        <path
          d={`M${draft
            .map((p) => apply(sight.matrix, p))
            .map((p) => `${p.x} ${p.y}`)
            .join('L')}Z`}
          fill={FLAME}
          fillOpacity={0.08}
          stroke={FLAME}
          strokeDasharray="4 3"
        />
      ) : null}
    </svg>
  );
}

/** Begins bending from how the marks lie now. */
export function beginBend(cells: number): void {
  pickUp(pick().sets);
  usePick.setState({ bend: cells, transform: STILL });
}
