/** The pen draws: samples in element space become a stroke under the pen, and marks of the document when it lifts. */
import { answered } from '@tallow/core/brush';
import { randomId } from '@tallow/core/document';
import { breakHold, landMarks, whyNotDrawable } from '@tallow/core/edit';
import {
  apply,
  invert,
  multiply,
  scaleOf,
  type Matrix,
  type Point,
  ontoRuler,
  type Ruler,
} from '@tallow/core/geometry';
import { current, layerMatrix, lineSwatchOf, shownNow, swatchOf, type Current } from '../selection/current.ts';
import { drawnOn } from '../hand/by-layer.ts';
import { toolState } from '../hand/tool-state.ts';
import { selection } from '../selection/selection.ts';
import { BRUSHES, madeBy, type BrushName } from '../hand/brushes.ts';
import { edit, endGesture, say, takeBack, useDocument } from '../shot/document.ts';
import { strokeDone } from '../time/going-on.ts';
import { isLateInHold } from './pen-target.ts';
import { frameFrom } from '../playback/place.ts';
import { openSaver } from '../saving/open-shot.ts';
import type { Engine } from '../picture/engine.ts';
import { LiveStroke } from '../picture/live-stroke.ts';
import type { PenDoing, PenSample } from '../hand/pen-doing.ts';
import { marksOf, setupOf } from './pen-marks.ts';
import { setPoints, usePoints } from './points.ts';

/** How near to the ruler a stroke must begin to follow it, and how near its end to its start to close, CSS px. */
const RULER_REACH = 24;
const CLOSE_REACH = 14;

/** A place of the layer moved onto the ruler. @param placed from the layer's space to px of the shot. */
const onRuler = (ruler: Ruler, placed: Matrix, at: Point): Point =>
  apply(invert(placed), ontoRuler(ruler, apply(placed, at)));

/** Why the pen can't draw now, said to the user, or what it draws on. */
function drawable(tool: BrushName): Current | null {
  const now = current();
  const trouble = whyNotDrawable(now?.active);
  if (!now?.active || trouble) {
    say(trouble ?? 'There is nothing to draw on.');
    return null;
  }
  const { swatchId } = toolState();
  const { frame } = selection();
  if (madeBy(tool) === 'rub' && !shownNow(now, frame)) {
    say('Nothing is drawn here that could be rubbed out.');
    return null;
  }
  if (!swatchOf(now.doc, swatchId)) {
    say('The palette is empty. Add a swatch to draw with.');
    return null;
  }
  return now;
}

/**
 * Begins a stroke where the pen lands.
 * @param inward CSS px of the canvas to element space.
 * @param tool the brush it is drawn with.
 */
export function beginStroke(
  engine: Engine,
  inward: Matrix,
  first: PenSample,
  tool: BrushName = toolState().brushName,
): PenDoing | null {
  const now = drawable(tool);
  if (!now?.active) return null;
  const { brushes, swatchId, ruler, closes } = toolState();
  const { frame } = selection();
  const { layer } = now.active;
  const swatch = swatchOf(now.doc, swatchId)!;
  const placed = layerMatrix(now, frame);
  const matrix = multiply(engine.place().view, placed);
  const name = BRUSHES[tool].step;
  const gesture = `pen-${randomId()}`;
  // A new drawing in the middle of a hold begins as the pen lands, in the same step as its first stroke.
  const afresh = isLateInHold(now, frame, tool);
  if (afresh) {
    edit(name, (doc) => breakHold(doc, layer.id, frame, randomId).doc, gesture);
    engine.compositor.beginAfresh();
    engine.settled();
  }
  const perPixel = scaleOf(inward);
  const lines = lineSwatchOf(now.doc, swatchId);
  const settings = brushes[tool];
  const setup = setupOf(now, tool, settings, swatch, lines, matrix, perPixel, first.shift);
  const live = engine.compositor.begin(setup);
  // The drawing under the pen as it lands: that one gets the stroke, whatever others put in before it meanwhile.
  const was = current() ?? now;
  const drawingId = shownNow(was, frame)?.drawingId ?? null;
  const start = apply(inward, first);
  const ruled = ruler && ruledFrom(ruler, placed, start, RULER_REACH * perPixel);
  let [travelled, last] = [0, start];
  const feed = (sample: PenSample): void => {
    const free = apply(inward, sample);
    const at = ruled ? onRuler(ruler, placed, free) : free;
    travelled += Math.hypot(at.x - last.x, at.y - last.y);
    last = at;
    live.add(at.x, at.y, answered(settings.response, sample.pressure), sample.altitude, sample.azimuth);
  };
  const drop = (): void => {
    engine.compositor.drop();
    takeBack(gesture);
    engine.refresh();
  };
  const finish = (): void => {
    // A stroke that nearly closes is led back to where it began.
    const gap = Math.hypot(last.x - start.x, last.y - start.y);
    if (
      closes &&
      live instanceof LiveStroke &&
      gap < CLOSE_REACH * perPixel &&
      travelled > 4 * CLOSE_REACH * perPixel
    ) {
      live.close();
      engine.compositor.advance();
    }
    const marks = marksOf(tool, setup, live, swatch, lines);
    const put = () => {
      const landing = { layerId: layer.id, drawingId, frame: frameFrom(was, frame) };
      edit(name, (doc) => landMarks(doc, landing, marks, randomId), gesture);
      endGesture();
      drawnOn(layer.id);
      if (madeBy(tool) !== 'rub') strokeDone();
    };
    engine.compositor.settle();
    if (drawingId && useDocument.getState().missing.has(drawingId)) {
      void openSaver()?.land(drawingId, put);
      return;
    }
    put();
    engine.settled();
  };
  feed(first);
  engine.compositor.advance();
  const move = (samples: readonly PenSample[]): void => {
    samples.forEach(feed);
    engine.compositor.advance();
  };
  if (live instanceof LiveStroke)
    return {
      move,
      drop,
      up: () => {
        finish();
        return true;
      },
    };
  const { path } = live;
  return {
    move: (samples) => {
      move(samples);
      if (usePoints.getState().points.length > 0) setPoints(path.points);
    },
    drop: () => {
      setPoints([]);
      drop();
    },
    down: (sample) => {
      const at = apply(inward, sample);
      path.land(at.x, at.y, CLOSE_REACH * perPixel);
      move([sample]);
    },
    end: () => {
      path.end();
      engine.compositor.advance();
      setPoints([]);
      finish();
    },
    up: () => {
      const over = path.lift(CLOSE_REACH * perPixel);
      engine.compositor.advance();
      setPoints(over ? [] : path.points);
      if (over) finish();
      return over;
    },
  };
}

/** Whether a stroke that begins here follows the ruler. */
function ruledFrom(ruler: Ruler, placed: Matrix, at: Point, reach: number): boolean {
  const on = onRuler(ruler, placed, at);
  return Math.hypot(on.x - at.x, on.y - at.y) < reach;
}
