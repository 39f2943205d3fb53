/** Typing into the sheet: numbers of drawings, repeats and blanks on the frames of a layer. */
import { putEntities, type Id, type NewId, type Run, type RunList, type ShotDocument } from '../document/index.ts';
import {
  cutAt,
  exposureAt,
  exposures,
  joinedEqual,
  listFrame,
  refilled,
  slotOfNumber,
  totalLength,
  withNumbersKept,
  placeOf,
} from '../timing/index.ts';
import { keptFull, type Timed } from './place.ts';
import { swept } from './sweep.ts';

/** What was typed: drawings by number one after another, each held for some frames; nothing; or the one before held on. */
export type Entry =
  | { readonly kind: 'drawings'; readonly numbers: readonly number[]; readonly hold: number | null }
  | { readonly kind: 'blank' }
  | { readonly kind: 'repeat' };

/** The highest number that can be typed. */
export const HIGHEST_NUMBER = 9999;

/**
 * Reads what was typed: `7`; `3-9` or `9-3` for one after another; `1-8x2` each for two frames; `0` or
 * `x` for nothing; `-` to hold the one before on. Null when it is none of these.
 */
export function readEntry(text: string): Entry | null {
  const typed = text.trim().toLowerCase();
  if (typed === 'x' || typed === '0') return { kind: 'blank' };
  if (typed === '-') return { kind: 'repeat' };
  const found = /^(\d{1,4})(?:-(\d{1,4}))?(?:x(\d{1,3}))?$/.exec(typed);
  if (!found) return null;
  const first = Number(found[1]);
  const last = found[2] === undefined ? first : Number(found[2]);
  const hold = found[3] === undefined ? null : Number(found[3]);
  if (first < 1 || last < 1 || hold === 0) return null;
  const step = last < first ? -1 : 1;
  return {
    kind: 'drawings',
    numbers: Array.from({ length: Math.abs(last - first) + 1 }, (_, i) => first + i * step),
    hold,
  };
}

function place(list: RunList, local: number, length: number, made: readonly Run[], newId: NewId): RunList {
  const cut = cutAt(cutAt(list, local, newId), local + length, newId);
  const first = exposures(cut).findIndex((e) => e.start >= local);
  const count = exposures(cut).filter((e) => e.start >= local && e.start < local + length).length;
  const at = first < 0 ? cut.runs.length : first;
  return refilled(list, { ...cut, runs: joinedEqual(cut.runs.toSpliced(at, count, ...made)) });
}

/**
 * Writes an entry from a frame of a layer on. One number fills the picked frames, or the rest of what is
 * held there; several follow each other, each for its hold or as long as that. A number no drawing has
 * makes a slot that is still to be drawn. Nothing that follows moves.
 * @param length frames picked, or null for the rest of the hold.
 */
export function typeInto(
  doc: ShotDocument,
  layerId: Id,
  frame: number,
  length: number | null,
  entry: Entry,
  newId: NewId,
): Timed {
  const { timed, element, turn } = placeOf(doc, layerId);
  let list = withNumbersKept(timed.list);
  const local = listFrame(list, frame, turn);
  const here = exposureAt(list, frame, turn);
  const rest = here ? here.start + here.run.length - local : 1;
  const room = Math.min(length ?? rest, (list.period ?? Infinity) - local);
  const numbered = (number: number): Id => {
    const slot = slotOfNumber(list, number) ?? made.get(number) ?? newId();
    made.set(number, slot);
    return slot;
  };
  const made = new Map<number, Id>();
  let runs: Run[];
  if (entry.kind === 'drawings') {
    const several = entry.numbers.length > 1 || entry.hold !== null;
    runs = entry.numbers.map((number) => ({
      id: newId(),
      slot: numbered(number),
      length: several ? (entry.hold ?? Math.max(1, Math.floor(room / entry.numbers.length))) : room,
    }));
  } else {
    const before = entry.kind === 'repeat' && local > 0 ? exposures(list).findLast((e) => e.start < local) : undefined;
    runs = [{ id: newId(), slot: before?.run.slot ?? null, length: room }];
  }
  const written = runs.reduce((sum, run) => sum + run.length, 0);
  list = place(list, local, Math.min(written, Math.max(room, totalLength(list) - local)), runs, newId);
  list = {
    ...list,
    numbers: { ...list.numbers, ...Object.fromEntries([...made].map(([number, slot]) => [slot, number])) },
  };
  const next = keptFull(doc, swept(putEntities(doc, list), [list.id]), element);
  return { doc: next, frame: frame + written };
}

/** Numbers the drawings of a layer anew, in the order in which they show. */
export function numberAnew(doc: ShotDocument, layerId: Id): ShotDocument {
  const { timed } = placeOf(doc, layerId);
  return putEntities(doc, { ...timed.list, numbers: {} });
}
