/** Scattered copies: many uses of one placement at once, irregular by a seed, never two alike in time. */
import {
  find,
  findAll,
  putEntities,
  type Element,
  type Id,
  type NewId,
  type Placement,
  type Scatter,
  type ShotDocument,
} from '../document/index.ts';
import { textFingerprint } from '../derived/index.ts';
import { onWay } from '../assembly/index.ts';
import { mix, ringPoints, seededRandom, isInside, type Point } from '../geometry/index.ts';
import { elementLength } from '../timing/index.ts';
import { copyPlacement, setPlacements } from './placements.ts';
import { deleteEntities } from './remove.ts';

export type ScatterSettings = Omit<Scatter, 'kind' | 'id' | 'sourceId' | 'copies'>;

/** Three copies about it, each a little different. @param reach px. */
export const newScattering = (reach: number, seed = 1): ScatterSettings => ({
  count: 3,
  seed,
  over: 24,
  region: null,
  pathId: null,
  reach,
  size: { least: 0.7, most: 1.1 },
  turn: { least: -0.15, most: 0.15 },
  speed: { least: 1, most: 1 },
  mirrored: 0.5,
});

/** Speeds are of so many parts. */
const PARTS = 12;
/** Places are looked for so often within a region before one anywhere in its box is taken. */
const TRIES = 60;

/** How one copy differs from what it is copied from. */
interface Scattered {
  /** Frames the source's time is ahead (of a cycle: within its turn) or the start is later. */
  readonly away: number;
  readonly x: number;
  readonly y: number;
  readonly size: number;
  readonly turn: number;
  readonly speed: { readonly over: number; readonly of: number };
  readonly mirrored: boolean;
}

const commonDivisor = (a: number, b: number): number => (b === 0 ? a : commonDivisor(b, a % b));

/** A rational number of small parts, as a speed. */
export function rational(value: number): { over: number; of: number } {
  const over = Math.min(100, Math.max(1, Math.round(value * PARTS)));
  const common = commonDivisor(over, PARTS);
  return { over: over / common, of: PARTS / common };
}

/** So many different whole numbers of a range, evenly strewn and in no order; more than there are repeat. @param random 0 to 1. */
function strewn(count: number, room: number, random: () => number): number[] {
  // The first place is the source's own.
  const free = Math.max(1, room - 1);
  const places = Array.from({ length: count }, (_, i) => {
    if (count > free) return 1 + (i % free);
    const [from, to] = [i, i + 1].map((each) => 1 + Math.floor((each * free) / count)) as [number, number];
    return from + Math.floor(random() * (to - from));
  });
  for (let i = count - 1; i > 0; i--) {
    const k = Math.floor(random() * (i + 1));
    [places[i], places[k]] = [places[k]!, places[i]!];
  }
  return places;
}

/** Where copies lie: in a region, along a path, or round about. */
function placer(
  doc: ShotDocument,
  { region, pathId, reach, count }: ScatterSettings,
  source: Placement,
  random: () => number,
): (index: number) => Point {
  const path = find(doc, 'path', pathId);
  if (path) {
    const last = path.from + (path.ticks - 1) * path.hold;
    return (index) => {
      const { x, y } = onWay(path, mix(path.from, last, count < 2 ? 0.5 : index / (count - 1)));
      return { x: source.x + x, y: source.y + y };
    };
  }
  if (region) {
    const outline = ringPoints(region, 8);
    const [xs, ys] = [outline.map(({ x }) => x), outline.map(({ y }) => y)];
    const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    return () => {
      let at = { x: mix(left, right, random()), y: mix(top, bottom, random()) };
      for (let i = 0; i < TRIES && !isInside(outline, at); i++)
        at = { x: mix(left, right, random()), y: mix(top, bottom, random()) };
      return at;
    };
  }
  return (index) => {
    // Round about in every direction, no two close to each other.
    const angle = ((index + 0.2 + 0.6 * random()) / count) * 2 * Math.PI;
    const far = reach * (0.45 + 0.55 * random());
    return { x: source.x + far * Math.cos(angle), y: source.y + far * 0.6 * Math.sin(angle) };
  };
}

/** What a scattering makes of its source. The same for the same settings. */
export function scattered(
  doc: ShotDocument,
  settings: ScatterSettings,
  source: Placement,
  element: Element,
): Scattered[] {
  const random = seededRandom(settings.seed);
  const { count, size, turn, speed, mirrored, over } = settings;
  const length = elementLength(doc, element);
  const room = element.time === 'cycle' ? length : Math.max(1, over + 1);
  const aways = strewn(count, room, random);
  const placeOf = placer(doc, settings, source, random);
  const flipped = Math.round(mirrored * count);
  const order = Array.from({ length: count }, (_, i) => i).sort(() => random() - 0.5);
  return aways.map((away, i) => {
    const { x, y } = placeOf(i);
    return {
      away,
      x,
      y,
      size: mix(size.least, size.most, random()),
      turn: mix(turn.least, turn.most, random()),
      speed: rational(mix(speed.least, speed.most, random())),
      mirrored: order.indexOf(i) < flipped,
    };
  });
}

/** What of a placement tells that a hand has changed it. */
const printOfUse = ({ id: _, scatterId: __, ...rest }: Placement): string => textFingerprint(JSON.stringify(rest));

/** The settings of a copy. */
function settingsFor(source: Placement, element: Element, length: number, each: Scattered): Partial<Placement> {
  const { shift, speed } = source;
  const scaled = (value: Placement['opacity'], by: number, add: number): Placement['opacity'] =>
    'constant' in value
      ? { constant: value.constant * by + add }
      : { keys: value.keys.map((key) => ({ ...key, value: key.value * by + add })) };
  const isCycle = element.time === 'cycle';
  return {
    x: Math.round(each.x),
    y: Math.round(each.y),
    shift: { ...shift, scale: scaled(shift.scale, each.size, 0), angle: scaled(shift.angle, 1, each.turn) },
    mirror: each.mirrored ? !source.mirror : source.mirror,
    speed: rational((speed.over / speed.of) * (each.speed.over / each.speed.of)),
    ...(isCycle ? { phase: (source.phase + each.away) % length } : { start: source.start + each.away }),
  };
}

/** Lays the copies of a scattering; those that a hand has changed stay, and so many fewer are made. */
function withCopies(doc: ShotDocument, scatter: Scatter, newId: NewId): ShotDocument {
  const source = find(doc, 'placement', scatter.sourceId);
  const element = find(doc, 'element', source?.elementId);
  if (!source || !element) return doc;
  const before = findAll(doc, 'placement', Object.keys(scatter.copies));
  const touched = before.filter((each) => printOfUse(each) !== scatter.copies[each.id]);
  const free = before.filter((each) => !touched.includes(each));
  const made = scattered(doc, scatter, source, element).slice(touched.length);
  const length = elementLength(doc, element);
  const copies: Record<Id, string> = Object.fromEntries(touched.map(({ id }) => [id, scatter.copies[id]!]));
  let next = deleteEntities(
    doc,
    free.slice(made.length).map(({ id }) => id),
  );
  made.forEach((each, i) => {
    const settings = settingsFor(source, element, length, each);
    const had = free[i];
    let id = had?.id ?? null;
    if (had) next = setPlacements(next, [had.id], { ...asSource(source), ...settings, scatterId: scatter.id });
    else {
      const copied = copyPlacement(next, source.id, { ...settings, scatterId: scatter.id }, newId);
      next = copied.doc;
      id = copied.placementId;
    }
    const laid = find(next, 'placement', id);
    if (laid) copies[laid.id] = printOfUse(laid);
  });
  return putEntities(next, { ...scatter, copies });
}

/** All of a source that its copies share. */
const asSource = ({
  kind: _,
  id: __,
  elementId: ___,
  holderId: ____,
  ...rest
}: Placement): Omit<Placement, 'kind' | 'id' | 'elementId' | 'holderId'> => rest;

/** Scatters copies of a placement. The edit says which id the scattering got. */
export function layScatter(
  doc: ShotDocument,
  sourceId: Id,
  settings: ScatterSettings,
  newId: NewId,
): { doc: ShotDocument; scatterId: Id } {
  const scatter: Scatter = { kind: 'scatter', id: newId(), sourceId, ...settings, copies: {} };
  return { doc: withCopies(putEntities(doc, scatter), scatter, newId), scatterId: scatter.id };
}

/** Scatters again with other settings; copies that a hand has changed stay. */
export function relayScatter(
  doc: ShotDocument,
  scatterId: Id,
  changes: Partial<ScatterSettings>,
  newId: NewId,
): ShotDocument {
  const scatter = find(doc, 'scatter', scatterId);
  return scatter ? withCopies(doc, { ...scatter, ...changes }, newId) : doc;
}

/** How many copies of a scattering a hand has changed. */
export const touchedCopies = (doc: ShotDocument, { copies }: Scatter): number =>
  findAll(doc, 'placement', Object.keys(copies)).filter((each) => printOfUse(each) !== copies[each.id]).length;

/** Takes a scattering away with its copies; those that a hand has changed stay as uses like all others. */
export function takeScatter(doc: ShotDocument, scatterId: Id): ShotDocument {
  const scatter = find(doc, 'scatter', scatterId);
  if (!scatter) return doc;
  const all = findAll(doc, 'placement', Object.keys(scatter.copies));
  const [kept, gone] = [[] as Placement[], [] as Id[]];
  for (const each of all)
    if (printOfUse(each) === scatter.copies[each.id]) gone.push(each.id);
    else kept.push({ ...each, scatterId: null });
  return deleteEntities(putEntities(doc, ...kept), [...gone, scatterId]);
}
