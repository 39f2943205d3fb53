/** The picture in the middle of the desk, with what the pen will touch above it. */
import { shotOf } from '@tallow/core/document';
import { apply } from '@tallow/core/geometry';
import {
  Eclipse,
  FlipHorizontal2,
  Hand,
  Images,
  Maximize,
  Repeat2,
  Wallpaper,
  RotateCcw,
  RotateCw,
  Sparkles,
  ZoomIn,
  ZoomOut,
} from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useRef } from 'react';
import { HoldButton } from '../actions/hold-button.tsx';
import { ITEM, Menu } from '../parts/menu.tsx';
import { useOfCurrent } from '../selection/current.ts';
import { setShowing, useShowing } from '../picture/showing.ts';
import { useSelection } from '../selection/selection.ts';
import { useShallow } from 'zustand/react/shallow';
import { setViewed, useViewed, viewed } from '../view/viewed.ts';
import { held, setHeld, useHeld, takeTool } from '../hand/held.ts';
import { useScreen } from '../screen/screen.ts';
import { viewMatrix } from '../view/view.ts';
import { penText } from '../pen/pen-target.ts';
import { offer } from '../intake/intake.ts';
import { bringIn, setReferences, useReferences } from '../references/references.ts';
import { setEngine } from '../picture/open-engine.ts';
import { seenOf } from '../tools/index.ts';
import { Engine } from '../picture/engine.ts';
import { CameraFrame } from './camera-frame.tsx';
import { FirstSteps } from './first-steps.tsx';
import { OnionKey } from './onion-key.tsx';
import { prepareBrushes } from '../pen/prepare.ts';
import { keepHandsByLayer } from '../hand/by-layer.ts';
import { OpenEnds } from './open-ends.tsx';
import { SetPoints } from './set-points.tsx';
import { OtherHand } from './other-hand.tsx';
import { attachPen } from '../pen/pen.ts';
import { RulerOverlay } from './ruler.tsx';
import { SetChips } from './set-chips.tsx';
import { PlanLine } from '../plan/plan-line.tsx';
import { PlanOverlay } from '../plan/overlay.tsx';
import { AxisHandle } from '../palette/axis-handle.tsx';
import { TimeOverlay } from './time-overlay.tsx';
import { ActionButton } from '../actions/action-button.tsx';
import { titleOf } from '../actions/key-text.ts';
import { act } from '../actions/action.ts';
import { PICTURE_ACTIONS } from '../picture/actions.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { VIEW_ACTIONS } from '../view/actions.ts';

/** Colours to judge on in place of the background: never exported. */
const BACKDROPS = [
  { colour: '#262626', label: '15 % grey' },
  { colour: '#23427a', label: 'blue' },
  { colour: '#7f7f7f', label: 'mid grey' },
  { colour: '#f2f2f2', label: 'paper' },
] as const;

function Backdrop() {
  const backdrop = useShowing((s) => s.backdrop);
  return (
    <Menu
      label="Backdrop for judging"
      className={`grid size-8 place-items-center rounded-lg hover:bg-black/25 ${backdrop ? 'text-flame' : 'text-wax-300'}`}
      trigger={<Wallpaper size={15} />}
    >
      <p className="max-w-56 px-2 py-1 text-xs text-wax-500">
        In place of the background, for judging only. Never exported.
      </p>
      <DropdownMenu.RadioGroup
        value={backdrop ?? ''}
        onValueChange={(colour) => {
          setShowing({ backdrop: colour === '' ? null : colour });
        }}
      >
        {[{ colour: '', label: 'the shot’s own' }, ...BACKDROPS].map(({ colour, label }) => (
          <DropdownMenu.RadioItem key={colour} value={colour} className={`${ITEM} data-[state=checked]:text-flame`}>
            <span
              className="size-4 rounded border border-soot-700"
              style={{ background: colour || 'repeating-linear-gradient(45deg,#332b25 0 3px,#231c17 3px 6px)' }}
            />
            {label}
          </DropdownMenu.RadioItem>
        ))}
      </DropdownMenu.RadioGroup>
    </Menu>
  );
}

/** What the pen would do here, or why it cannot. */
function PenText({ hidden }: { hidden: boolean }) {
  const frame = useSelection((s) => s.frame);
  useHeld((s) => s.newOnHeld);
  useHeld((s) => s.brushName);
  const pen = useOfCurrent(useShallow((now) => penText(now, frame)));
  if (!pen) return null;
  return (
    <span
      hidden={hidden}
      data-testid="pen-text"
      data-tip={pen.text}
      className={`min-w-0 flex-1 truncate px-2 ${pen.trouble ? 'text-warn' : 'text-wax-300'}`}
    >
      {pen.text}
    </span>
  );
}

function AboveLine({ planning, assembling }: { planning: boolean; assembling: boolean }) {
  const view = useViewed((s) => s.view);
  const holding = useViewed((s) => s.holding);
  const { Above } = seenOf(useHeld((s) => s.activeTool));
  return (
    <div className="absolute inset-x-0 top-0 z-10 flex h-11 items-center gap-1 px-2 text-[13px]">
      {planning ? (
        <PlanLine />
      ) : (
        <>
          {assembling ? null : <OnionKey />}
          {Above ? <Above /> : null}
          <PenText hidden={Above !== undefined} />
          {assembling ? null : <SetChips />}
        </>
      )}
      <button
        type="button"
        data-tip={titleOf(VIEW_ACTIONS.upright)}
        onClick={() => {
          act(VIEW_ACTIONS.upright);
        }}
        className="moves h-8 shrink-0 rounded-lg px-1.5 font-mono text-xs text-wax-300 hover:bg-black/25"
      >
        {Math.round(view.scale * 100)} % · {Math.round((view.angle * 180) / Math.PI)}°
      </button>
      <div className="flex shrink-0 [&_button]:!bg-transparent [&_button:hover]:!bg-black/25">
        <button
          type="button"
          aria-label="Move the picture"
          aria-pressed={holding === 'pan'}
          data-tip={titleOf(VIEW_ACTIONS.pan, 'Move the picture with the pen, until pressed again; or hold')}
          onClick={() => {
            setViewed({ holding: holding === 'pan' ? null : 'pan' });
          }}
          className={`moves grid size-8 place-items-center rounded-lg ${holding === 'pan' ? 'text-flame' : 'text-wax-300'}`}
        >
          <Hand size={16} />
        </button>
        <ActionButton action={VIEW_ACTIONS.zoomOut}>
          <ZoomOut size={16} />
        </ActionButton>
        <ActionButton action={VIEW_ACTIONS.zoomIn}>
          <ZoomIn size={16} />
        </ActionButton>
        <ActionButton action={VIEW_ACTIONS.turnLeft}>
          <RotateCcw size={16} />
        </ActionButton>
        <ActionButton action={VIEW_ACTIONS.turnRight}>
          <RotateCw size={16} />
        </ActionButton>
        <ActionButton action={VIEW_ACTIONS.mirror} pressed={view.mirrored}>
          <FlipHorizontal2 size={16} />
        </ActionButton>
        <ActionButton action={VIEW_ACTIONS.fit}>
          <Maximize size={16} />
        </ActionButton>
      </div>
    </div>
  );
}

/** For judging the picture: rolling through neighbours, the silhouette, a backdrop. */
/** @param planning whether the column is Plan's, which has no place for references. */
function Judging({ planning }: { planning: boolean }) {
  const shown = useReferences((s) => s.shown);
  const finished = useShowing((s) => s.finished);
  return (
    <div
      role="group"
      aria-label="For judging"
      className="absolute bottom-2 right-2 z-10 flex rounded-lg bg-surround/70 [&_button:hover]:!bg-black/25"
    >
      <HoldButton action={TIME_ACTIONS.roll}>
        <Repeat2 size={16} />
      </HoldButton>
      <HoldButton action={PICTURE_ACTIONS.silhouette}>
        <Eclipse size={15} />
      </HoldButton>
      <ActionButton action={PICTURE_ACTIONS.finished} pressed={finished}>
        <Sparkles size={15} />
      </ActionButton>
      <Backdrop />
      {planning ? null : (
        <button
          type="button"
          aria-label="References"
          aria-pressed={shown}
          data-tip="References: pictures to draw to, under or beside the picture"
          className={`grid size-8 place-items-center rounded-lg ${shown ? 'text-flame' : 'text-wax-300'}`}
          onClick={() => {
            setReferences({ shown: !shown });
            takeTool(null);
            setHeld({ brushShown: false });
          }}
        >
          <Images size={16} />
        </button>
      )}
    </div>
  );
}

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
      const { brushes, brushName: tool } = held();
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
  const tool = useHeld((s) => s.activeTool);
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
