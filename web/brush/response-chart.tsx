/** The answer to pressure as a curve: drawn across with the pen, or height by height with the keys. */
import { answered, STRAIGHT, type Response } from '@tallow/core/brush';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useRef, type KeyboardEvent } from 'react';
import { startScrub } from '../parts/dragging.ts';

const SIZE = { width: 150, height: 112 };
const PLOT = { left: 10, right: 140, top: 10, bottom: 102 };
const x = scaleLinear([0, 1], [PLOT.left, PLOT.right]);
const y = scaleLinear([0, 1], [PLOT.bottom, PLOT.top]);
const STEPS = Array.from({ length: 41 }, (_, i) => i / 40);

/** A response with one of its heights, 0 to 1. */
function withHeight(response: Response, index: number, height: number): Response {
  const next = [...response] as [number, number, number, number, number];
  next[index] = Math.round(Math.min(1, Math.max(0, height)) * 100) / 100;
  return next;
}

export function ResponseChart({ response, onSet }: { response: Response; onSet: (response: Response) => void }) {
  const svg = useRef<SVGSVGElement>(null);
  /** Draws a curve on from the one before: at the press, that is what was set. */
  const drawnOn = (before: Response, event: { clientX: number; clientY: number }): Response => {
    const box = svg.current!.getBoundingClientRect();
    const across = x.invert(event.clientX - box.left);
    return withHeight(before, Math.min(4, Math.max(0, Math.round(across * 4))), y.invert(event.clientY - box.top));
  };
  const keyed = (index: number) => (event: KeyboardEvent) => {
    const by = { ArrowUp: 0.05, ArrowDown: -0.05 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onSet(withHeight(response, index, response[index]! + by));
  };
  const curve = line<number>(
    (at) => x(at),
    (at) => y(answered(response, at)),
  );
  return (
    <figure className="shrink-0">
      <svg
        ref={svg}
        {...SIZE}
        data-testid="response"
        className="cursor-crosshair touch-none rounded-lg bg-soot-950"
        onPointerDown={(event) => {
          let drawn = response;
          startScrub(
            event,
            (at) => {
              drawn = drawnOn(drawn, at);
              onSet(drawn);
            },
            () => {
              onSet(response);
            },
          );
        }}
      >
        <path d={`M${x(0)} ${y(0)}L${x(1)} ${y(1)}`} stroke="#332b25" strokeDasharray="3 3" />
        <path d={`M${PLOT.left} ${PLOT.top}V${PLOT.bottom}H${PLOT.right}`} stroke="#5a4c40" fill="none" />
        <path d={curve(STEPS) ?? ''} fill="none" stroke="#ffc25c" strokeWidth={2} />
        {response.map((height, i) => (
          <circle
            key={i}
            cx={x(i / 4)}
            cy={y(height)}
            r={5}
            fill="#231c17"
            stroke="#ffc25c"
            strokeWidth={1.5}
            tabIndex={0}
            role="slider"
            aria-label={`Answer at ${i * 25} per cent pressure`}
            aria-valuenow={Math.round(height * 100)}
            aria-valuemin={0}
            aria-valuemax={100}
            onKeyDown={keyed(i)}
          />
        ))}
      </svg>
      <figcaption className="mt-0.5 flex items-center justify-between text-[11px] text-wax-500">
        pressure
        <button
          type="button"
          className="rounded px-1 hover:bg-soot-800 hover:text-wax-100"
          data-tip="A straight answer"
          onClick={() => {
            onSet(STRAIGHT);
          }}
        >
          straight
        </button>
      </figcaption>
    </figure>
  );
}
