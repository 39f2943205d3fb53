/** Which drawing the pen will touch, worked out before it lands. */
import { shotOf } from '@tallow/core/document';
import { roughFor, toClean, whyNotDrawable } from '@tallow/core/edit';
import { exposureAt, listFrame, runStart, slotNumbers, timesShown } from '@tallow/core/timing';
import { shotFrameOf, shownNow, type Current } from '../selection/current.ts';
import { toolState } from '../hand/tool-state.ts';
import { selection } from '../selection/selection.ts';
import { madeBy } from '../hand/brushes.ts';

/** Whether the pen begins a new drawing here, in the middle of a hold. */
export function isLateInHold(now: Current, frame: number, brush = toolState().brushName): boolean {
  if (!toolState().newOnHeld || madeBy(brush) === 'rub' || !now.active || now.active.list.period === 1) return false;
  const { list } = now.active;
  const here = exposureAt(list, frame, now.length);
  return here?.run.slot != null && listFrame(list, frame, now.length) > here.start;
}

interface PenText {
  readonly text: string;
  /** Whether it needs a look. */
  readonly trouble: boolean;
}

/** Said above the picture: which drawing the pen will touch, or why it will touch none; first of all if the shot ends before it. */
export function penText(now: Current, frame: number): PenText {
  const own = targetText(now, frame);
  const cleaned = own.trouble ? '' : cleaningText(now, frame);
  const target = { ...own, text: `${cleaned}${own.text}` };
  if (target.trouble || shotFrameOf(now, frame, selection().turn) < shotOf(now.doc).length) return target;
  return { text: `after the end of the shot: ${target.text}`, trouble: true };
}

/** Which drawing of the rough is cleaned here, and how many there are: first of all, as a long line is cut off at its end. */
function cleaningText({ doc, active }: Current, frame: number): string {
  const rough = active && roughFor(doc, active.layer.id);
  if (!rough || rough.list.id !== active.list.id) return '';
  const all = toClean(doc, active.layer.id);
  const at = all.findLastIndex((each) => each.frame <= frame);
  return at < 0 ? '' : `${at + 1} of ${all.length} · `;
}

function targetText(now: Current, frame: number): PenText {
  const trouble = whyNotDrawable(now.active);
  if (trouble || !now.active) return { text: trouble ?? '', trouble: true };
  const { layer, list } = now.active;
  const shown = shownNow(now, frame);
  if (!shown) return { text: `pen begins a new drawing on ${layer.name}`, trouble: false };
  if (list.period === 1) return { text: `pen draws on ${layer.name}, shown throughout`, trouble: false };
  const { index, run } = shown.exposure;
  const number = slotNumbers(list).get(shown.slot)!;
  const times = timesShown(list, shown.slot);
  const first = runStart(list, index, now.length) + 1;
  const last = first + run.length - 1;
  if (isLateInHold(now, frame))
    return {
      text: `pen begins a new drawing on ${layer.name}, frame ${frame + 1}; drawing ${number} ends before it`,
      trouble: false,
    };
  const frames = run.length === 1 ? `frame ${first}` : `frames ${first}–${last}`;
  const held = frame + 1 === first ? '' : ', held here';
  const again = times > 1 ? `, shown ${times} times` : '';
  return {
    text: `pen draws on ${layer.name}, drawing ${number}, ${frames}${held}${again}`,
    trouble: false,
  };
}
