/** The picture in the middle of the desk, with what the pen will touch above it. */
import { shotOf } from '@tallow/core/document';
import { whyNotDrawable } from '@tallow/core/edit';
import { apply } from '@tallow/core/geometry';
import { runStart } from '@tallow/core/timing';
import { FlipHorizontal2, Hand, Maximize, RotateCcw, RotateCw, ZoomIn, ZoomOut } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { ActionButton } from '../parts/button.tsx';
import { act } from '../state/actions.ts';
import { titleOf } from '../state/keys.ts';
import { shownNow, useCurrent, type Current } from '../state/current.ts';
import { setDesk, useDesk, viewMatrix } from '../state/desk.ts';
import { setEngine } from '../state/session.ts';
import { Engine } from './engine.ts';
import { attachPen } from './pen.ts';

/** Says which drawing the pen will touch, or why it will touch none. */
function penText(now: Current, frame: number): { text: string; trouble: boolean } {
  const trouble = whyNotDrawable(now.active?.layer);
  if (trouble) return { text: trouble, trouble: true };
  const shown = shownNow(now, frame);
  const name = now.active!.layer.name;
  if (!shown) return { text: `pen begins a new drawing on ${name}`, trouble: false };
  const { list } = now.active!;
  if (list.period === 1) return { text: `pen draws on ${name}, shown throughout`, trouble: false };
  const { index, run } = shown.exposure;
  const number = list.runs.slice(0, index + 1).filter((r) => r.slot !== null).length;
  const first = runStart(list, index, now.length) + 1;
  const frames = run.length === 1 ? `frame ${first}` : `frames ${first}–${first + run.length - 1}`;
  return { text: `pen draws on ${name}, drawing ${number}, ${frames}`, trouble: false };
}

function OnionKey() {
  const onion = useDesk((s) => s.onion);
  if (!onion.on) {
    return (
      <button
        type="button"
        className="moves rounded-md px-2 py-1 text-wax-500 hover:text-wax-100"
        onClick={() => {
          setDesk({ onion: { ...onion, on: true } });
        }}
      >
        Onion skin off
      </button>
    );
  }
  const change = (side: 'before' | 'after') => () => {
    setDesk({ onion: { ...onion, [side]: (onion[side] + 1) % 6 } });
  };
  return (
    <div className="flex items-center">
      <button
        type="button"
        className="moves flex items-center gap-2 rounded-md px-2 py-1 text-wax-300 hover:bg-black/20"
        onClick={change('before')}
        title="Drawings shown before · click for one more, 0 to 5"
      >
        <span className="h-[3px] w-5 rounded bg-before" /> {onion.before} before
      </button>
      <button
        type="button"
        className="moves flex items-center gap-2 rounded-md px-2 py-1 text-wax-300 hover:bg-black/20"
        onClick={change('after')}
        title="Drawings shown after · click for one more, 0 to 5"
      >
        <span
          className="h-[3px] w-5"
          style={{ background: 'repeating-linear-gradient(90deg,#a48cff 0 5px,transparent 5px 7px)' }}
        />{' '}
        {onion.after} after
      </button>
      <button
        type="button"
        className="moves rounded-md px-2 py-1 text-wax-500 hover:text-wax-100"
        title="Switch the onion skin off · W"
        onClick={() => {
          setDesk({ onion: { ...onion, on: false } });
        }}
      >
        hide
      </button>
    </div>
  );
}

function AboveLine() {
  const now = useCurrent();
  const frame = useDesk((s) => s.frame);
  const view = useDesk((s) => s.view);
  const holding = useDesk((s) => s.holding);
  if (!now) return null;
  const pen = penText(now, frame);
  return (
    <div className="absolute inset-x-0 top-0 z-10 flex h-11 items-center gap-2 px-2 text-[13px]">
      <OnionKey />
      <span data-testid="pen-text" className={`min-w-0 truncate px-2 ${pen.trouble ? 'text-warn' : 'text-wax-300'}`}>
        {pen.text}
      </span>
      <button
        type="button"
        title={titleOf('upright')}
        onClick={() => {
          act('upright');
        }}
        className="moves ml-auto h-8 shrink-0 rounded-lg px-2 font-mono text-xs text-wax-300 hover:bg-black/25"
      >
        {Math.round(view.scale * 100)} % · {Math.round((view.angle * 180) / Math.PI)}°
      </button>
      <div className="flex shrink-0 gap-0.5 [&_button]:!bg-transparent [&_button:hover]:!bg-black/25">
        <button
          type="button"
          aria-label="Move the picture"
          aria-pressed={holding === 'pan'}
          title="Move the picture with the pen, until pressed again · hold T"
          onClick={() => {
            setDesk({ holding: holding === 'pan' ? null : 'pan' });
          }}
          className={`moves grid size-8 place-items-center rounded-lg ${holding === 'pan' ? 'text-flame' : 'text-wax-300'}`}
        >
          <Hand size={16} />
        </button>
        <ActionButton name="zoomOut">
          <ZoomOut size={16} />
        </ActionButton>
        <ActionButton name="zoomIn">
          <ZoomIn size={16} />
        </ActionButton>
        <ActionButton name="turnLeft">
          <RotateCcw size={16} />
        </ActionButton>
        <ActionButton name="turnRight">
          <RotateCw size={16} />
        </ActionButton>
        <ActionButton name="mirror" pressed={view.mirrored}>
          <FlipHorizontal2 size={16} />
        </ActionButton>
        <ActionButton name="fit">
          <Maximize size={16} />
        </ActionButton>
      </div>
    </div>
  );
}

/** The frame's edge as a thin line, and what lies beyond it dimmed. */
function FrameEdge() {
  const now = useCurrent();
  const view = useDesk((s) => s.view);
  const area = useDesk((s) => s.area);
  if (!now || area.width === 0) return null;
  const { width, height } = shotOf(now.doc);
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

/** What to do first, while nothing has been drawn. */
function FirstHint() {
  const now = useCurrent();
  if (!now || now.layers.some(({ layer }) => Object.keys(layer.slots).length > 0)) return null;
  return (
    <p className="pointer-events-none absolute inset-0 grid place-items-center text-center text-wax-300">
      <span>
        Draw here. The first stroke makes the first drawing.
        <br />
        <span className="text-wax-500">
          New drawing, under the wheel, makes the next; close them into a cycle when they lead round.
        </span>
      </span>
    </p>
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
      const { brushes, tool, view } = useDesk.getState();
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

export function Picture() {
  const host = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const holding = useDesk((s) => s.holding);
  const now = useCurrent();
  const transparent = now ? shotOf(now.doc).background === null : false;

  useEffect(() => {
    const element = canvas.current;
    const area = host.current;
    if (!element || !area) return undefined;
    const engine = new Engine(element);
    setEngine(engine);
    const detach = attachPen(element, engine);
    const watch = new ResizeObserver(() => {
      engine.resized(area.clientWidth, area.clientHeight);
    });
    watch.observe(area);
    return () => {
      watch.disconnect();
      detach();
      engine.close();
      setEngine(null);
    };
  }, []);

  return (
    <div className="relative min-h-0 flex-1 overflow-hidden bg-surround">
      <div
        ref={host}
        className="absolute inset-x-0 bottom-0 top-11"
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
        <FirstHint />
        <BrushRing within={host} />
      </div>
      <AboveLine />
    </div>
  );
}
