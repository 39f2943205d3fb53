/** What a smear of a document is computed from: who the subject is, on which drawings, along which way. */
import {
  entitiesOf,
  find,
  type Drawing,
  type Id,
  type ShotDocument,
  type Smear,
  type SmearForm,
  type SmearTime,
} from '../document/index.ts';
import { IDENTITY, invert, multiply, type Matrix } from '../geometry/index.ts';
import { smearOf, type SmearWork, type WorkStop } from '../smears/index.ts';
import { settingsOf, type Settings } from '../controls/index.ts';
import {
  frameOfSlot,
  isLocked,
  placeOf,
  roundOf,
  runStart,
  shiftAt,
  timedLayers,
  type Place,
  type TimedLayer,
} from '../timing/index.ts';
import { isLaidByItself } from './laid-by-itself.ts';
import { usePlace, turnsOf, frameBefore, contactOf, lineOf, roomAfter, type SmearPlan } from './smear-ways.ts';

/** Drawings a smear looks back over at most. */
const MAX_STOPS = 13;

export const smearsOf = (doc: ShotDocument, elementId: Id): Smear[] =>
  entitiesOf(doc, 'smear').filter((each) => each.elementId === elementId);

/** Layers of a subject: the active one, and those tied to it in time, but for guides, what is for work, tone, and trails. */
export function subjectLayers(doc: ShotDocument, layerId: Id): Id[] {
  const { timed, element } = placeOf(doc, layerId);
  const others = timedLayers(doc, element).filter(
    (each) =>
      each.layer.id !== layerId &&
      each.layer.runListId === timed.layer.runListId &&
      each.layer.role !== 'guide' &&
      each.layer.role !== 'rough' &&
      !each.layer.forWork &&
      !isLocked(each) &&
      !isLaidByItself(doc, each.layer.id),
  );
  return [layerId, ...others.map(({ layer }) => layer.id)];
}

/** Where a smear would be laid for what shows on a frame. */
export interface SmearPlace {
  readonly layerId: Id;
  /** Slots of the drawings, the one that arrives last. */
  readonly stops: readonly Id[];
  /** The slot of a drawing before that it would take the place of. */
  readonly replaces: Id | null;
  /** Where its frame comes from, if it takes one. */
  readonly time: Exclude<SmearTime, 'behind'>;
  /** Frames the drawing before is held for, and the arriving one. */
  readonly hold: number;
}

/** Runs with drawings before one of a layer, the nearest first; a run that shows nothing ends them. Frames of smears are passed over. */
function runsBefore(doc: ShotDocument, { timed, element }: Place, index: number): number[] {
  const { runs } = timed.list;
  const own = new Set(entitiesOf(doc, 'smear').flatMap(({ slot }) => slot ?? []));
  const round = element.time === 'cycle';
  const found: number[] = [];
  for (let step = 1; step < runs.length && found.length < MAX_STOPS; step++) {
    const at = index - step;
    if (at < 0 && !round) break;
    const run = runs[(at + runs.length) % runs.length]!;
    if (run.slot !== null && own.has(run.slot)) continue;
    if (run.slot === null || !timed.layer.slots[run.slot]) break;
    found.push((at + runs.length) % runs.length);
  }
  return found;
}

/**
 * Where a smear to the drawing of a run would be laid; null where there is no drawing. Where nothing comes before it, it is the
 * only stop: then it needs a line to come along.
 * @param asked where its frame is to come from. Without a frame to spare in the hold before, it takes the place of the in-between
 * before; where that is a key, a frame is put in.
 */
export function smearPlace(
  doc: ShotDocument,
  layerId: Id,
  index: number,
  asked: SmearTime = 'hold',
): SmearPlace | null {
  const place = placeOf(doc, layerId);
  const { list } = place.timed;
  const to = list.runs[index]?.slot;
  const before = runsBefore(doc, place, index);
  const nearest = list.runs[before[0] ?? -1];
  if (!to || !place.timed.layer.slots[to] || nearest?.slot === to) return null;
  if (!nearest?.slot) {
    // It comes from nowhere: a frame in which nothing shows is taken, if there is one.
    const bare = list.runs[index - 1];
    const hold = bare?.slot === null ? bare.length : 0;
    return { layerId, stops: [to], replaces: null, time: hold > 1 && asked !== 'longer' ? 'hold' : 'longer', hold };
  }
  const slotsBack = (from: number) => [
    ...before
      .slice(from)
      .map((at) => list.runs[at]!.slot!)
      .reverse(),
    to,
  ];
  const distinct = (slots: readonly Id[]) =>
    slots.filter((slot, i) => slots.indexOf(slot) === i || i === slots.length - 1);
  const stopsOf = (from: number) => {
    const slots = slotsBack(from);
    // A drawing that shows again farther back would be two places at once.
    const last = slots.lastIndexOf(to, slots.length - 2);
    return distinct(slots.slice(last + 1)).slice(-MAX_STOPS);
  };
  const hold = nearest.length;
  const pose = list.poses[nearest.slot];
  const canReplace = before.length > 1 && !pose && stopsOf(1).length > 1;
  const time =
    asked === 'longer' || (asked === 'replace' && before.length > 1)
      ? asked
      : hold > 1
        ? 'hold'
        : canReplace
          ? 'replace'
          : 'longer';
  const replaces = time === 'replace' ? nearest.slot : null;
  return { layerId, stops: stopsOf(replaces ? 1 : 0), replaces, time, hold };
}

/** A smear as it is first laid. */
export const newSmear = (
  { layerId, stops, time }: SmearPlace,
  layers: readonly Id[],
  form: SmearForm,
  settings: Settings,
): SmearPlan => {
  const kind = smearOf(form);
  const all = settingsOf(kind, settings);
  return {
    layerId,
    layers,
    form,
    stops,
    piece: null,
    marks: [],
    rigid: [],
    way: 'as drawn',
    pathId: null,
    line: null,
    bend: 0,
    guideId: null,
    stopMarkId: null,
    settings: all,
    seed: 1,
    time: kind.lies(all) === 'behind' ? 'behind' : time,
    asGuide: false,
  };
};

/**
 * The frame on which what is on a slot is last seen before the next: a layer that moves goes on moving while a drawing is held.
 * @param taken frames at the end of its hold that a smear is going to take.
 */
function lastSeen(doc: ShotDocument, layerId: Id, slot: Id, taken: number): number {
  const { timed, turn } = placeOf(doc, layerId);
  const index = timed.list.runs.findIndex((run) => run.slot === slot);
  if (index < 0) return 0;
  const held = Math.max(1, timed.list.runs[index]!.length - taken);
  return (runStart(timed.list, index, turn) + held - 1) % turn;
}

/** What a smear is computed from; null while a drawing is not loaded, or one of the two it lies between is gone. */
export function smearWork(doc: ShotDocument, plan: SmearPlan): SmearWork | null {
  const lead = find(doc, 'layer', plan.layerId);
  const [from, to] = [plan.stops.at(-2), plan.stops.at(-1)];
  if (!lead || !to || !lead.slots[to] || (from !== undefined && !lead.slots[from])) return null;
  const place = placeOf(doc, plan.layerId);
  const { element, turn } = place;
  const round = roundOf(element, turn);
  const layers = [plan.layerId, ...plan.layers.filter((id) => id !== plan.layerId && find(doc, 'layer', id))];
  const timed = timedLayers(doc, element);
  const own = layers.flatMap((id) => timed.find(({ layer }) => layer.id === id) ?? []);
  if (own.length !== layers.length) return null;
  // Its own frame is taken once it is laid.
  const takes = plan.time === 'hold' && !('slot' in plan && plan.slot !== null) ? 1 : 0;
  const starts = plan.stops.map((slot) => frameOfSlot(doc, plan.layerId, slot) ?? 0);
  const frames = plan.stops.map((slot, i) =>
    i === plan.stops.length - 1
      ? starts[i]!
      : lastSeen(doc, plan.layerId, slot, i === plan.stops.length - 2 ? takes : 0),
  );
  const useAt = usePlace(doc, place);
  const at = (each: TimedLayer, frame: number, nth: number): Matrix => {
    const [use, shift] = [useAt(frame, nth), shiftAt(each, element.anchor, frame, round)];
    return use === IDENTITY ? shift : multiply(use, shift);
  };
  const arrives = frames.at(-1)!;
  const turns = turnsOf(frames);
  const arrivesIn = turns.at(-1)!;
  const home = invert(at(own[0]!, arrives, arrivesIn));
  const into = (each: TimedLayer, frame: number, nth: number): Matrix => {
    const shift = at(each, frame, nth);
    return shift === IDENTITY && home.every((v, i) => v === IDENTITY[i]) ? IDENTITY : multiply(home, shift);
  };
  const stops: WorkStop[] = [];
  const traces = element.traces.filter(({ layerId }) => layerId === plan.layerId);
  for (const [i, slot] of plan.stops.entries()) {
    const drawings: (Drawing | null)[] = [];
    for (const { layer } of own) {
      const id = layer.slots[slot];
      const drawing = id ? find(doc, 'drawing', id) : null;
      if (id && !drawing) return null;
      drawings.push(drawing ?? null);
    }
    const [tip, root] = [traces[0]?.points[slot] ?? null, traces[1]?.points[slot] ?? null];
    const [before, begins] = [starts[i - 1] ?? starts[i]!, starts[i]!];
    stops.push({
      drawings,
      matrices: own.map((each) => into(each, frames[i]!, turns[i]!)),
      frames: Math.max(1, (begins - before + turn) % turn),
      traced: { tip: tip && { x: tip.x, y: tip.y }, root: root && { x: root.x, y: root.y } },
    });
  }
  const line = lineOf(doc, plan);
  let marks = plan.marks;
  if (stops.length === 1) {
    if (!line || line.length < 2) return null;
    const [only] = stops as [WorkStop];
    const [start, end] = [line[0]!, line.at(-1)!];
    const off: Matrix = [1, 0, 0, 1, start.x - end.x, start.y - end.y];
    const none = { tip: null, root: null };
    stops.unshift({ ...only, matrices: only.matrices.map((matrix) => multiply(off, matrix)), traced: none });
    // All of it comes, though its marks are the same.
    if (marks.length === 0) marks = only.drawings[0]?.order ?? [];
  }
  const kind = smearOf(plan.form);
  const isBehind = plan.asGuide || kind.lies(settingsOf(kind, plan.settings)) === 'behind';
  const seen = isBehind ? arrives : frameBefore(arrives, place);
  const seenIn = seen > arrives ? Math.max(0, arrivesIn - 1) : arrivesIn;
  return {
    layers,
    stops,
    smear: { ...plan, marks },
    line,
    contact: contactOf(doc, plan, place),
    room: roomAfter(doc, plan.layerId, to).length,
    cycle: element.time === 'cycle',
    back: own.map((each) => invert(into(each, seen, seenIn))),
  };
}
