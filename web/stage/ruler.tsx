/** The ruler on the picture: moved by its edge, turned by its ends. Strokes that begin near it follow it. */
import { shotOf } from '@tallow/core/document';
import { apply, invert, type Point } from '@tallow/core/geometry';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { useCurrent } from '../selection/current.ts';
import { setToolState, useToolState, toolState } from '../hand/tool-state.ts';
import { useViewed } from '../view/viewed.ts';
import { viewMatrix } from '../view/view.ts';
import { startDrag } from '../parts/dragging.ts';

/** How far its handles stand from its middle, CSS px. */
const ARM = 150;
const LEVEL = Math.PI / 12;
/** Within this of a multiple of 15 degrees the ruler snaps to it, radians. */
const SNAP = 0.03;

export function RulerOverlay() {
  const now = useCurrent();
  const ruler = useToolState((s) => s.ruler);
  const view = useViewed((s) => s.view);
  const area = useViewed((s) => s.area);
  const svg = useRef<SVGSVGElement>(null);
  if (!now || !ruler || area.width === 0) return null;
  const matrix = viewMatrix(view, shotOf(now.doc), area);
  const middle = apply(matrix, ruler);
  const ahead = apply(matrix, { x: ruler.x + Math.cos(ruler.angle), y: ruler.y + Math.sin(ruler.angle) });
  const length = Math.hypot(ahead.x - middle.x, ahead.y - middle.y);
  const [ux, uy] = [(ahead.x - middle.x) / length, (ahead.y - middle.y) / length];
  const far = area.width + area.height;
  const inShot = (event: { clientX: number; clientY: number }): Point => {
    const box = svg.current!.getBoundingClientRect();
    return apply(invert(matrix), { x: event.clientX - box.left, y: event.clientY - box.top });
  };
  const drop = (): void => {
    setToolState({ ruler });
  };
  const move = (event: PointerEvent<SVGElement>): void => {
    startDrag(event, () => {
      event.currentTarget.focus({ preventScroll: true });
      const from = inShot(event);
      return {
        move: (each) => {
          const at = inShot(each);
          setToolState({ ruler: { ...ruler, x: ruler.x + at.x - from.x, y: ruler.y + at.y - from.y } });
        },
        drop,
      };
    });
  };
  const turn = (side: 1 | -1) => (event: PointerEvent<SVGElement>) => {
    startDrag(event, () => ({
      move: (each) => {
        const at = inShot(each);
        const angle = Math.atan2(side * (at.y - ruler.y), side * (at.x - ruler.x));
        const nearest = Math.round(angle / LEVEL) * LEVEL;
        setToolState({ ruler: { ...ruler, angle: Math.abs(angle - nearest) < SNAP ? nearest : angle } });
      },
      drop,
    }));
  };
  const keyed = (event: KeyboardEvent): void => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    const up = { ArrowUp: -10, ArrowDown: 10 }[event.key];
    const { ruler: laid } = toolState();
    if (!laid || (by === undefined && up === undefined)) return;
    event.preventDefault();
    event.stopPropagation();
    setToolState({ ruler: { ...laid, angle: laid.angle + (by ?? 0) * LEVEL, y: laid.y + (up ?? 0) } });
  };
  const handle = (side: 1 | -1) => (
    <circle
      cx={middle.x + side * ux * ARM}
      cy={middle.y + side * uy * ARM}
      r={9}
      className="pointer-events-auto cursor-grab"
      fill="#231c17"
      stroke="#f4ecdf"
      strokeWidth={1.5}
      onPointerDown={turn(side)}
    >
      <title>Turn the ruler</title>
    </circle>
  );
  return (
    <svg ref={svg} className="pointer-events-none absolute inset-0 size-full" data-testid="ruler">
      <path
        d={`M${middle.x - ux * far} ${middle.y - uy * far}L${middle.x + ux * far} ${middle.y + uy * far}`}
        stroke="#000"
        strokeOpacity={0.5}
        strokeWidth={3}
      />
      <path
        d={`M${middle.x - ux * far} ${middle.y - uy * far}L${middle.x + ux * far} ${middle.y + uy * far}`}
        stroke="#f4ecdf"
        strokeOpacity={0.8}
        strokeWidth={1}
      />
      <rect
        x={-26}
        y={-9}
        width={52}
        height={18}
        rx={9}
        transform={`translate(${middle.x} ${middle.y}) rotate(${(Math.atan2(uy, ux) * 180) / Math.PI})`}
        className="pointer-events-auto cursor-move"
        fill="#231c17"
        stroke="#f4ecdf"
        strokeWidth={1.5}
        tabIndex={0}
        role="slider"
        aria-label="Ruler"
        aria-valuenow={Math.round((ruler.angle * 180) / Math.PI)}
        aria-valuetext={`${Math.round((ruler.angle * 180) / Math.PI)} degrees`}
        onKeyDown={keyed}
        onPointerDown={move}
      />
      {handle(1)}
      {handle(-1)}
    </svg>
  );
}
