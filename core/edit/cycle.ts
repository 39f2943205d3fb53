/** Edits of a whole element's time: where its cycle begins, which way it runs, how long it is. */
import { lightsOfElement } from '../assembly/index.ts';
import { modulo } from '../geometry/index.ts';
import { putEntities, withValues, type Id, type NewId, type RunList, type ShotDocument } from '../document/index.ts';
import { rearrangedPhases } from '../plan/index.ts';
import {
  cutAt,
  exposures,
  listFrame,
  reversedRuns,
  runsWithin,
  stretchedTo,
  timedLayers,
  toldFrom,
  totalLength,
  withNumbersKept,
  elementOf,
} from '../timing/index.ts';
import { rekeyed } from './keep-times.ts';
import { swept } from './sweep.ts';

/** Where frames of an element's turn go: each frame before to one after or none, and each after from which before. */
interface Retold {
  readonly to: (frame: number) => number | null;
  readonly from: readonly number[];
}

/** Changes every run list of an element once, and with them all values over time and the phases. */
function changeAll(
  doc: ShotDocument,
  elementId: Id,
  change: (list: RunList, turn: number) => RunList,
  retold: (turn: number) => Retold,
): ShotDocument {
  const { element, turn } = elementOf(doc, elementId);
  const { to, from } = retold(turn);
  const timed = timedLayers(doc, element);
  const lists = new Map(timed.flatMap(({ list }) => (list.period === 1 ? [] : [[list.id, list] as const])));
  const folders = new Set(timed.flatMap(({ folder }) => folder ?? []));
  const owners = [...timed.map(({ layer }) => layer), ...folders, element, ...lightsOfElement(doc, elementId)];
  const valued = owners.map((entity) => withValues(entity, (value) => rekeyed(value, to)));
  const changed = [...lists.values()].map((list) => change(list, turn));
  const told = putEntities(doc, ...valued, ...changed);
  const phases = rearrangedPhases(element.phases, turn, from);
  return swept(
    putEntities(told, { ...elementOf(told, elementId).element, phases }),
    changed.map(({ id }) => id),
  );
}

const framesOf = (length: number, from: (frame: number) => number): number[] =>
  Array.from({ length }, (_, frame) => from(frame));

/** Lets a cycle begin at what shows on a frame: that frame becomes the first on every layer. */
export function startAt(doc: ShotDocument, elementId: Id, frame: number): ShotDocument {
  return changeAll(
    doc,
    elementId,
    (list, turn) => {
      const round = list.period ?? turn;
      const moved = { ...list, offset: modulo(list.offset - frame, round) };
      if (totalLength(list) !== round) return moved;
      // Told from the run that shows first, so that its drawings are counted from there.
      const local = listFrame(moved, 0, turn);
      const first = exposures(moved).findLast((e) => e.start <= local)?.index ?? 0;
      return first === 0 ? moved : toldFrom(moved, first, round);
    },
    (turn) => ({
      to: (each) => modulo(each - frame, turn),
      from: framesOf(turn, (each) => modulo(each + frame, turn)),
    }),
  );
}

/** Turns an element's time round: it runs backwards, on every layer. */
export function turnRound(doc: ShotDocument, elementId: Id): ShotDocument {
  return changeAll(
    doc,
    elementId,
    (list, turn) => ({
      ...withNumbersKept(list),
      runs: reversedRuns(list.runs),
      offset: modulo(turn - totalLength(list) - list.offset, list.period ?? turn),
    }),
    (turn) => ({ to: (each) => turn - 1 - each, from: framesOf(turn, (each) => turn - 1 - each) }),
  );
}

/** The fewest frames an element can have without losing a drawing: its longest layer's runs, one frame each. */
export function shortestLength(doc: ShotDocument, elementId: Id): number {
  const { element } = elementOf(doc, elementId);
  const counts = timedLayers(doc, element).map(({ list }) => (list.period === null ? list.runs.length : 1));
  return Math.max(1, ...counts);
}

/**
 * Makes an element longer or shorter: every layer's holds are shared out anew, so that first and last
 * drawing stay first and last. Repeats of their own keep their length.
 * @param length frames, at least `shortestLength`.
 */
export function resizeTime(doc: ShotDocument, elementId: Id, length: number): ShotDocument {
  const wanted = Math.max(shortestLength(doc, elementId), Math.round(length));
  return changeAll(
    doc,
    elementId,
    (list, turn) => {
      if (list.period !== null || list.runs.length === 0) return list;
      const own = Math.max(list.runs.length, Math.round((totalLength(list) * wanted) / turn));
      return {
        ...list,
        runs: stretchedTo(list.runs, Math.min(own, wanted)),
        offset: modulo(Math.round((list.offset * wanted) / turn), wanted),
      };
    },
    (turn) => ({
      to: (each) => Math.min(wanted - 1, Math.round((each * wanted) / turn)),
      from: framesOf(wanted, (each) => Math.min(turn - 1, Math.floor((each * turn) / wanted))),
    }),
  );
}

/**
 * Keeps a stretch of an element's time and lets the rest go, on every layer; what is left is a cycle.
 * @param from first frame kept. @param length frames kept.
 */
export function cutCycle(doc: ShotDocument, elementId: Id, from: number, length: number, newId: NewId): ShotDocument {
  const cut = changeAll(
    startAt(doc, elementId, from),
    elementId,
    (list, turn) => {
      if (list.period !== null) return list;
      const round = { ...list, runs: padded(list, turn, newId) };
      const local = listFrame(round, 0, turn);
      const opened = cutAt(round, local, newId);
      const first = exposures(opened).findIndex((e) => e.start === local);
      const told = first > 0 ? toldFrom(opened, first, turn) : opened;
      const kept = cutAt({ ...told, offset: 0 }, length, newId);
      const { count } = runsWithin(kept, { from: 0, length });
      return { ...kept, runs: kept.runs.slice(0, count) };
    },
    () => ({ to: (each) => (each < length ? each : null), from: framesOf(length, (each) => each) }),
  );
  const { element } = elementOf(cut, elementId);
  return putEntities(cut, { ...element, time: 'cycle' });
}

/** Runs that fill the whole turn, with an empty one at the end where they do not. */
function padded(list: RunList, turn: number, newId: NewId): RunList['runs'] {
  const left = turn - totalLength(list);
  return left > 0 ? [...list.runs, { id: newId(), slot: null, length: left }] : list.runs;
}
