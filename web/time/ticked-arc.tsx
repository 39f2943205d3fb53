/** A line through the places something has on its drawings, with a tick at each. */
import { apply, type Matrix, type Point } from '@tallow/core/geometry';

/** A line through places with a tick at each; round the seam too. */
export function TickedArc({
  matrix,
  ticks,
  closed,
  here,
}: {
  matrix: Matrix;
  ticks: readonly (Point & { frame: number })[];
  closed: boolean;
  here: number;
}) {
  const spots = ticks.map((tick) => apply(matrix, tick));
  const line = spots.map(({ x, y }) => `${x} ${y}`).join('L');
  return (
    <g pointerEvents="none">
      {spots.length > 1 ? (
        <>
          <path d={`M${line}${closed ? 'Z' : ''}`} fill="none" stroke="#100c0a" strokeWidth={3.5} strokeOpacity={0.6} />
          <path d={`M${line}${closed ? 'Z' : ''}`} fill="none" stroke="#f4ecdf" strokeWidth={1.4} />
        </>
      ) : null}
      {spots.map(({ x, y }, i) => (
        <circle
          key={ticks[i]!.frame}
          cx={x}
          cy={y}
          r={ticks[i]!.frame === here ? 5 : 3}
          fill={ticks[i]!.frame === here ? '#ffc25c' : '#f4ecdf'}
          stroke="#100c0a"
        />
      ))}
    </g>
  );
}
