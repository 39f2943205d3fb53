/** Laying smears as ordinary drawings, and laying them again when what they hang on changes. */
import {
  dropEntities,
  find,
  newLayer,
  putEntities,
  type Drawing,
  type Id,
  type Layer,
  type Mark,
  type NewId,
  type Replaced,
  type Run,
  type RunList,
  type ShotDocument,
  type Smear,
} from '../document/index.ts';
import { fingerprintOf, smearFingerprint, touchedOf } from '../derived/index.ts';
import type { Smeared } from '../smears/index.ts';
import { drawingOf } from '../starters/index.ts';
import { placeOf, runStart, setHold } from '../timing/index.ts';
import { listOf } from './layers.ts';
import { keptFull } from './place.ts';
import { dropUnkept } from './remove.ts';
import { roomAfter, type SmearPlan } from './smear-ways.ts';
import { smearPlace, smearsOf } from './smear-work.ts';
import { swept, tiedTo } from './sweep.ts';
import { tonedBetween } from './tied-betweens.ts';
import { tonesOf } from './tones.ts';

/** A document with a smear, and the element frame it is seen on. */
interface LaidSmear {
  readonly doc: ShotDocument;
  readonly smearId: Id;
  readonly frame: number;
}

/** What a smear made lies on, where it is to be traced: all on one layer. */
const asGuide = ({ own, behind }: Smeared): Smeared => ({
  own: new Map(),
  behind: own.size > 0 ? [[...own.values()].reverse().flat()] : behind,
});

/** Puts the frame of a smear in, before the drawing that arrives. @param drawn layers that get drawings of their own there. */
function withFrame(
  doc: ShotDocument,
  plan: SmearPlan,
  slot: Id,
  drawn: ReadonlySet<Id>,
  replaces: Id | null,
  newId: NewId,
): ShotDocument {
  const { timed, element } = placeOf(doc, plan.layerId);
  let { list } = timed;
  const to = list.runs.findIndex((run) => run.slot === plan.stops.at(-1));
  // Across the seam it is the last of the cycle.
  const at = to === 0 && plan.stops.length > 1 ? list.runs.length : to;
  const before = at - 1;
  if (plan.time === 'replace' && replaces && list.runs[before]?.slot === replaces) {
    list = { ...list, runs: list.runs.with(before, { ...list.runs[before], slot }) };
  } else {
    const hold = list.runs[before]?.length ?? 1;
    if (plan.time === 'hold' && hold > 1) list = setHold(list, before, hold - 1);
    const run: Run = { id: newId(), slot, length: 1 };
    list = { ...list, runs: list.runs.toSpliced(at, 0, run) };
  }
  // What is tied and no part of the subject goes on showing what it showed; a layer of the subject that has nothing of it,
  // what it arrives with. Tone goes with its body, and is cut anew where that is drawn anew.
  const subject = new Set([...plan.layers, ...tonesOf(doc, new Set(plan.layers))]);
  const anew = new Set([...drawn, ...tonesOf(doc, drawn)]);
  const [from, arrives] = [replaces ?? plan.stops.at(-2) ?? '', plan.stops.at(-1)!];
  const kept = tiedTo(doc, list.id).flatMap((layer): Layer[] => {
    const shown = layer.slots[subject.has(layer.id) ? arrives : from];
    return anew.has(layer.id) || !shown ? [] : [{ ...layer, slots: { ...layer.slots, [slot]: shown } }];
  });
  const next = putEntities(doc, list, ...kept);
  return keptFull(doc, replaces ? swept(next, [list.id]) : next, element);
}

/** What the layers show in the drawing that a smear takes the place of. */
function replacedIn(doc: ShotDocument, { layerId, time }: SmearPlan, slot: Id | null): Replaced | null {
  if (time !== 'replace' || slot === null) return null;
  const { list } = placeOf(doc, layerId).timed;
  const shown = tiedTo(doc, list.id).flatMap(({ id, slots }) => (slots[slot] ? [[id, slots[slot]] as const] : []));
  const [pose, number] = [list.poses[slot], list.numbers[slot]];
  const told = { ...(pose ? { pose } : {}), ...(number ? { number } : {}) };
  return { slot, drawings: Object.fromEntries(shown), ...told };
}

/** Puts back what a smear took the place of; null where nothing of it is left. */
function withReplaced(doc: ShotDocument, list: RunList, at: number, replaced: Replaced): ShotDocument | null {
  const { slot, drawings, pose, number } = replaced;
  const layers = tiedTo(doc, list.id).flatMap((layer): Layer[] => {
    const drawingId = find(doc, 'drawing', drawings[layer.id])?.id;
    return drawingId && !layer.slots[slot] ? [{ ...layer, slots: { ...layer.slots, [slot]: drawingId } }] : [];
  });
  if (layers.length === 0) return null;
  const poses = pose ? { ...list.poses, [slot]: pose } : list.poses;
  const numbers = number ? { ...list.numbers, [slot]: number } : list.numbers;
  const runs = list.runs.with(at, { ...list.runs[at]!, slot });
  return putEntities(doc, { ...list, runs, poses, numbers }, ...layers);
}

/** The layer a smear lies on behind its subject: one of the same kind whose drawings it needs are free, else a new one under all of it. */
function behindLayer(
  doc: ShotDocument,
  plan: SmearPlan,
  slots: readonly Id[],
  newId: NewId,
): { doc: ShotDocument; layer: Layer } {
  const lead = find(doc, 'layer', plan.layerId)!;
  for (const other of smearsOf(doc, lead.elementId)) {
    const layer = find(doc, 'layer', other.behindId);
    const fits = other.layerId === plan.layerId && other.form === plan.form && other.asGuide === plan.asGuide;
    if (fits && layer?.runListId === lead.runListId && slots.every((slot) => !layer.slots[slot])) return { doc, layer };
  }
  const name = `${lead.name.slice(0, 180).toWellFormed()} ${plan.asGuide ? 'to trace' : plan.form}`;
  const made = newLayer(lead.elementId, name, plan.asGuide ? 'guide' : 'body', newId).layer;
  const layer: Layer = { ...made, runListId: lead.runListId, shift: lead.shift, forWork: plan.asGuide };
  const into = listOf(doc, lead.id) ?? find(doc, 'element', lead.elementId)!;
  const lowest = Math.max(...plan.layers.map((id) => into.layers.indexOf(id)), into.layers.indexOf(lead.id));
  const at = plan.asGuide ? into.layers.indexOf(lead.id) : lowest + 1;
  return { doc: putEntities(doc, layer, { ...into, layers: into.layers.toSpliced(at, 0, layer.id) }), layer };
}

type Laid = Record<Id, Record<Id, string>>;

const noted = (laid: Laid, layerId: Id, slot: Id, drawing: Drawing): void => {
  (laid[layerId] ??= {})[slot] = fingerprintOf(drawing);
};

/** Puts drawings on the subject's own layers in a slot. */
function putOwn(doc: ShotDocument, { own }: Smeared, slot: Id, laid: Laid, newId: NewId): ShotDocument {
  let next = doc;
  for (const [layerId, marks] of own) {
    const layer = find(next, 'layer', layerId);
    if (!layer || marks.length === 0) continue;
    const drawing = drawingOf(newId(), marks);
    next = putEntities(next, drawing, { ...layer, slots: { ...layer.slots, [slot]: drawing.id } });
    noted(laid, layerId, slot, drawing);
  }
  return next;
}

/**
 * Lays a smear.
 * @param smeared what was computed for it. @param replaces the slot of the drawing it takes the place of, if it does.
 */
export function laySmear(
  doc: ShotDocument,
  plan: SmearPlan,
  computed: Smeared,
  replaces: Id | null,
  newId: NewId,
  smearId: Id = newId(),
): LaidSmear {
  const smeared = plan.asGuide ? asGuide(computed) : computed;
  const lead = find(doc, 'layer', plan.layerId)!;
  const laid: Laid = {};
  const replaced = smeared.own.size > 0 ? replacedIn(doc, plan, replaces) : null;
  const bare: Smear = {
    ...plan,
    kind: 'smear',
    id: smearId,
    elementId: lead.elementId,
    slot: null,
    behindId: null,
    laid: {},
    hangsOn: '',
    ...(replaced ? { replaced } : {}),
  };
  // It is there first, so that what it replaces is kept.
  let next = putEntities(doc, bare);
  let [slot, behindId] = [null as Id | null, null as Id | null];
  const to = plan.stops.at(-1)!;
  if (smeared.own.size > 0) {
    slot = newId();
    next = withFrame(next, plan, slot, new Set(smeared.own.keys()), replaces, newId);
    next = putOwn(next, smeared, slot, laid, newId);
    next = tonedBetween(next, new Set(plan.layers), { from: plan.stops.at(-2) ?? to, to }, [slot]);
  }
  if (smeared.behind.some((marks) => marks.length > 0)) {
    const slots = [to, ...roomAfter(next, plan.layerId, to)].slice(0, smeared.behind.length);
    const used = slots.filter((_, i) => smeared.behind[i]!.length > 0);
    const placed = behindLayer(next, plan, used, newId);
    next = placed.doc;
    behindId = placed.layer.id;
    const own: Record<Id, Id> = {};
    slots.forEach((each, i) => {
      const marks = smeared.behind[i]!;
      if (marks.length === 0) return;
      const drawing = drawingOf(newId(), marks);
      next = putEntities(next, drawing);
      own[each] = drawing.id;
      noted(laid, behindId!, each, drawing);
    });
    const layer = find(next, 'layer', behindId)!;
    next = putEntities(next, { ...layer, slots: { ...layer.slots, ...own } });
  }
  const made: Smear = { ...bare, slot, behindId, laid };
  next = putEntities(next, { ...made, hangsOn: smearFingerprint(next, made) ?? '' });
  const place = placeOf(next, plan.layerId);
  const shown = place.timed.list.runs.findIndex((run) => run.slot === (slot ?? to));
  return { doc: next, smearId, frame: runStart(place.timed.list, Math.max(0, shown), place.turn) };
}

/** Whether what was computed has the same places as what is laid: then only drawings change. */
const isAlike = ({ slot, behindId }: Smear, { own, behind }: Smeared): boolean =>
  own.size > 0 === (slot !== null) && behind.some((marks) => marks.length > 0) === (behindId !== null);

/**
 * Lays a smear again: on the places it has where they still fit, else anew. What was drawn on by hand stays.
 * @param changes other settings, if any.
 */
export function relaySmear(
  doc: ShotDocument,
  smearId: Id,
  changes: Partial<SmearPlan>,
  computed: Smeared,
  newId: NewId,
): LaidSmear | null {
  const old = find(doc, 'smear', smearId);
  if (!old || !find(doc, 'layer', old.layerId)) return null;
  const plan: SmearPlan = { ...old, ...changes };
  // What it has replaced so far is no part of what is asked for.
  Reflect.deleteProperty(plan, 'replaced');
  const smeared = plan.asGuide ? asGuide(computed) : computed;
  const placesStay = plan.time === old.time && plan.asGuide === old.asGuide && isAlike(old, smeared);
  if (!placesStay) {
    const taken = takeSmear(doc, smearId);
    const { runs } = placeOf(taken, plan.layerId).timed.list;
    const to = runs.findIndex(({ slot }) => slot === plan.stops.at(-1));
    const place = plan.time === 'behind' ? null : smearPlace(taken, plan.layerId, to, plan.time);
    // Where the drawing before goes or comes back, it comes from another one: what was computed is laid anew for it.
    if (!place || (!place.replaces && !old.replaced))
      return laySmear(taken, { ...plan, time: place?.time ?? plan.time }, computed, null, newId, smearId);
    const { stops, time, replaces } = place;
    const laid = laySmear(taken, { ...plan, stops, time }, computed, replaces, newId, smearId);
    return { ...laid, doc: putEntities(laid.doc, { ...find(laid.doc, 'smear', smearId)!, hangsOn: '' }) };
  }
  const touched = new Set(touchedOf(doc, old).map(({ slot, drawingId }) => `${slot} ${drawingId}`));
  const laid: Laid = {};
  let next = doc;
  const gone: Id[] = [];
  const put = (layerId: Id, slot: Id, marks: readonly Mark[]): void => {
    const layer = find(next, 'layer', layerId);
    if (!layer) return;
    const had = layer.slots[slot];
    const wasOurs = old.laid[layerId]?.[slot];
    // A drawing that a hand has changed, or that was never laid by it, stays.
    if (had && (touched.has(`${slot} ${had}`) || wasOurs === undefined)) {
      if (wasOurs !== undefined) (laid[layerId] ??= {})[slot] = wasOurs;
      return;
    }
    if (marks.length === 0) {
      if (!had) return;
      gone.push(had);
      const slots = { ...layer.slots };
      Reflect.deleteProperty(slots, slot);
      next = putEntities(next, { ...layer, slots });
      return;
    }
    const drawing = drawingOf(had ?? newId(), marks);
    next = putEntities(next, drawing, ...(had ? [] : [{ ...layer, slots: { ...layer.slots, [slot]: drawing.id } }]));
    noted(laid, layerId, slot, drawing);
  };
  if (old.slot !== null) for (const [layerId, marks] of smeared.own) put(layerId, old.slot, marks);
  if (old.behindId !== null) {
    const to = plan.stops.at(-1)!;
    const slots = [to, ...roomAfter(doc, plan.layerId, to)];
    const before = Object.keys(old.laid[old.behindId] ?? {});
    new Set([...slots.slice(0, smeared.behind.length), ...before]).forEach((slot) => {
      put(old.behindId!, slot, smeared.behind[slots.indexOf(slot)] ?? []);
    });
  }
  const made: Smear = { ...old, ...plan, laid };
  next = putEntities(next, { ...made, hangsOn: smearFingerprint(next, made) ?? old.hangsOn });
  if (gone.length > 0) next = dropUnkept(next, gone);
  const { timed, turn } = placeOf(next, plan.layerId);
  const shown = timed.list.runs.findIndex((run) => run.slot === (old.slot ?? plan.stops.at(-1)));
  return { doc: next, smearId, frame: runStart(timed.list, Math.max(0, shown), turn) };
}

/** Takes a smear away with the frame it took, which goes back where it came from; what was drawn on by hand stays as a drawing. */
export function takeSmear(doc: ShotDocument, smearId: Id): ShotDocument {
  const smear = find(doc, 'smear', smearId);
  if (!smear) return doc;
  const touched = new Set(touchedOf(doc, smear).map(({ drawingId }) => drawingId));
  const { timed, element } = placeOf(doc, smear.layerId);
  let next = dropEntities(doc, [smearId]);
  const gone: Id[] = [];
  for (const [layerId, prints] of Object.entries(smear.laid)) {
    const layer = find(next, 'layer', layerId);
    if (!layer) continue;
    const mine = Object.keys(prints).filter((slot) => layer.slots[slot] && !touched.has(layer.slots[slot]));
    const slots = Object.fromEntries(Object.entries(layer.slots).filter(([slot]) => !mine.includes(slot)));
    gone.push(...mine.flatMap((slot) => layer.slots[slot] ?? []));
    next = putEntities(next, { ...layer, slots });
  }
  next = dropUnkept(next, gone);
  const hadReplaced = Object.values(smear.replaced?.drawings ?? {});
  const isKept = smear.slot !== null && smear.layers.some((id) => find(next, 'layer', id)?.slots[smear.slot!]);
  const at = timed.list.runs.findIndex(({ slot }) => slot !== null && slot === smear.slot);
  if (smear.slot !== null && at >= 0 && !isKept) {
    const before = timed.list.runs[at - 1];
    let list: RunList = { ...timed.list, runs: timed.list.runs.toSpliced(at, 1) };
    if (smear.time !== 'longer' && before) list = setHold(list, at - 1, before.length + timed.list.runs[at]!.length);
    const back = smear.replaced && withReplaced(next, timed.list, at, smear.replaced);
    next = swept(back ?? putEntities(next, list), [list.id]);
  }
  const behind = find(next, 'layer', smear.behindId);
  // Its layer goes with the last thing on it.
  const isBare =
    behind &&
    Object.keys(behind.slots).length === 0 &&
    !smearsOf(next, element.id).some((each) => each.behindId === behind.id);
  if (isBare) {
    const into = listOf(next, behind.id);
    if (into) next = putEntities(next, { ...into, layers: into.layers.filter((id) => id !== behind.id) });
    next = dropEntities(next, [behind.id]);
  }
  return keptFull(doc, dropUnkept(next, hadReplaced), element);
}

/** Lets a smear be: its drawings are like all others from now on, and what it replaced is gone. */
export function freeSmear(doc: ShotDocument, smearId: Id): ShotDocument {
  const replaced = find(doc, 'smear', smearId)?.replaced;
  return dropUnkept(dropEntities(doc, [smearId]), Object.values(replaced?.drawings ?? {}));
}
