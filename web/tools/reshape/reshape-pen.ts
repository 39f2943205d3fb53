/** The pen reshapes: it takes points and pulls them, rings some, or draws a part of a stroke anew. */
import { SteadyStroke, steadyReach } from '@tallow/core/brush';
import { changeMarks } from '@tallow/core/edit';
import { apply, scaleOf, type Matrix, type Point, isInside, distanceToSegment } from '@tallow/core/geometry';
import { everyControlPoint, redrawn, type ControlPoint } from '@tallow/core/marks';
import type { PenDoing, PenSample } from '../../hand/pen-doing.ts';
import { edit, say } from '../../shot/document.ts';
import { isChangeable } from '../pick/pick.ts';
import {
  followPull,
  selectedControlPoints,
  controlPointsShown,
  isSelected,
  reshape,
  setReshape,
  shapedDrawing,
  shapedMarks,
  selectControlPoint,
} from './reshape.ts';

/** How near the pen takes a point, and a place on a line between points, CSS px. */
const POINT_REACH = 11;
const LINE_REACH = 7;
const TAP = 3;

const nearest = (controlPoints: readonly ControlPoint[], at: Point, reach: number): ControlPoint | null => {
  let [found, far]: [ControlPoint | null, number] = [null, reach];
  for (const controlPoint of controlPoints) {
    const d = Math.hypot(controlPoint.x - at.x, controlPoint.y - at.y);
    if (d <= far) [found, far] = [controlPoint, d];
  }
  return found;
};

/** The sample or node nearest to a place on a line: a point where none is shown. */
function controlPointOnLine(at: Point, reach: number): ControlPoint | null {
  for (const mark of shapedMarks().toReversed()) {
    const all = everyControlPoint(mark);
    for (let i = 0; i + 1 < all.length; i++) {
      const [a, b] = [all[i]!, all[i + 1]!];
      if (a.ring !== b.ring || distanceToSegment(at, a, b) > reach) continue;
      return Math.hypot(a.x - at.x, a.y - at.y) < Math.hypot(b.x - at.x, b.y - at.y) ? a : b;
    }
  }
  return null;
}

function pulling(start: Point, inward: Matrix, controlPoint: ControlPoint, more: boolean): PenDoing {
  const taken = isSelected(controlPoint);
  if (!taken || more) selectControlPoint(controlPoint, more);
  const pull = followPull();
  return {
    move: (samples) => {
      const at = apply(inward, samples.at(-1)!);
      if (Math.hypot(at.x - start.x, at.y - start.y) < TAP * scaleOf(inward)) return;
      pull.moveTo({ x: at.x - start.x, y: at.y - start.y });
    },
    up: () => {
      pull.done();
      return true;
    },
    drop: pull.drop,
  };
}

/** Points enclosed by a line are taken. */
function ringing(start: Point, inward: Matrix, more: boolean): PenDoing {
  const points: Point[] = [start];
  const end = (): void => {
    setReshape({ draft: [] });
  };
  return {
    move: (samples) => {
      points.push(...samples.map((sample) => apply(inward, sample)));
      setReshape({ draft: [...points] });
    },
    up: () => {
      end();
      const found =
        points.length > 3 ? controlPointsShown().filter((controlPoint) => isInside(points, controlPoint)) : [];
      setReshape({
        controlPoints: more ? [...reshape().controlPoints, ...found.filter((g) => !isSelected(g))] : found,
      });
      return true;
    },
    drop: end,
  };
}

/** A stroke drawn over another takes the place of the stretch it follows. */
function redrawing(inward: Matrix, first: PenSample): PenDoing {
  const stroke = new SteadyStroke(steadyReach(0.3));
  const feed = (sample: PenSample): void => {
    const at = apply(inward, sample);
    stroke.add(at.x, at.y, sample.pressure, sample.altitude, sample.azimuth);
    setReshape({ draft: [...reshape().draft, at] });
  };
  setReshape({ draft: [] });
  feed(first);
  return {
    move: (samples) => {
      samples.forEach(feed);
    },
    up: () => {
      setReshape({ draft: [], controlPoints: [] });
      const over = stroke.finish();
      const drawing = shapedDrawing();
      const reach = 2 * POINT_REACH * scaleOf(inward);
      for (const mark of shapedMarks().toReversed()) {
        if (!drawing || mark.kind === 'shape') continue;
        const samples = redrawn(mark.samples, over, reach);
        if (!samples) continue;
        edit('redraw a part', (doc) => changeMarks(doc, { [drawing.id]: [mark.id] }, () => ({ ...mark, samples })));
        return true;
      }
      say('No stroke begins and ends under the line drawn. Begin and end it on the stroke to be redrawn.');
      return true;
    },
    drop: () => {
      setReshape({ draft: [] });
    },
  };
}

/** Begins where the pen lands. @param inward CSS px of the canvas to element space. */
export function beginReshape(inward: Matrix, first: PenSample): PenDoing | null {
  if (!isChangeable()) return null;
  const start = apply(inward, first);
  const perPixel = scaleOf(inward);
  if (reshape().redraws) return redrawing(inward, first);
  const controlPoint =
    nearest([...selectedControlPoints(), ...controlPointsShown()], start, POINT_REACH * perPixel) ??
    controlPointOnLine(start, LINE_REACH * perPixel);
  return controlPoint ? pulling(start, inward, controlPoint, first.shift) : ringing(start, inward, first.shift);
}
