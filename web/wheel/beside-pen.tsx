/** What is said beside the pen while something is dragged. */
import { WHEEL } from './dial.ts';
import type { Beside } from './form.ts';

export function BesidePen({ x, y, text }: Beside) {
  return (
    <span
      data-testid="beside-pen"
      className="pointer-events-none absolute z-10 whitespace-nowrap rounded-md bg-soot-950 px-2 py-1 font-mono text-[11px] text-flame shadow-lg"
      style={{ left: Math.max(0, Math.min(x - 40, WHEEL.size - 120)), top: y < 48 ? y + 20 : y - 40 }}
    >
      {text}
    </span>
  );
}
