/** Overlays of the picture in the space of the active layer. */
import { shotOf, type Mark } from '@tallow/core/document';
import { apply, invert, multiply, ringPoints, scaleOf, type Matrix, type Point } from '@tallow/core/geometry';
import { layerMatrix, useCurrent } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { viewMatrix } from '../view/view.ts';
import { useViewed } from '../view/viewed.ts';

/** A mark's line as a path, in the space the matrix leads to. */
export function tracedPath(mark: Mark, matrix: Matrix): string {
  const lines =
    mark.kind === 'shape'
      ? mark.rings.map((ring) => ringPoints(ring, 5))
      : [Array.from(mark.samples.x, (x, i) => ({ x, y: mark.samples.y[i]! }))];
  return lines
    .map((points) =>
      points
        .map((p, i) => {
          const at = apply(matrix, p);
          return `${i === 0 ? 'M' : 'L'}${at.x.toFixed(1)} ${at.y.toFixed(1)}`;
        })
        .join(''),
    )
    .map((line) => (mark.kind === 'shape' ? `${line}Z` : line))
    .join('');
}

/** The map from element space to CSS px of the picture's area, and the way back for a pointer. */
export function useLayerSpace(svg: React.RefObject<SVGSVGElement | null>) {
  const now = useCurrent();
  const view = useViewed((s) => s.view);
  const area = useViewed((s) => s.area);
  const frame = useSelection((s) => s.frame);
  if (!now || area.width === 0) return null;
  const matrix = multiply(viewMatrix(view, shotOf(now.doc), area), layerMatrix(now, frame));
  const placeOf = (event: { clientX: number; clientY: number }): Point => {
    const box = svg.current!.getBoundingClientRect();
    return apply(invert(matrix), { x: event.clientX - box.left, y: event.clientY - box.top });
  };
  return { matrix, placeOf, perPixel: 1 / scaleOf(matrix) };
}

export type LayerSpace = NonNullable<ReturnType<typeof useLayerSpace>>;
