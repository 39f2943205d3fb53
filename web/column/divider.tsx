/** The edge between the wheel and what stands under it: dragged, it gives one of them more room. */
import { startDrag } from '../parts/dragging.ts';
import { onScreen, setScreen, useScreen } from '../screen/screen.ts';
import { WHEEL } from '../wheel/dial.ts';
import { MIN, MAX, useWheelScale } from '../wheel/room.ts';

/** One press of an arrow key. */
const STEP = 0.05;
const kept = (scale: number): number => Math.min(MAX, Math.max(MIN, scale));

export function Divider() {
  const scale = useWheelScale();
  const byHand = useScreen((s) => s.wheelScale !== null);
  const set = (next: number): void => {
    setScreen({ wheelScale: kept(next) });
  };
  return (
    <div
      role="separator"
      tabIndex={0}
      data-arrows
      data-testid="divider"
      aria-label="Between wheel and layers"
      aria-orientation="horizontal"
      aria-valuemin={Math.round(MIN * 100)}
      aria-valuemax={MAX * 100}
      aria-valuenow={Math.round(scale * 100)}
      data-tip={`Drag: more room for the layers or for the wheel${byHand ? ' · double-click: as it was' : ''}`}
      className="group mx-2 flex h-2.5 shrink-0 cursor-row-resize touch-none items-center"
      onPointerDown={(event) => {
        const from = event.clientY;
        const before = onScreen().wheelScale;
        startDrag(event, () => ({
          move: ({ clientY }) => {
            set(scale + (clientY - from) / WHEEL.size);
          },
          up: () => undefined,
          drop: () => {
            setScreen({ wheelScale: before });
          },
        }));
      }}
      onDoubleClick={() => {
        setScreen({ wheelScale: null });
      }}
      onKeyDown={(event) => {
        const way = { ArrowUp: -STEP, ArrowDown: STEP }[event.key];
        if (way === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        set(scale + way);
      }}
    >
      <span className="h-px flex-1 bg-soot-700 group-hover:bg-wax-500" />
      <span className="mx-1.5 h-[3px] w-7 rounded-full bg-soot-700 group-hover:bg-wax-500" />
      <span className="h-px flex-1 bg-soot-700 group-hover:bg-wax-500" />
    </div>
  );
}
