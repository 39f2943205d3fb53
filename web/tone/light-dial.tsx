/** Where light comes from: a dial turned with the pen, or with the arrow keys. */
import { useRef } from 'react';
import { startScrub } from '../parts/dragging.ts';

const SIZE = 72;
const R = 28;

export function LightDial({
  angle,
  onTurn,
  onDone,
}: {
  angle: number;
  onTurn: (angle: number) => void;
  onDone: () => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const turnTo = (event: { clientX: number; clientY: number; shiftKey: boolean }): void => {
    const box = svg.current!.getBoundingClientRect();
    const at = Math.atan2(event.clientY - box.top - SIZE / 2, event.clientX - box.left - SIZE / 2);
    const degrees = ((at * 180) / Math.PI + 360) % 360;
    onTurn(event.shiftKey ? Math.round(degrees / 15) * 15 : Math.round(degrees));
  };
  const shown = (((angle % 360) + 360) % 360) * (Math.PI / 180);
  const [x, y] = [SIZE / 2 + R * Math.cos(shown), SIZE / 2 + R * Math.sin(shown)];
  return (
    <svg
      ref={svg}
      width={SIZE}
      height={SIZE}
      role="slider"
      tabIndex={0}
      aria-label="Direction of light"
      aria-valuemin={0}
      aria-valuemax={360}
      aria-valuenow={Math.round(((angle % 360) + 360) % 360)}
      data-testid="light-dial"
      className="shrink-0 cursor-pointer touch-none rounded-full"
      onPointerDown={(event) => {
        startScrub(
          event,
          turnTo,
          () => {
            onTurn(angle);
          },
          onDone,
        );
      }}
      onKeyDown={(event) => {
        const by = { ArrowLeft: -5, ArrowDown: -5, ArrowRight: 5, ArrowUp: 5 }[event.key];
        if (by === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        onTurn((angle + by + 360) % 360);
        onDone();
      }}
    >
      <circle cx={SIZE / 2} cy={SIZE / 2} r={SIZE / 2 - 2} fill="#14110f" stroke="#332b25" />
      <path d={`M${SIZE / 2 - 11} ${SIZE / 2 + 6}a8 8 0 0 1 4-13 9 9 0 0 1 16 3 6 6 0 0 1-1 11z`} fill="#6b6055" />
      <line x1={SIZE / 2} y1={SIZE / 2} x2={x} y2={y} stroke="#ffc25c" strokeWidth={1.4} strokeDasharray="2 3" />
      <circle cx={x} cy={y} r={6} fill="#ffc25c" />
    </svg>
  );
}
