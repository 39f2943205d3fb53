/** The points of strokes and shapes over the picture, those taken with their reach. */
import { apply, type Point } from '@tallow/core/geometry';
import type { ControlPoint } from '@tallow/core/marks';
import { useMemo, useRef, type PointerEvent as ReactPointerEvent } from 'react';
import { startDrag } from '../../parts/dragging.ts';
import { tracedPath, useLayerSpace } from '../../picture/layer-space.ts';
import { useSelection } from '../../selection/selection.ts';
import { useViewed } from '../../view/viewed.ts';
import { useDocument } from '../../shot/document.ts';
import { usePick } from '../pick/pick.ts';
import { selectedControlPoints, controlPointsShown, reshape, setReshape, shapedMarks, useReshape } from './reshape.ts';

const FLAME = '#ffc25c';
const middleOf = (controlPoints: readonly ControlPoint[]): Point => ({
  x: controlPoints.reduce((sum, g) => sum + g.x, 0) / controlPoints.length,
  y: controlPoints.reduce((sum, g) => sum + g.y, 0) / controlPoints.length,
});

export function ReshapeOverlay() {
  const svg = useRef<SVGSVGElement>(null);
  const sight = useLayerSpace(svg);
  const { radius, draft, redraws, pulled } = useReshape();
  useReshape((s) => s.controlPoints);
  const doc = useDocument((s) => s.doc);
  const frame = useSelection((s) => s.frame);
  const sets = usePick((s) => s.sets);
  const layerId = useSelection((s) => s.layerId);
  const scale = useViewed((s) => s.view.scale);
  const [marks, controlPoints] = useMemo(
    () => [shapedMarks(), controlPointsShown()],
    // What is shown hangs on these, read through the stores.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [doc, frame, sets, layerId, scale, pulled],
  );
  if (!sight) return null;
  const { matrix, placeOf, perPixel } = sight;
  const taken = selectedControlPoints();
  const middle = taken.length > 0 ? apply(matrix, middleOf(taken)) : null;
  const size = radius / perPixel;
  const widen = (event: ReactPointerEvent): void => {
    const centre = middleOf(taken);
    const before = reshape().radius;
    startDrag(event, () => ({
      move: (e) => {
        const at = placeOf(e);
        setReshape({ radius: Math.min(2000, Math.max(1, Math.hypot(at.x - centre.x, at.y - centre.y))) });
      },
      up: () => undefined,
      drop: () => {
        setReshape({ radius: before });
      },
    }));
  };
  return (
    <svg
      ref={svg}
      className="pointer-events-none absolute inset-0 size-full"
      data-testid="reshape-overlay"
      data-points={controlPoints.length}
      data-taken={taken.length}
    >
      {marks.map((mark) => (
        <path key={mark.id} d={tracedPath(mark, matrix)} fill="none" stroke={FLAME} strokeOpacity={0.45} />
      ))}
      {redraws
        ? null
        : controlPoints.map((controlPoint) => {
            const at = apply(matrix, controlPoint);
            return (
              <rect
                key={`${controlPoint.markId}-${controlPoint.ring}-${controlPoint.index}`}
                x={at.x - 2.5}
                y={at.y - 2.5}
                width={5}
                height={5}
                transform={`rotate(45 ${at.x} ${at.y})`}
                fill="#14110f"
                stroke={FLAME}
              />
            );
          })}
      {redraws
        ? null
        : taken.map((controlPoint) => {
            const at = apply(matrix, controlPoint);
            return (
              <g key={`t-${controlPoint.markId}-${controlPoint.ring}-${controlPoint.index}`}>
                <circle
                  cx={at.x}
                  cy={at.y}
                  r={size}
                  fill={FLAME}
                  fillOpacity={0.06}
                  stroke={FLAME}
                  strokeOpacity={0.35}
                  strokeDasharray="2 4"
                />
                <circle cx={at.x} cy={at.y} r={5} fill={FLAME} />
              </g>
            );
          })}
      {middle && !redraws ? (
        <g className="pointer-events-auto cursor-ew-resize" onPointerDown={widen}>
          <title>Reach: drag to set how far the pull is felt</title>
          <circle cx={middle.x + size} cy={middle.y} r={14} fill="transparent" />
          <circle
            cx={middle.x + size}
            cy={middle.y}
            r={5}
            fill="#14110f"
            stroke={FLAME}
            strokeWidth={1.5}
            data-testid="reach"
          />
        </g>
      ) : null}
      {draft.length > 1 ? (
        <path
          d={`M${draft
            .map((p) => apply(matrix, p))
            .map((p) => `${p.x} ${p.y}`)
            .join('L')}${redraws ? '' : 'Z'}`}
          fill={redraws ? 'none' : FLAME}
          fillOpacity={0.08}
          stroke={FLAME}
          strokeWidth={redraws ? 2 : 1}
        />
      ) : null}
    </svg>
  );
}
