/** The picture in the middle of the desk, with what the pen will touch above it. */
import { shotOf } from '@tallow/core/document';
import { apply } from '@tallow/core/geometry';
import { useEffect, useRef } from 'react';
import { useOfCurrent } from '../selection/current.ts';
import { useShallow } from 'zustand/react/shallow';
import { useViewed, viewed } from '../view/viewed.ts';
import { toolState, useToolState } from '../hand/tool-state.ts';
import { useScreen } from '../screen/screen.ts';
import { viewMatrix } from '../view/view.ts';
import { offer } from '../intake/intake.ts';
import { bringIn } from '../references/references.ts';
import { setEngine } from '../picture/open-engine.ts';
import { seenOf } from '../tools/index.ts';
import { Engine } from '../picture/engine.ts';
import { CameraFrame } from './camera-frame.tsx';
import { FirstSteps } from './first-steps.tsx';
import { prepareBrushes } from '../pen/prepare.ts';
import { keepHandsByLayer } from '../hand/by-layer.ts';
import { OpenEnds } from './open-ends.tsx';
import { SetPoints } from './set-points.tsx';
import { OtherHand } from './other-hand.tsx';
import { attachPen } from '../pen/pen.ts';
import { RulerOverlay } from './ruler.tsx';
import { PlanOverlay } from '../plan/overlay.tsx';
import { AxisHandle } from '../palette/axis-handle.tsx';
import { TimeOverlay } from './time-overlay.tsx';
import { AboveLine } from './above-line.tsx';
import { Judging } from './judging.tsx';

/** The frame's edge as a thin line, and what lies beyond it dimmed. */
function FrameEdge() {
  const size = useOfCurrent(
    useShallow(({ doc }) => {
      const { width, height } = shotOf(doc);
      return { width, height };
    }),
  );
  const view = useViewed((s) => s.view);
  const area = useViewed((s) => s.area);
  if (!size || area.width === 0) return null;
  const { width, height } = size;
  const matrix = viewMatrix(view, { width, height }, area);
  const corners = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ].map(([x, y]) => apply(matrix, { x: x!, y: y! }));
  const edge = `M${corners.map((p) => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`).join('L')}Z`;
  return (
    <svg className="pointer-events-none absolute inset-0 size-full">
      <path d={`M0 0H${area.width}V${area.height}H0Z${edge}`} fillRule="evenodd" fill="#232323" fillOpacity={0.62} />
      <path d={edge} fill="none" stroke="#000" strokeOpacity={0.7} strokeWidth={1} />
    </svg>
  );
}

/** A ring as wide as the brush, following the pen without React. */
function BrushRing({ within }: { within: React.RefObject<HTMLDivElement | null> }) {
  const ring = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const host = within.current;
    const element = ring.current;
    if (!host || !element) return undefined;
    const size = (): number => {
      const { brushes, brushName: tool } = toolState();
      const { view } = viewed();
      return Math.max(3, brushes[tool].width * view.scale);
    };
    const follow = (event: PointerEvent): void => {
      const box = host.getBoundingClientRect();
      const diameter = size();
      element.style.width = element.style.height = `${diameter}px`;
      element.style.transform = `translate(${event.clientX - box.left - diameter / 2}px, ${event.clientY - box.top - diameter / 2}px)`;
      element.style.opacity = '1';
    };
    const leave = (): void => {
      element.style.opacity = '0';
    };
    host.addEventListener('pointermove', follow);
    host.addEventListener('pointerleave', leave);
    return () => {
      host.removeEventListener('pointermove', follow);
      host.removeEventListener('pointerleave', leave);
    };
  }, [within]);
  return (
    <div
      ref={ring}
      className="pointer-events-none absolute left-0 top-0 rounded-full border border-white/80 opacity-0 mix-blend-difference"
    />
  );
}

const CURSORS = { pan: 'grab', turn: 'crosshair', width: 'ew-resize' } as const;

interface PictureProps {
  /** Whether the pen plans rather than draws. */
  readonly planning?: boolean;
  /** Whether it places uses of elements in the shot. */
  readonly assembling?: boolean;
  /** Whether the buttons along its edges are put up yet; they lie over the picture and move nothing. */
  readonly areEdgesUp?: boolean;
}

export function StagePicture({ planning = false, assembling = false, areEdgesUp = true }: PictureProps) {
  const drawing = !planning && !assembling;
  const host = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const holding = useViewed((s) => s.holding);
  const tool = useToolState((s) => s.activeTool);
  const { Overlay } = seenOf(tool);
  const full = useScreen((s) => s.full);
  const panels = useScreen((s) => s.panels);
  const transparent = useOfCurrent((now) => shotOf(now.doc).background === null) ?? false;

  useEffect(() => {
    const element = canvas.current;
    const area = host.current;
    if (!element || !area) return undefined;
    const engine = new Engine(element);
    setEngine(engine);
    const detach = attachPen(element, engine);
    void prepareBrushes();
    const forget = keepHandsByLayer();
    const watch = new ResizeObserver(() => {
      engine.resized(area.clientWidth, area.clientHeight);
    });
    watch.observe(area);
    const pasted = (event: ClipboardEvent): void => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      void bringIn(files);
    };
    window.addEventListener('paste', pasted);
    return () => {
      window.removeEventListener('paste', pasted);
      watch.disconnect();
      detach();
      forget();
      engine.close();
      setEngine(null);
    };
  }, []);

  return (
    <div
      className="relative min-h-0 min-w-0 flex-1 overflow-hidden bg-surround"
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes('Files')) event.preventDefault();
      }}
      onDrop={(event) => {
        if (event.dataTransfer.files.length === 0) return;
        event.preventDefault();
        void offer([...event.dataTransfer.files]);
      }}
    >
      <div
        ref={host}
        className={`absolute inset-x-0 bottom-0 ${full ? 'top-0' : 'top-11'}`}
        style={
          transparent
            ? {
                backgroundImage: 'conic-gradient(#2e2e2e 25%, #383838 0 50%, #2e2e2e 0 75%, #383838 0)',
                backgroundSize: '20px 20px',
              }
            : {}
        }
      >
        <canvas
          ref={canvas}
          tabIndex={0}
          aria-label="Picture"
          data-testid="picture"
          className="absolute inset-0 size-full touch-none !outline-offset-[-2px]"
          style={{ cursor: holding ? CURSORS[holding] : 'crosshair' }}
        />
        <FrameEdge />
        <CameraFrame assembling={assembling} />
        {assembling ? null : <PlanOverlay live={planning} />}
        {drawing ? <RulerOverlay /> : null}
        {drawing ? <OpenEnds /> : null}
        {drawing ? <SetPoints /> : null}
        {drawing ? <TimeOverlay /> : null}
        {drawing ? <AxisHandle /> : null}
        {Overlay && !planning ? <Overlay /> : null}
        {full || !drawing ? null : <FirstSteps />}
        {planning || tool !== null ? null : <BrushRing within={host} />}
      </div>
      {drawing && areEdgesUp ? <OtherHand /> : null}
      {full || !areEdgesUp ? null : <AboveLine planning={planning} assembling={assembling} />}
      {full || !areEdgesUp || !panels || assembling ? null : <Judging planning={planning} />}
    </div>
  );
}
