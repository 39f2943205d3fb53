/** Bending what is picked up by a grid. */
import { apply, invert, type Matrix, type Point } from '@tallow/core/geometry';
import { bent, flatGrid, STILL, transformed, type PointGrid } from '@tallow/core/marks';
import { useState, type PointerEvent as ReactPointerEvent } from 'react';
import { startDrag } from '../../parts/dragging.ts';
import { endGesture, takeBack } from '../../shot/document.ts';
import { changeSelected, gestureName, pick, pickUp, setPick, fractionsNow, usePick } from './pick.ts';

const FLAME = '#ffc25c';

/** The grid over what is picked up; each of its points is dragged on its own. */
export function BendGrid({
  cells,
  matrix,
  placeOf,
}: {
  cells: number;
  matrix: Matrix;
  placeOf: (e: { clientX: number; clientY: number }) => Point;
}) {
  const box = usePick((s) => s.box);
  const [grid, setGrid] = useState<PointGrid>(() => flatGrid(pick().box, cells));
  const take = (row: number, column: number) => (event: ReactPointerEvent) => {
    startDrag(event, () => {
      const before = grid;
      const gesture = gestureName();
      const share = fractionsNow();
      const flat = flatGrid(box, cells);
      return {
        move: (e) => {
          const at = placeOf(e);
          const next = before.map((line, r) => line.map((p, c) => (r === row && c === column ? at : p)));
          setGrid(next);
          changeSelected(
            'bend',
            (mark, drawingId) => {
              const w = share[drawingId] ?? 1;
              const own = next.map((line, r) =>
                line.map((p, c) => {
                  const f = flat[r]![c]!;
                  return { x: f.x + (p.x - f.x) * w, y: f.y + (p.y - f.y) * w };
                }),
              );
              const space = pick().spaces[drawingId];
              if (!space) return bent(mark, box, own);
              return transformed(bent(transformed(mark, space), box, own), invert(space));
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

/** Begins bending from how the marks lie now. */
export function beginBend(cells: number): void {
  pickUp(pick().sets);
  setPick({ bend: cells, transform: STILL });
}
