/**
 * The pen: pointer events of the picture become strokes, or move the view. Strokes are built from
 * coalesced samples in element space and become a mark of the document when the pen lifts.
 */
import { randomId } from '@tallow/core/document';
import { addMarks, breakHold, whyNotDrawable } from '@tallow/core/edit';
import { apply, invert, multiply, scaleOf, translation, type Matrix } from '@tallow/core/geometry';
import { current, lineSwatchOf, shownNow, swatchOf, type Current } from '../state/current.ts';
import { desk, setBrush, setDesk, viewAbout, type Tool, type View } from '../state/desk.ts';
import { edit, endGesture, say, takeBack, useDocument } from '../state/document.ts';
import { openSaver } from '../state/session.ts';
import { isLateInHold } from '../state/pen-target.ts';
import type { Live } from './compositor.ts';
import type { Engine } from './engine.ts';
import { beginPlanStroke, type PlanStroke } from '../plan/plan-pen.ts';
import { marksOf, setupOf } from './pen-marks.ts';

interface Spot {
  readonly x: number;
  readonly y: number;
}

interface Drawing {
  readonly kind: 'stroke';
  readonly pointer: number;
  readonly live: Live;
  /** CSS px of the canvas to element space. */
  readonly inward: Matrix;
  readonly finish: () => void;
  readonly drop: () => void;
}
interface Moving {
  readonly kind: 'pan' | 'turn' | 'width';
  readonly pointer: number;
  readonly from: Spot;
  readonly view: View;
  readonly width: number;
}
interface Planning {
  readonly kind: 'plan';
  readonly pointer: number;
  readonly stroke: PlanStroke;
  readonly inward: Matrix;
}
interface Pinching {
  readonly kind: 'pinch';
  readonly view: View;
  readonly from: readonly [Spot, Spot];
}

const STEPS: Readonly<Record<Tool, string>> = { ink: 'stroke', shape: 'shape', rub: 'rub out' };
/** Listens on a canvas until the returned function is called. */
export function attachPen(canvas: HTMLCanvasElement, engine: Engine): () => void {
  let doing: Drawing | Moving | Planning | Pinching | null = null;
  let penSeen = false;
  const touches = new Map<number, Spot>();

  const spotOf = (event: PointerEvent): Spot => {
    const box = canvas.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };

  const feed = ({ live, inward }: Drawing, event: PointerEvent): void => {
    const at = apply(inward, spotOf(event));
    const pressure = event.pointerType === 'pen' ? event.pressure : 1;
    live.add(at.x, at.y, pressure, event.altitudeAngle, event.azimuthAngle);
  };

  const beginStroke = (event: PointerEvent): void => {
    const now = current();
    const trouble = whyNotDrawable(now?.active);
    if (!now?.active || trouble) {
      say(trouble ?? 'There is nothing to draw on.');
      return;
    }
    const { tool, brushes, swatchId, frame } = desk();
    const { layer } = now.active;
    if (tool === 'rub' && !shownNow(now, frame)) {
      say('Nothing is drawn here that could be rubbed out.');
      return;
    }
    const swatch = swatchOf(now.doc, swatchId);
    if (!swatch) {
      say('The palette is empty. Add a swatch to draw with.');
      return;
    }
    const inward = inwardOf(now);
    const matrix = multiply(engine.place().view, translation(now.placement?.x ?? 0, now.placement?.y ?? 0));
    const name = STEPS[tool];
    const gesture = `pen-${randomId()}`;
    // A new drawing in the middle of a hold begins as the pen lands, in the same step as its first stroke.
    const afresh = isLateInHold(now, frame);
    if (afresh) {
      edit(name, (doc) => breakHold(doc, layer.id, frame, randomId).doc, gesture);
      engine.compositor.beginAfresh();
      engine.settled();
    }
    const lines = lineSwatchOf(now.doc, swatchId);
    const setup = setupOf(tool, brushes[tool], swatch, lines, matrix, scaleOf(inward));
    const live = engine.compositor.begin(setup);
    const needed = afresh ? undefined : shownNow(now, frame)?.drawingId;
    doing = {
      kind: 'stroke',
      pointer: event.pointerId,
      live,
      inward,
      drop: () => {
        engine.compositor.drop();
        takeBack(gesture);
        engine.refresh();
      },
      finish: () => {
        const marks = marksOf(tool, setup, live, swatch, lines);
        const put = () => {
          edit(name, (doc) => addMarks(doc, layer.id, frame, marks, randomId), gesture);
          endGesture();
        };
        engine.compositor.settle();
        if (needed && useDocument.getState().missing.has(needed)) {
          void openSaver()
            ?.load([needed])
            .then(put, () => {
              say(
                'This drawing is not loaded yet and the server cannot be reached. The stroke was not kept; draw it again when the header says saved.',
              );
              engine.refresh();
            });
          return;
        }
        put();
        engine.settled();
      },
    };
    feed(doing, event);
    engine.compositor.advance();
  };

  /** CSS px of the canvas to the space of the active element. */
  const inwardOf = (now: Current): Matrix => {
    const placed = translation(now.placement?.x ?? 0, now.placement?.y ?? 0);
    const pixel = devicePixelRatio;
    return multiply(invert(multiply(engine.place().view, placed)), [pixel, 0, 0, pixel, 0, 0]);
  };

  const beginPlan = (event: PointerEvent): void => {
    const now = current();
    if (!now) return;
    const inward = inwardOf(now);
    const stroke = beginPlanStroke(apply(inward, spotOf(event)), 10 * scaleOf(inward));
    doing = { kind: 'plan', pointer: event.pointerId, stroke, inward };
  };

  const beginMove = (kind: Moving['kind'], event: PointerEvent): void => {
    const { view, brushes, tool } = desk();
    doing = { kind, pointer: event.pointerId, from: spotOf(event), view, width: brushes[tool].width };
  };

  const beginPinch = (): void => {
    const [a, b] = [...touches.values()];
    if (!a || !b) return;
    if (doing?.kind === 'stroke') doing.drop();
    if (doing?.kind === 'plan') doing.stroke.drop();
    doing = { kind: 'pinch', view: desk().view, from: [a, b] };
  };

  const down = (event: PointerEvent): void => {
    if (event.pointerType === 'pen') penSeen = true;
    if (event.pointerType === 'touch') touches.set(event.pointerId, spotOf(event));
    canvas.setPointerCapture(event.pointerId);
    canvas.focus({ preventScroll: true });
    event.preventDefault();
    if (touches.size === 2) {
      beginPinch();
      return;
    }
    if (doing) return;
    if (desk().playing) engine.player.stop();
    const { holding } = desk();
    if (event.button === 1 || holding === 'pan' || (event.pointerType === 'touch' && penSeen)) beginMove('pan', event);
    else if (holding === 'turn') beginMove('turn', event);
    else if (holding === 'width') beginMove('width', event);
    else if (event.button === 0 && desk().planning) beginPlan(event);
    else if (event.button === 0) beginStroke(event);
  };

  const move = (event: PointerEvent): void => {
    if (event.pointerType === 'touch') touches.set(event.pointerId, spotOf(event));
    if (!doing) return;
    if (doing.kind === 'pinch') {
      const [a, b] = [...touches.values()];
      if (a && b) pinch(doing, a, b);
      return;
    }
    if (doing.pointer !== event.pointerId) return;
    if (doing.kind === 'stroke') {
      const events = event.getCoalescedEvents();
      for (const each of events.length > 0 ? events : [event]) feed(doing, each);
      engine.compositor.advance();
      return;
    }
    if (doing.kind === 'plan') {
      doing.stroke.move(apply(doing.inward, spotOf(event)));
      return;
    }
    moveBy(doing, spotOf(event));
  };

  const moveBy = ({ kind, from, view, width }: Moving, at: Spot): void => {
    const { area } = desk();
    if (kind === 'pan')
      setDesk({ fitted: false, view: { ...view, panX: view.panX + at.x - from.x, panY: view.panY + at.y - from.y } });
    else if (kind === 'width')
      setBrush({ width: Math.min(400, Math.max(1, Math.round(width * Math.exp((at.x - from.x) / 160)))) });
    else {
      const middle = { x: area.width / 2, y: area.height / 2 };
      const turn = Math.atan2(at.y - middle.y, at.x - middle.x) - Math.atan2(from.y - middle.y, from.x - middle.x);
      setDesk({ fitted: false, view: viewAbout(view, area, middle, 1, turn) });
    }
  };

  const pinch = ({ view, from: [a0, b0] }: Pinching, a: Spot, b: Spot): void => {
    const { area } = desk();
    const middle0 = { x: (a0.x + b0.x) / 2, y: (a0.y + b0.y) / 2 };
    const factor = Math.hypot(b.x - a.x, b.y - a.y) / Math.max(1, Math.hypot(b0.x - a0.x, b0.y - a0.y));
    const turn = Math.atan2(b.y - a.y, b.x - a.x) - Math.atan2(b0.y - a0.y, b0.x - a0.x);
    const turned = viewAbout(view, area, middle0, factor, Math.abs(turn) > 0.06 ? turn : 0);
    setDesk({
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
    const finished = doing;
    doing = null;
    if (finished.kind === 'stroke') finished.finish();
    if (finished.kind === 'plan') finished.stroke.up();
  };

  const wheel = (event: WheelEvent): void => {
    event.preventDefault();
    const box = canvas.getBoundingClientRect();
    const { view, area } = desk();
    if (event.shiftKey) setDesk({ fitted: false, view: { ...view, panX: view.panX - event.deltaX - event.deltaY } });
    else
      setDesk({
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
  canvas.addEventListener('wheel', wheel, { passive: false });
  return () => {
    canvas.removeEventListener('pointerdown', down);
    canvas.removeEventListener('pointermove', move);
    canvas.removeEventListener('pointerup', up);
    canvas.removeEventListener('pointercancel', up);
    canvas.removeEventListener('wheel', wheel);
  };
}
