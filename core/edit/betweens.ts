/** Laying computed in-betweens as ordinary drawings, and laying them again when what they hang on changes. */
import {
  dropEntities,
  emptyDrawing,
  find,
  putEntities,
  type Between,
  type Drawing,
  type Id,
  type Layer,
  type NewId,
  type Run,
  type ShotDocument,
  entitiesOf,
} from '../document/index.ts';
import { endsOf, fingerprintOf, touchedOf, wayFingerprint } from '../derived/index.ts';
import type { BetweenWork } from '../between/index.ts';
import { exposureAt, setHold, totalLength, placeOf } from '../timing/index.ts';
import { keptFull, type Timed } from './place.ts';
import { swept } from './sweep.ts';

type Marks = Pick<Drawing, 'marks' | 'order'>;

/** What in-betweens were computed from. */
type LaidFrom = Pick<BetweenWork, 'from' | 'to' | 'path'>;

const printsOf = ({ from, to, path }: LaidFrom): Pick<Between, 'hangsOn' | 'along'> => ({
  hangsOn: [fingerprintOf(from), fingerprintOf(to)],
  along: path && wayFingerprint(path),
});

/** What is asked of in-betweens, apart from where they lie. */
export type BetweenPlan = Pick<Between, 'layerId' | 'from' | 'to' | 'shares' | 'way' | 'pathId' | 'ties'>;

/** Two drawings of a layer that follow each other, and the slots between them that are still to be drawn. */
export interface Gap {
  readonly layerId: Id;
  /** Index of the run the first shows in: one drawing may show in several. */
  readonly at: number;
  readonly from: Id;
  readonly to: Id;
  readonly bare: readonly Id[];
  /** Whether it leads across the seam of a cycle. */
  readonly seam: boolean;
  /** Frames the first is held for. */
  readonly hold: number;
}

export const betweensOf = (doc: ShotDocument, elementId: Id): Between[] =>
  entitiesOf(doc, 'between').filter((e) => e.elementId === elementId);

/** The in-betweens a frame of a layer belongs to: one of theirs shows, or the drawing they begin from. */
export function betweenAtFrame(doc: ShotDocument, layerId: Id, frame: number): Between | undefined {
  const { timed, element, turn } = placeOf(doc, layerId);
  const { runs } = timed.list;
  const here = exposureAt(timed.list, frame, turn);
  const slot = here?.run.slot;
  if (!here || !slot) return undefined;
  const own = betweensOf(doc, element.id).filter((each) => each.layerId === layerId);
  const next = runs[(here.index + 1) % runs.length]?.slot;
  return (
    own.find(({ slots }) => slots.includes(slot)) ?? own.find(({ from, slots }) => from === slot && slots[0] === next)
  );
}

/** The drawing shown on a frame, or before it, and the next drawn one; null where there are no two. */
export function gapAt(doc: ShotDocument, layerId: Id, frame: number): Gap | null {
  const { timed, element, turn } = placeOf(doc, layerId);
  const { list, layer } = timed;
  const count = list.runs.length;
  const here = exposureAt(list, frame, turn)?.index;
  if (here === undefined || list.period === 1) return null;
  const isDrawn = (index: number) => layer.slots[list.runs[index]!.slot ?? ''] !== undefined;
  const wraps = element.time === 'cycle';
  let first = here;
  while (first >= 0 && !isDrawn(first)) first -= 1;
  if (first < 0) return null;
  const bare: Id[] = [];
  for (let step = 1; step < count; step++) {
    const at = first + step;
    if (at >= count && !wraps) return null;
    const { slot } = list.runs[at % count]!;
    if (slot === null) return null;
    if (!isDrawn(at % count)) {
      bare.push(slot);
      continue;
    }
    const from = list.runs[first]!.slot!;
    const { length: hold } = list.runs[first]!;
    return from === slot ? null : { layerId, at: first, from, to: slot, bare, seam: at >= count, hold };
  }
  return null;
}

/** The drawing before the one in-betweens begin from, which tells where its pieces are going. */
export function drawingBefore(doc: ShotDocument, { layerId, from }: Pick<Between, 'layerId' | 'from'>): Drawing | null {
  const { timed } = placeOf(doc, layerId);
  const at = timed.list.runs.findIndex(({ slot }) => slot === from);
  const before = timed.list.runs.slice(0, Math.max(0, at)).findLast(({ slot }) => slot && timed.layer.slots[slot]);
  return find(doc, 'drawing', before?.slot ? timed.layer.slots[before.slot] : null) ?? null;
}

/** What in-betweens would be computed from, or null while a drawing is not loaded. */
export function betweenWork(doc: ShotDocument, plan: BetweenPlan, seam: boolean): BetweenWork | null {
  const ends = endsOf(doc, plan);
  if (!ends) return null;
  const [from, to] = ends;
  // Across the seam a piece may become its neighbour of the turn before: its way continues unbroken.
  const before = seam ? drawingBefore(doc, plan) : null;
  const path = find(doc, 'path', plan.pathId) ?? null;
  return { from, to, before, path, settings: plan };
}

/** Whether in-betweens lead across the seam: their first drawing comes after their second. */
export function crossesSeam(
  doc: ShotDocument,
  { layerId, from, to }: Pick<Between, 'layerId' | 'from' | 'to'>,
): boolean {
  const list = find(doc, 'runlist', find(doc, 'layer', layerId)?.runListId);
  const at = (slot: Id) => list?.runs.findIndex((run) => run.slot === slot) ?? 0;
  return at(to) < at(from);
}

/** How in-betweens find their frames: in slots that are there, by taking them from the first drawing's hold, or by moving what follows. */
export type BetweenFrames = 'slots' | 'within' | 'insert';

/** Whether the first drawing's hold has room for so many in-betweens. */
export const fitsWithin = ({ hold }: Gap, count: number): boolean => hold > count;

/**
 * Lays in-betweens.
 * @param drawings their marks, one for each share of the plan. @param work what they were
 * computed from: should that be other by now, the in-betweens are laid again.
 */
export function layBetweens(
  doc: ShotDocument,
  gap: Gap,
  plan: BetweenPlan,
  drawings: readonly Marks[],
  work: LaidFrom,
  frames: BetweenFrames,
  newId: NewId,
): Timed & { betweenId: Id } {
  const place = placeOf(doc, plan.layerId);
  let { list } = place.timed;
  // The list may have changed while they were computed.
  const at = list.runs[gap.at]?.slot === plan.from ? gap.at : list.runs.findIndex(({ slot }) => slot === plan.from);
  const count = drawings.length;
  const slots = frames === 'slots' ? gap.bare.slice(0, count) : Array.from({ length: count }, newId);
  if (frames !== 'slots') {
    const hold = list.runs[at]!.length;
    const room = frames === 'within' ? Math.max(1, Math.floor(hold / (count + 1))) : hold;
    if (frames === 'within') list = setHold(list, at, hold - room * count);
    const runs = slots.map((slot): Run => ({ id: newId(), slot, length: room }));
    list = { ...list, runs: list.runs.toSpliced(at + 1, 0, ...runs) };
  }
  const made = slots.map((_, i): Drawing => ({ ...emptyDrawing(newId()), ...drawings[i] }));
  const own = Object.fromEntries(slots.map((slot, i) => [slot, made[i]!.id]));
  const layer: Layer = { ...place.timed.layer, slots: { ...place.timed.layer.slots, ...own } };
  const between: Between = {
    kind: 'between',
    id: newId(),
    elementId: place.element.id,
    ...plan,
    shares: plan.shares.slice(0, slots.length),
    slots,
    laid: Object.fromEntries(slots.map((slot, i) => [slot, fingerprintOf(made[i]!)])),
    ...printsOf(work),
  };
  const next = keptFull(doc, putEntities(doc, list, layer, ...made, between), place.element);
  const start = list.runs.slice(0, at + 1).reduce((sum, run) => sum + run.length, 0);
  return { doc: next, frame: Math.min(start, totalLength(list) - 1), betweenId: between.id };
}

/** Slots of in-betweens that were drawn on since they were computed. Those not loaded count as untouched. */
export const touchedSlots = (doc: ShotDocument, betweens: readonly Between[]): Set<Id> =>
  new Set(betweens.flatMap((between) => touchedOf(doc, between).map(({ slot }) => slot)));

/**
 * Lays in-betweens again in the slots they have. What was drawn on by hand stays.
 * @param changes other settings, if any. @param drawings one for each slot. @param work what they
 * were computed from.
 */
export function relayBetween(
  doc: ShotDocument,
  betweenId: Id,
  changes: Partial<Pick<Between, 'shares' | 'way' | 'pathId' | 'ties'>>,
  drawings: readonly Marks[],
  work: LaidFrom,
): ShotDocument {
  const between = find(doc, 'between', betweenId);
  const layer = find(doc, 'layer', between?.layerId);
  if (!between || !layer) return doc;
  const touched = touchedSlots(doc, [between]);
  const made: Drawing[] = [];
  const laid: Record<Id, string> = { ...between.laid };
  between.slots.forEach((slot, i) => {
    const id = layer.slots[slot];
    const marks = drawings[i];
    if (!id || !marks || touched.has(slot)) return;
    const drawing: Drawing = { kind: 'drawing', id, ...marks };
    made.push(drawing);
    laid[slot] = fingerprintOf(drawing);
  });
  return putEntities(doc, ...made, { ...between, ...changes, laid, ...printsOf(work) });
}

/** Takes in-betweens away with their frames; those drawn on by hand stay as drawings of their own. */
export function takeBetween(doc: ShotDocument, betweenId: Id): ShotDocument {
  const between = find(doc, 'between', betweenId);
  if (!between) return doc;
  const { timed, element } = placeOf(doc, between.layerId);
  const touched = touchedSlots(doc, [between]);
  const gone = new Set(between.slots.filter((slot) => !touched.has(slot)));
  const runs = timed.list.runs.filter(({ slot }) => slot === null || !gone.has(slot));
  const without = dropEntities(putEntities(doc, { ...timed.list, runs }), [betweenId]);
  return keptFull(doc, swept(without, [timed.list.id]), element);
}

/** Lets in-betweens be: they are drawings like all others from now on. */
export const freeBetween = (doc: ShotDocument, betweenId: Id): ShotDocument => dropEntities(doc, [betweenId]);
