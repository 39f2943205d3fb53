/** The pen on the assembled picture: a press picks what lies there, a drag moves what is picked. */
import { anchorPlace, copyPlacement, movedBy, movePlaces, relayScatter } from '@tallow/core/edit';
import { isFixed } from '@tallow/core/assembly';
import { find, randomId, type Id } from '@tallow/core/document';
import { apply, fitRing, invert, multiply, scaleOf, type Matrix, type Point } from '@tallow/core/geometry';
import type { PenDoing, PenSample } from '../../hand/pen-doing.ts';
import { shotFrameNow } from '../../playback/shot-time.ts';
import { edit, endGesture, reEdit, say, takeBack } from '../../shot/document.ts';
import { sayIfFixed } from './actions.ts';
import { carry, type Carrying } from './carry.ts';
import { hitAt } from './hit.ts';
import {
  frameOn,
  levelMatrix,
  levelNow,
  selectedUses,
  selectUses,
  placing,
  setPlacing,
  type Level,
} from './placing.ts';
import { snapped, snapsOn } from './snap.ts';

/** CSS px within which a thin line counts as pressed, within which things snap, and beyond which a press is a drag. */
const [REACH, SNAPS, DRAG] = [6, 8, 4] as const;

/** Moves uses by a way, from where they are in the document. */
export function moveUses(ids: readonly Id[], by: Point, gesture: string, name = 'move'): void {
  const level = levelNow();
  if (!level) return;
  const frame = frameOn(level, shotFrameNow());
  reEdit(name, (doc) => movePlaces(doc, ids, frame, movedBy(by.x, by.y)), gesture);
}

/** Draws round the place that copies are to lie in. */
function beginRegion(level: Level, scatterId: Id, inward: Matrix, first: PenSample): PenDoing {
  const into = multiply(invert(levelMatrix(level, shotFrameNow())), inward);
  const points = [apply(into, first)];
  return {
    move: (samples) => {
      points.push(...samples.map((sample) => apply(into, sample)));
    },
    up: () => {
      setPlacing({ lasso: null });
      if (points.length < 6) {
        say('The region needs a longer line round it.');
        return true;
      }
      const region = fitRing(
        points.map(({ x, y }): [number, number] => [x, y]),
        2,
      );
      edit('where copies lie', (doc) => relayScatter(doc, scatterId, { region, pathId: null }, randomId));
      return true;
    },
    drop: () => undefined,
  };
}

/** Begins where the pen landed. @param inward CSS px of the canvas to px of the shot. With Alt what is dragged is one more of it. */
export function beginPlace(inward: Matrix, first: PenSample): PenDoing | null {
  const level = levelNow();
  if (!level) return null;
  const { lasso } = placing();
  if (lasso) return beginRegion(level, lasso, inward, first);
  const shotFrame = shotFrameNow();
  const reach = scaleOf(inward);
  const from = apply(inward, first);
  const hit = hitAt(level, from, shotFrame, REACH * reach);
  const { selected } = placing();
  if (first.shift && hit) {
    selectUses(selected.includes(hit) ? selected.filter((id) => id !== hit) : [...selected, hit]);
    return null;
  }
  if (hit && !selected.includes(hit)) selectUses([hit]);
  if (!hit) {
    selectUses([]);
    return null;
  }
  const moved = selectedUses(level);
  const lead = find(level.doc, 'placement', hit)!;
  const into = invert(levelMatrix(level, shotFrame));
  const outward = levelMatrix(level, shotFrame);
  const anchor = apply(outward, anchorPlace(level.doc, lead, frameOn(level, shotFrame)));
  const snaps = placing().snaps ? snapsOn(level, placing().selected, shotFrame) : null;
  const gesture = `place-${randomId()}`;
  let far = false;
  let copies: readonly Id[] | null = null;
  let carrying: Carrying | null = null;
  const drag = (at: Point): void => {
    const way = { x: at.x - from.x, y: at.y - from.y };
    const to = { x: anchor.x + way.x, y: anchor.y + way.y };
    const on = snaps ? snapped(snaps, to, SNAPS * reach) : to;
    const linear: Matrix = [into[0], into[1], into[2], into[3], 0, 0];
    const by = apply(linear, { x: on.x - anchor.x, y: on.y - anchor.y });
    const whole = level.holder ? by : { x: Math.round(by.x), y: Math.round(by.y) };
    if (first.alt) {
      copies ??= moved.map(() => randomId());
      const own = copies;
      const frame = frameOn(level, shotFrame);
      reEdit(
        'one more',
        (doc) => {
          const made = moved.reduce((next, { id }, i) => copyPlacement(next, id, {}, () => own[i]!).doc, doc);
          return movePlaces(made, own, frame, movedBy(whole.x, whole.y));
        },
        gesture,
      );
      return;
    }
    const ids = moved.filter((each) => !isFixed(level.doc, each)).map(({ id }) => id);
    carrying ??= carry(level, ids);
    moveUses(ids, whole, gesture);
    carrying.show(movedBy(whole.x, whole.y));
  };
  return {
    move: (samples) => {
      const last = samples.at(-1)!;
      far ||= Math.hypot(last.x - first.x, last.y - first.y) > DRAG;
      if (far) drag(apply(inward, last));
    },
    up: () => {
      endGesture();
      if (far && !copies) sayIfFixed(level.doc, lead);
      carrying?.end();
      if (copies) selectUses(copies);
      return true;
    },
    drop: () => {
      takeBack(gesture);
      carrying?.end();
    },
  };
}
