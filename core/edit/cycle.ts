/** Edits of a whole element's time: where its cycle begins, which way it runs, how long it is. */
import {
  keysIn,
  putEntities,
  type Id,
  type Key,
  type Layer,
  type NewId,
  type RunList,
  type ShotDocument,
  type Value,
} from '../document/index.ts';
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
} from '../timing/index.ts';
import { elementOf } from './place.ts';
import { swept } from './sweep.ts';

const modulo = (value: number, by: number): number => ((value % by) + by) % by;

/** Changes every run list of an element once, and the values over time of its layers. */
function changeAll(
  doc: ShotDocument,
  elementId: Id,
  change: (list: RunList, turn: number) => RunList,
  moved: (key: Key, turn: number) => Key | null,
): ShotDocument {
  const { element, turn } = elementOf(doc, elementId);
  const timed = timedLayers(doc, element);
  const lists = new Map(timed.flatMap(({ list }) => (list.period === 1 ? [] : [[list.id, list] as const])));
  const layers = timed.map(({ layer }) => withValues(layer, (value) => rekeyed(value, (key) => moved(key, turn))));
  const changed = [...lists.values()].map((list) => change(list, turn));
  return swept(
    putEntities(doc, ...layers, ...changed),
    changed.map(({ id }) => id),
  );
}

function rekeyed(value: Value, moved: (key: Key) => Key | null): Value {
  const keys = keysIn(value);
  if (keys.length === 0) return value;
  const byFrame = new Map<number, Key>();
  for (const key of keys) {
    const next = moved(key);
    if (next && !byFrame.has(next.frame)) byFrame.set(next.frame, next);
  }
  const left = [...byFrame.values()].sort((a, b) => a.frame - b.frame);
  return left.length > 0 ? { keys: left } : { constant: keys[0]!.value };
}

const withValues = (layer: Layer, change: (value: Value) => Value): Layer => ({
  ...layer,
  opacity: change(layer.opacity),
  shift: {
    x: change(layer.shift.x),
    y: change(layer.shift.y),
    scale: change(layer.shift.scale),
    angle: change(layer.shift.angle),
  },
});

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
    (key, turn) => ({ ...key, frame: modulo(key.frame - frame, turn) }),
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
    (key, turn) => ({ ...key, frame: turn - 1 - key.frame }),
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
    (key, turn) => ({ ...key, frame: Math.min(wanted - 1, Math.round((key.frame * wanted) / turn)) }),
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
    (key) => (key.frame < length ? key : null),
  );
  const { element } = elementOf(cut, elementId);
  return putEntities(cut, { ...element, time: 'cycle' });
}

/** Runs that fill the whole turn, with an empty one at the end where they do not. */
function padded(list: RunList, turn: number, newId: NewId): RunList['runs'] {
  const left = turn - totalLength(list);
  return left > 0 ? [...list.runs, { id: newId(), slot: null, length: left }] : list.runs;
}
