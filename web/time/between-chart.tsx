/** The spacing of in-betweens: ticks on the way from one drawing to the next, dragged or stepped by keys. */
import { randomId } from '@tallow/core/document';
import { scaleLinear } from 'd3-scale';
import { useRef, type PointerEvent } from 'react';
import { startDrag } from '../parts/dragging.ts';
import { putTick } from './between.ts';
import { endGesture, takeBack } from '../shot/document.ts';

const SIZE = { width: 332, height: 62 };

export function BetweenChart({ shares }: { shares: readonly number[] }) {
  const svg = useRef<SVGSVGElement>(null);
  const x = scaleLinear([0, 1], [24, SIZE.width - 24]);
  const shareOf = (event: { clientX: number }) => {
    const box = svg.current!.getBoundingClientRect();
    return Math.min(1, Math.max(0, x.invert(event.clientX - box.left)));
  };
  const drag = (index: number) => (event: PointerEvent<SVGCircleElement>) => {
    startDrag(event, () => {
      const gesture = `tick-${randomId()}`;
      return {
        move: (each) => {
          putTick(index, shareOf(each), gesture);
        },
        up: endGesture,
        drop: () => {
          takeBack(gesture);
        },
      };
    });
  };
  return (
    <svg
      ref={svg}
      width={SIZE.width}
      height={SIZE.height}
      className="mx-auto my-1 block shrink-0 touch-none select-none rounded-lg bg-soot-950"
      role="group"
      aria-label="Spacing of the in-betweens"
      data-testid="between-chart"
    >
      <line x1={x(0)} x2={x(1)} y1={30} y2={30} stroke="#6b6055" />
      <line x1={x(0)} x2={x(0)} y1={14} y2={46} stroke="#3fc7b4" strokeWidth={3} />
      <line x1={x(1)} x2={x(1)} y1={14} y2={46} stroke="#a48cff" strokeWidth={3} strokeDasharray="5 3" />
      {shares.map((share, i) => (
        <g key={i}>
          <line x1={x(share)} x2={x(share)} y1={20} y2={40} stroke="#ffc25c" strokeWidth={2} pointerEvents="none" />
          {shares.length < 12 ? (
            <text x={x(share)} y={56} textAnchor="middle" className="fill-wax-500 font-mono text-[10px]">
              {Math.round(share * 100)}
            </text>
          ) : null}
          <circle
            cx={x(share)}
            cy={30}
            r={12}
            fill="transparent"
            className="cursor-ew-resize"
            role="slider"
            tabIndex={0}
            data-arrows
            data-tick={i}
            aria-label={`In-between ${i + 1}`}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(share * 100)}
            onPointerDown={drag(i)}
            onKeyDown={(event) => {
              const by = { ArrowRight: 0.01, ArrowUp: 0.01, ArrowLeft: -0.01, ArrowDown: -0.01 }[event.key];
              if (by === undefined) return;
              event.preventDefault();
              event.stopPropagation();
              putTick(i, share + by * (event.shiftKey ? 5 : 1), `tick-key-${i}`);
            }}
            onKeyUp={(event) => {
              if (event.key.startsWith('Arrow')) endGesture();
            }}
          />
        </g>
      ))}
    </svg>
  );
}
