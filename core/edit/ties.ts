/** Layers tied in time: they share one run list, so that a slot made, moved or held on one is so on all. */
import {
  constant,
  find,
  putEntities,
  type Id,
  type Layer,
  type LayerRole,
  type NewId,
  type Run,
  type RunList,
  type ShotDocument,
} from '../document/index.ts';
import { exposures, runStart, shownOn, totalLength, type TimedLayer, placeOf, slotsInOrder } from '../timing/index.ts';
import { addLayer } from './layers.ts';
import { keptFull } from './place.ts';
import { swept, tiedTo } from './sweep.ts';
import { isLaidByItself } from './laid-by-itself.ts';

/** Layers and lists never change, and the rows of all layers ask after each edit. */
const bareIn = new WeakMap<Layer, { readonly list: RunList; readonly runs: readonly number[] }>();

/** Slots of a layer that are still to be drawn: another tied to it has them, or they were prepared. */
export function bareRuns({ layer, list }: Pick<TimedLayer, 'layer' | 'list'>): readonly number[] {
  const known = bareIn.get(layer);
  if (known?.list === list) return known.runs;
  const runs = exposures(list).flatMap(({ run, index }) =>
    run.slot !== null && !layer.slots[run.slot] ? [index] : [],
  );
  bareIn.set(layer, { list, runs });
  return runs;
}

/** Slots still to be drawn that follow each other, and whether drawings stand on both sides of them. */
interface BareGroup {
  /** Indices of runs. */
  readonly runs: readonly number[];
  readonly between: boolean;
}

/** The slots still to be drawn in groups, in the order of the list; on a closed list the last drawing stands before the first. */
export function bareGroups(timed: Pick<TimedLayer, 'layer' | 'list'>, closed: boolean): BareGroup[] {
  const { layer, list } = timed;
  const bare = new Set(bareRuns(timed));
  const isDrawn = (index: number) => layer.slots[list.runs[index]?.slot ?? ''] !== undefined;
  const groups: number[][] = [];
  for (const index of bare) {
    const last = groups.at(-1);
    if (last?.at(-1) === index - 1) last.push(index);
    else groups.push([index]);
  }
  const count = list.runs.length;
  return groups.map((runs) => {
    const [before, after] = [runs[0]! - 1, runs.at(-1)! + 1];
    const wrapped = (index: number) => (closed ? (index + count) % count : index);
    return { runs, between: isDrawn(wrapped(before)) && isDrawn(wrapped(after)) };
  });
}

/**
 * The element frame of the slot that is best drawn next: in the group after a frame, the middle where
 * drawings stand on both sides, else the first. Round and round; null when all are drawn.
 */
export function nextBare(doc: ShotDocument, layerId: Id, frame: number): number | null {
  if (isLaidByItself(doc, layerId)) return null;
  const { timed, turn, element } = placeOf(doc, layerId);
  const groups = bareGroups(timed, element.time === 'cycle');
  const starts = (group: BareGroup) => group.runs.map((index) => runStart(timed.list, index, turn));
  const next = groups.find((group) => starts(group).some((start) => start > frame)) ?? groups[0];
  if (!next) return null;
  if (next.between) return starts(next)[(next.runs.length - 1) >> 1]!;
  return starts(next).find((start) => start > frame) ?? starts(next)[0]!;
}

/** The drawing a layer shows at the start of each slot of another layer's list, by slot. */
function drawingsAt(doc: ShotDocument, layerId: Id, other: TimedLayer): Record<Id, Id> {
  const { timed, turn } = placeOf(doc, layerId);
  const slots: Record<Id, Id> = {};
  for (const { run, index } of exposures(other.list)) {
    if (!run.slot || slots[run.slot]) continue;
    const shown = shownOn(timed, runStart(other.list, index, turn), turn);
    if (shown) slots[run.slot] = shown.drawingId;
  }
  return slots;
}

/** Why a layer cannot be tied to another, said to the user, or null. */
export function whyNotTied(doc: ShotDocument, layerId: Id, toId: Id): string | null {
  const [one, other] = [placeOf(doc, layerId), placeOf(doc, toId)];
  const { layer, list } = one.timed;
  if (layer.runListId === other.timed.layer.runListId) return `“${layer.name}” is tied to it already.`;
  if (list.period === 1 || other.timed.list.period === 1) return 'A still layer has no slots to tie.';
  const kept = new Set(Object.values(drawingsAt(doc, layerId, other.timed)));
  const lost = new Set(Object.values(layer.slots).filter((id) => !kept.has(id))).size;
  if (lost === 0) return null;
  return `${lost === 1 ? 'One drawing' : `${lost} drawings`} of “${layer.name}” would have no slot on “${other.timed.layer.name}”. Give both the same holds first, or tie them the other way round.`;
}

/** Ties a layer to another in time: it takes the other's slots, and shows its own drawings on them. */
export function tieLayer(doc: ShotDocument, layerId: Id, toId: Id): ShotDocument {
  if (whyNotTied(doc, layerId, toId)) return doc;
  const { timed, element } = placeOf(doc, layerId);
  const { timed: other } = placeOf(doc, toId);
  const slots = drawingsAt(doc, layerId, other);
  const tied = putEntities(doc, { ...timed.layer, runListId: other.list.id, slots });
  const unused = tiedTo(tied, timed.list.id).length === 0;
  const entities = { ...tied.entities };
  if (unused) Reflect.deleteProperty(entities, timed.list.id);
  return keptFull(doc, { ...tied, entities }, element);
}

/** Gives a layer a run list of its own again, the same as the one it shared. */
export function untieLayer(doc: ShotDocument, layerId: Id, newId: NewId): ShotDocument {
  const { timed } = placeOf(doc, layerId);
  if (tiedTo(doc, timed.list.id).length < 2) return doc;
  const own = { ...timed.list, id: newId() };
  return putEntities(doc, own, { ...timed.layer, runListId: own.id });
}

/**
 * A layer tied to another, right above it, to draw the line on. A rough one is dimmed and for work from then on; what is painted
 * stays in the picture as it is. The edit says which id it got.
 */
export function lineOver(
  doc: ShotDocument,
  roughId: Id,
  name: string,
  role: LayerRole,
  newId: NewId,
): { doc: ShotDocument; layerId: Id } {
  const { timed } = placeOf(doc, roughId);
  const added = addLayer(doc, timed.layer.elementId, name, role, roughId, newId);
  const line = find(added.doc, 'layer', added.layerId)!;
  const tied: Layer = { ...line, runListId: timed.list.id };
  const { layer } = timed;
  const isRough = role === 'line' && (layer.role === 'rough' || layer.role === 'line');
  const under: Layer = isRough ? { ...layer, opacity: constant(DIM), forWork: true } : layer;
  const entities = { ...putEntities(added.doc, tied, under).entities };
  Reflect.deleteProperty(entities, line.runListId);
  return { doc: { ...added.doc, entities }, layerId: tied.id };
}

/** What a rough layer keeps of its opacity under the line drawn over it. */
const DIM = 0.5;

/** Empty slots for so many frames after what a layer has, each held for `every` frames. */
export function prepareSlots(
  doc: ShotDocument,
  layerId: Id,
  frames: number,
  every: number,
  newId: NewId,
): ShotDocument {
  const { timed, element } = placeOf(doc, layerId);
  const made: Run[] = [];
  for (let left = frames; left > 0; left -= every)
    made.push({ id: newId(), slot: newId(), length: Math.min(every, left) });
  return keptFull(doc, putEntities(doc, { ...timed.list, runs: [...timed.list.runs, ...made] }), element);
}

/** Slots of a layer that have a drawing, in the order in which they first show. */
const drawnSlots = ({ layer, list }: TimedLayer): Id[] =>
  slotsInOrder(list).flatMap(({ slot }) => (layer.slots[slot] ? [slot] : []));

/** Why the slots and holds of another layer cannot be taken over, said to the user, or null. */
export function whyNotSlotsOf(doc: ShotDocument, layerId: Id, fromId: Id): string | null {
  const [own, other] = [placeOf(doc, layerId).timed, placeOf(doc, fromId).timed];
  const drawn = drawnSlots(own).length;
  const slots = slotsInOrder(other.list).length;
  return drawn > slots
    ? `“${own.layer.name}” has ${drawn} drawings, “${other.layer.name}” only ${slots} slots to put them in.`
    : null;
}

/** Takes over only slots and holds of another layer: the layer's own drawings fill them in order, the rest stay bare. */
export function slotsOf(doc: ShotDocument, layerId: Id, fromId: Id, newId: NewId): ShotDocument {
  if (whyNotSlotsOf(doc, layerId, fromId)) return doc;
  const { timed, element } = placeOf(doc, layerId);
  const { list: from } = placeOf(doc, fromId).timed;
  const own = drawnSlots(timed);
  const fresh = new Map<Id, Id>();
  const runs = from.runs.map((run) => {
    if (run.slot && !fresh.has(run.slot)) fresh.set(run.slot, own.shift() ?? newId());
    return { id: newId(), length: run.length, slot: run.slot && fresh.get(run.slot)! };
  });
  const { period, offset } = from;
  return keptFull(doc, swept(putEntities(doc, { ...timed.list, runs, period, offset }), [timed.list.id]), element);
}

/** Frames of a layer's list, for preparing slots up to the end of its element. */
export const framesLeft = (doc: ShotDocument, layerId: Id, upTo: number): number =>
  Math.max(0, upTo - totalLength(placeOf(doc, layerId).timed.list));
