/** Points set by taps of a stroke that goes on: dragged on a curve, tapped again to end it. */
import { apply } from '@tallow/core/geometry';
import { useRef } from 'react';
import { usePoints } from '../pen/points.ts';
import { useLayerSpace } from '../picture/layer-space.ts';

export function SetPoints() {
  const svg = useRef<SVGSVGElement>(null);
  const sight = useLayerSpace(svg);
  const points = usePoints((s) => s.points);
  return (
    <svg
      ref={svg}
      className="pointer-events-none absolute inset-0 size-full"
      data-testid="set-points"
      data-count={points.length}
    >
      {sight
        ? points.map((point, i) => {
            const { x, y } = apply(sight.matrix, point);
            return (
              <g key={i}>
                <circle cx={x} cy={y} r={4.5} fill="#14110f" stroke="#ffc25c" strokeWidth={1.5} />
                {i === 0 ? <circle cx={x} cy={y} r={8} fill="none" stroke="#ffc25c" strokeOpacity={0.5} /> : null}
              </g>
            );
          })
        : null}
    </svg>
  );
}
