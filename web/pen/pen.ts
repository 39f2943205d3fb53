/**
 * The pen: pointer events of the picture go to what is active, or move the view. One function takes all of them,
 * the canvas's own and those of the practice pen.
 */
import { apply, IDENTITY, invert, multiply, scaleOf, type Matrix } from '@tallow/core/geometry';
import { beginPlanStroke } from '../plan/plan-pen.ts';
import { current, homeMatrix, layerMatrix, type Current } from '../selection/current.ts';
import { showing } from '../picture/showing.ts';
import { RUBBER } from '../hand/brushes.ts';
import { toolState, setBrush } from '../hand/tool-state.ts';
import { barrelDeed } from './barrel.ts';
import { selection } from '../selection/selection.ts';
import { setViewed, viewed } from '../view/viewed.ts';
import { playback, stopPlaying } from '../playback/playback.ts';
import type { View } from '../view/view.ts';
import { viewAbout } from '../view/view.ts';
import type { Engine } from '../picture/engine.ts';
import type { PenDoing, PenSample } from '../hand/pen-doing.ts';
import { beginStroke } from './stroke-pen.ts';
import { setPen } from '../hand/open-pen.ts';
import { capturePointer } from '../parts/dragging.ts';

interface Spot {
  readonly x: number;
  readonly y: number;
}
interface Doing {
  readonly kind: 'pen';
  readonly pointer: number;
  readonly type: string;
  readonly hand: PenDoing;
  /** Whether the pen is up, between two taps of one form. */
  waits: boolean;
}
interface Moving {
  readonly kind: 'pan' | 'turn' | 'width';
  readonly pointer: number;
  readonly from: Spot;
  readonly view: View;
  readonly width: number;
}
interface Pinching {
  readonly kind: 'pinch';
  readonly view: View;
  readonly from: readonly [Spot, Spot];
}

/** What lasts as long as the barrel's button is held. */
interface Holding {
  readonly kind: 'held';
  readonly pointer: number;
  readonly release: () => void;
}

/** Buttons of a pen, as the standard of pointer events counts them. */
const BARREL_BUTTON = 2;
const ERASER_BUTTON = 5;

/** Listens on a canvas until the returned function is called. */
export function attachPen(canvas: HTMLCanvasElement, engine: Engine): () => void {
  let doing: Doing | Moving | Pinching | Holding | null = null;
  let penSeen = false;
  const touches = new Map<number, Spot>();

  const spotOf = (event: PointerEvent): Spot => {
    const box = canvas.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const sampleOf = (event: PointerEvent): PenSample => ({
    ...spotOf(event),
    pressure: event.pointerType === 'pen' ? event.pressure : 1,
    altitude: event.altitudeAngle,
    azimuth: event.azimuthAngle,
    shift: event.shiftKey,
    alt: event.altKey,
  });
  const samplesOf = (event: PointerEvent): PenSample[] => {
    const events = event.getCoalescedEvents();
    return (events.length > 0 ? events : [event]).map(sampleOf);
  };

  /** CSS px of the canvas to the space of the active element. */
  const inwardOf = (now: Current): Matrix => {
    const space = showing().planning ? 'element' : toolState().activeTool?.space;
    const { frame } = selection();
    const placed = space === 'shot' ? IDENTITY : space === 'element' ? homeMatrix(now, frame) : layerMatrix(now, frame);
    const pixel = devicePixelRatio;
    return multiply(invert(multiply(engine.place().view, placed)), [pixel, 0, 0, pixel, 0, 0]);
  };

  const planned = (inward: Matrix, first: PenSample): PenDoing => {
    const stroke = beginPlanStroke(apply(inward, first), 10 * scaleOf(inward));
    return {
      move: (samples) => {
        for (const sample of samples) stroke.move(apply(inward, sample));
      },
      up: () => {
        stroke.up();
        return true;
      },
      drop: () => {
        stroke.drop();
      },
    };
  };

  /** Begins what is active where the pen lands. */
  const land = (first: PenSample): PenDoing | null => {
    const now = current();
    if (!now) return null;
    const inward = inwardOf(now);
    if (showing().planning) return planned(inward, first);
    const { activeTool } = toolState();
    return activeTool ? activeTool.begin(inward, first) : beginStroke(engine, inward, first);
  };
  /** The pen's other end rubs out, whatever is active. */
  const landRubber = (first: PenSample): PenDoing | null => {
    const now = current();
    return now && !showing().planning ? beginStroke(engine, inwardOf(now), first, RUBBER) : null;
  };
  const beginHand = (event: PointerEvent, from = land): void => {
    const hand = from(sampleOf(event));
    if (hand) doing = { kind: 'pen', pointer: event.pointerId, type: event.pointerType, hand, waits: false };
  };

  const beginMove = (kind: Moving['kind'], event: PointerEvent): void => {
    const { view } = viewed();
    const { brushes, brushName: tool } = toolState();
    doing = { kind, pointer: event.pointerId, from: spotOf(event), view, width: brushes[tool].width };
  };

  /** The button on the pen's barrel. */
  const beginBarrel = (event: PointerEvent): void => {
    const deed = barrelDeed(toolState().barrel);
    const now = current();
    if (deed.moves) beginMove(deed.moves, event);
    else if (deed.holds) {
      deed.holds.run();
      doing = { kind: 'held', pointer: event.pointerId, release: deed.holds.release };
    } else if (now) deed.at?.(inwardOf(now), sampleOf(event));
  };

  const beginPinch = (): void => {
    const [a, b] = [...touches.values()];
    if (!a || !b) return;
    if (doing?.kind === 'pen') doing.hand.drop();
    doing = { kind: 'pinch', view: viewed().view, from: [a, b] };
  };

  const down = (event: PointerEvent): void => {
    if (event.pointerType === 'pen') penSeen = true;
    // A palm beside a pen that is down is no finger.
    if (event.pointerType === 'touch' && doing?.kind === 'pen' && doing.type === 'pen') return;
    if (event.pointerType === 'touch') touches.set(event.pointerId, spotOf(event));
    capturePointer(canvas, event);
    canvas.focus({ preventScroll: true });
    event.preventDefault();
    if (touches.size === 2) {
      beginPinch();
      return;
    }
    if (doing?.kind === 'pen' && doing.waits && event.button === 0) {
      doing = { ...doing, pointer: event.pointerId, waits: false };
      doing.hand.down?.(sampleOf(event));
      return;
    }
    if (doing) return;
    if (playback().playing) stopPlaying();
    const { holding } = viewed();
    if (event.button === 1 || holding === 'pan' || (event.pointerType === 'touch' && penSeen)) beginMove('pan', event);
    else if (holding === 'turn') beginMove('turn', event);
    else if (holding === 'width') beginMove('width', event);
    else if (event.pointerType === 'pen' && event.button === BARREL_BUTTON) beginBarrel(event);
    else if (event.button === ERASER_BUTTON) beginHand(event, landRubber);
    else if (event.button === 0) beginHand(event);
  };

  const move = (event: PointerEvent): void => {
    if (touches.has(event.pointerId)) touches.set(event.pointerId, spotOf(event));
    if (!doing) return;
    if (doing.kind === 'pinch') {
      const [a, b] = [...touches.values()];
      if (a && b) pinch(doing, a, b);
      return;
    }
    if (doing.kind === 'pen' && (doing.waits || doing.pointer === event.pointerId)) doing.hand.move(samplesOf(event));
    if (doing.kind === 'pen' || doing.kind === 'held' || doing.pointer !== event.pointerId) return;
    moveBy(doing, spotOf(event));
  };

  const moveBy = ({ kind, from, view, width }: Moving, at: Spot): void => {
    const { area } = viewed();
    if (kind === 'pan')
      setViewed({ fitted: false, view: { ...view, panX: view.panX + at.x - from.x, panY: view.panY + at.y - from.y } });
    else if (kind === 'width')
      setBrush({ width: Math.min(400, Math.max(1, Math.round(width * Math.exp((at.x - from.x) / 160)))) });
    else {
      const middle = { x: area.width / 2, y: area.height / 2 };
      const turn = Math.atan2(at.y - middle.y, at.x - middle.x) - Math.atan2(from.y - middle.y, from.x - middle.x);
      setViewed({ fitted: false, view: viewAbout(view, area, middle, 1, turn) });
    }
  };

  const pinch = ({ view, from: [a0, b0] }: Pinching, a: Spot, b: Spot): void => {
    const { area } = viewed();
    const middle0 = { x: (a0.x + b0.x) / 2, y: (a0.y + b0.y) / 2 };
    const factor = Math.hypot(b.x - a.x, b.y - a.y) / Math.max(1, Math.hypot(b0.x - a0.x, b0.y - a0.y));
    const turn = Math.atan2(b.y - a.y, b.x - a.x) - Math.atan2(b0.y - a0.y, b0.x - a0.x);
    const turned = viewAbout(view, area, middle0, factor, Math.abs(turn) > 0.06 ? turn : 0);
    setViewed({
      fitted: false,
      view: {
        ...turned,
        panX: turned.panX + (a.x + b.x) / 2 - middle0.x,
        panY: turned.panY + (a.y + b.y) / 2 - middle0.y,
      },
    });
  };

  // Lifting or losing the pen ends the stroke where it is; the event's own place and pressure add nothing.
  const up = (event: PointerEvent): void => {
    touches.delete(event.pointerId);
    if (!doing) return;
    if (doing.kind === 'pinch') {
      if (touches.size === 0) doing = null;
      return;
    }
    if (doing.pointer !== event.pointerId) return;
    if (doing.kind !== 'pen') {
      if (doing.kind === 'held') doing.release();
      doing = null;
      return;
    }
    if (doing.waits) return;
    const { hand } = doing;
    const lifted = doing;
    doing = null;
    if (!hand.up()) doing = { ...lifted, waits: true };
  };

  // Escape backs out of what is half done; Enter ends a form of several taps as it is.
  const keyed = (event: KeyboardEvent): void => {
    if (doing?.kind !== 'pen') return;
    if (event.code === 'Escape') doing.hand.drop();
    else if (event.code === 'Enter' && doing.waits) doing.hand.end?.();
    else return;
    doing = null;
    event.preventDefault();
    event.stopPropagation();
  };

  const wheel = (event: WheelEvent): void => {
    event.preventDefault();
    const box = canvas.getBoundingClientRect();
    const { view, area } = viewed();
    if (event.shiftKey) setViewed({ fitted: false, view: { ...view, panX: view.panX - event.deltaX - event.deltaY } });
    else
      setViewed({
        fitted: false,
        view: viewAbout(
          view,
          area,
          { x: event.clientX - box.left, y: event.clientY - box.top },
          Math.exp(-event.deltaY / 480),
        ),
      });
  };

  canvas.addEventListener('pointerdown', down);
  canvas.addEventListener('pointermove', move);
  canvas.addEventListener('pointerup', up);
  canvas.addEventListener('pointercancel', up);
  // A pen that is lost without a word ends its stroke where it is; after an ordinary lift nothing is left to end.
  canvas.addEventListener('lostpointercapture', up);
  setPen(land);
  window.addEventListener('keydown', keyed, { capture: true });
  canvas.addEventListener('wheel', wheel, { passive: false });
  // The barrel's button would open the browser's menu.
  const menu = (event: Event): void => {
    event.preventDefault();
  };
  canvas.addEventListener('contextmenu', menu);
  return () => {
    if (doing?.kind === 'pen') doing.hand.drop();
    setPen(null);
    window.removeEventListener('keydown', keyed, { capture: true });
    canvas.removeEventListener('pointerdown', down);
    canvas.removeEventListener('pointermove', move);
    canvas.removeEventListener('pointerup', up);
    canvas.removeEventListener('pointercancel', up);
    canvas.removeEventListener('lostpointercapture', up);
    canvas.removeEventListener('wheel', wheel);
    canvas.removeEventListener('contextmenu', menu);
  };
}
