/** Actions of assembling: when what is picked begins, how it is slipped, split, doubled, taken away. */
import {
  copyPlacement,
  layScatter,
  newScattering,
  raisePlacement,
  removePlacements,
  setPlacements,
  splitPlacement,
} from '@tallow/core/edit';
import { find, findAll, randomId, shotOf, type Id, type Placement, type ShotDocument } from '@tallow/core/document';
import { isFixed } from '@tallow/core/assembly';
import { elementLength, nameOfUse } from '@tallow/core/timing';
import { modulo } from '@tallow/core/geometry';
import { alt, named, of, shift } from '../../actions/action.ts';
import { shotFrameNow } from '../../playback/shot-time.ts';
import { edit, say, useDocument } from '../../shot/document.ts';
import { frameOn, levelNow, selectedUses, selectUses, placing } from './placing.ts';

const assemble = of('Assemble');

/** Why nothing picked can be changed, or null. */
export function whyNotSelected(): string | null {
  const level = levelNow();
  return level && selectedUses(level).length > 0
    ? null
    : 'Nothing is picked: press a thing in the picture, or its bar.';
}

/** Says why a use stays where it is, if it does. */
export function sayIfFixed(doc: ShotDocument, placement: Placement): void {
  if (!isFixed(doc, placement)) return;
  const name = nameOfUse(doc, placement);
  say(
    placement.locked
      ? `“${name}” is locked: unlock it in the list of things first.`
      : `The plane of “${name}” is locked: press the plane’s name and unlock it first.`,
  );
}

/** Changes all that is picked, each by itself, as one step. */
export function changeSelectedUses(
  name: string,
  change: (placement: Placement, doc: ShotDocument) => Partial<Placement>,
  gesture?: string,
): void {
  const { selected } = placing();
  const { doc: now } = useDocument.getState();
  const [first] = now ? findAll(now, 'placement', selected) : [];
  if (now && first && selected.length === 1) sayIfFixed(now, first);
  edit(
    name,
    (doc) =>
      selected.reduce((next, id) => {
        const placement = find(next, 'placement', id);
        return placement && !isFixed(next, placement) ? setPlacements(next, [id], change(placement, next)) : next;
      }, doc),
    gesture,
  );
}

/** Shifts the start of what is picked; presses one after another are one step. */
const startBy = (by: number) => () => {
  changeSelectedUses('start', ({ start }) => ({ start: start + by }), 'start-by-keys');
};

/** Another drawing of a use shows first: it is slipped under its bar. */
export const slipped = (placement: Placement, doc: ShotDocument, by: number): Partial<Placement> => {
  const element = find(doc, 'element', placement.elementId);
  if (!element) return {};
  const length = elementLength(doc, element);
  const to = placement.phase + by;
  return { phase: element.time === 'cycle' ? modulo(to, length) : Math.min(length - 1, Math.max(0, to)) };
};

const slipBy = (by: number) => () => {
  changeSelectedUses('slip', (placement, doc) => slipped(placement, doc, by), 'slip-by-keys');
};

/** Moves what is picked in the order of what lies with it. */
const raise = (by: -1 | 1) => () => {
  edit('order of uses', (doc) => placing().selected.reduce((next, id) => raisePlacement(next, id, by), doc));
};

/** Parts what is picked at the playhead. */
function split(): void {
  const level = levelNow();
  if (!level) return;
  const frame = frameOn(level, shotFrameNow());
  const made: Id[] = [];
  edit('split', (doc) =>
    placing().selected.reduce((next, id) => {
      const parted = splitPlacement(next, id, frame, randomId);
      if (parted.placementId) made.push(parted.placementId);
      return parted.doc;
    }, doc),
  );
  if (made.length > 0) selectUses(made);
}

/** One more of what is picked, a little later and beside it. */
export function oneMore(): void {
  const made: Id[] = [];
  edit('one more', (doc) =>
    placing().selected.reduce((next, id) => {
      const placement = find(next, 'placement', id);
      const element = find(next, 'element', placement?.elementId);
      if (!placement || !element) return next;
      const later = element.time === 'cycle' ? slipped(placement, next, 3) : { start: placement.start + 3 };
      const copied = copyPlacement(next, id, { x: placement.x + 40, y: placement.y, ...later }, randomId);
      if (copied.placementId) made.push(copied.placementId);
      return copied.doc;
    }, doc),
  );
  if (made.length > 0) selectUses(made);
}

/** Three copies of what is picked, out of step, irregular by a seed. */
function scatterThree(): void {
  const level = levelNow();
  if (!level) return;
  const reach = Math.round(shotOf(level.doc).width / 6);
  edit('scatter copies', (doc) =>
    placing().selected.reduce((next, id) => layScatter(next, id, newScattering(reach), randomId).doc, doc),
  );
}

/** Takes the picked uses away; their elements stay to be used again. */
function removeSelected(): void {
  const { selected } = placing();
  edit(selected.length === 1 ? 'take a use away' : 'take uses away', (doc) => removePlacements(doc, selected));
  selectUses([]);
}

const whyNot = { whyNot: whyNotSelected };

export const PLACE_ACTIONS = named({
  earlier: assemble('Begin a frame earlier', [shift('Comma')], startBy(-1), whyNot),
  later: assemble('Begin a frame later', [shift('Period')], startBy(1), whyNot),
  slipBack: assemble('Show an earlier drawing first', [alt('Comma')], slipBy(-1), whyNot),
  slipOn: assemble('Show a later drawing first', [alt('Period')], slipBy(1), whyNot),
  toFront: assemble('One place nearer', [alt('BracketRight')], raise(-1), whyNot),
  toBack: assemble('One place farther back', [alt('BracketLeft')], raise(1), whyNot),
  splitUse: assemble('Split at the playhead', [alt('Minus')], split, whyNot),
  oneMore: assemble('One more of what is picked', [alt('Equal')], oneMore, whyNot),
  scatter: assemble('Three copies of what is picked, out of step', [shift('Equal')], scatterThree, whyNot),
  takeUseAway: assemble('Take away what is picked', [alt('Backspace')], removeSelected, whyNot),
});
