/** A handle over the picture, large enough for a pen. */
import type { Point } from '@tallow/core/geometry';
import type { PointerEvent } from 'react';

const FLAME = '#ffc25c';
/** CSS px of its radius, and of what a pen can press. */
const [HANDLE, TARGET] = [6, 16] as const;

export function Handle({
  at,
  label,
  cursor,
  round = true,
  colour = FLAME,
  onDown,
}: {
  at: Point;
  label: string;
  cursor: string;
  round?: boolean;
  colour?: string;
  onDown: (event: PointerEvent<SVGElement>) => void;
}) {
  return (
    <g className="pointer-events-auto" style={{ cursor }} onPointerDown={onDown} data-handle={label} data-tip={label}>
      <circle cx={at.x} cy={at.y} r={TARGET} fill="transparent" />
      {round ? (
        <circle cx={at.x} cy={at.y} r={HANDLE} fill="#14110f" stroke={colour} strokeWidth={2} />
      ) : (
        <rect
          x={at.x - HANDLE}
          y={at.y - HANDLE}
          width={2 * HANDLE}
          height={2 * HANDLE}
          transform={`rotate(45 ${at.x} ${at.y})`}
          fill="#14110f"
          stroke={colour}
          strokeWidth={2}
        />
      )}
    </g>
  );
}
