/** A use of an element in time: what it shows on which frame of what holds it, before it begins and after it ended. */
import fc from 'fast-check';
import { cycleOf, fixture } from '../fixture.ts';
import {
  entitiesOf,
  find,
  newPlacement,
  putEntities,
  shotOf,
  type Element,
  type Placement,
  type Plane,
  type ShotDocument,
} from '../document/index.ts';
import {
  bounced,
  elementLength,
  labelOfUse,
  momentOn,
  nameOfUse,
  outerFrame,
  placedElements,
  placementFrame,
  placementsOf,
  RateMeter,
  seenFrames,
  timesShown,
  turnsIn,
  usedElements,
} from './index.ts';

const base = fixture(4);
const { newId } = base;
const CYCLE = { time: 'cycle' } as const;
const ONCE = { time: 'open' } as const;

const use = (more: Partial<Placement> = {}): Placement => ({
  ...newPlacement('e', { start: 0, x: 0, y: 0 }, newId),
  ...more,
});
const shownOn = (placement: Placement, element: Pick<Element, 'time'>, length: number, frames: readonly number[]) =>
  frames.map((frame) => placementFrame(placement, element, length, frame));

describe('a cycle', () => {
  test('comes round for as long as there is room, from the frame it begins with', () => {
    const turning = use({ start: 3, phase: 2, before: 'nothing' });
    expect(shownOn(turning, CYCLE, 4, [2, 3, 4, 5, 6, 7])).toEqual([null, 2, 3, 0, 1, 2]);
    expect(momentOn(turning, CYCLE, 4, 9)).toEqual({ frame: 0, turn: 2, since: 6 });
    expect(seenFrames(turning, CYCLE, 4)).toBe(Infinity);
  });

  test('twice as fast it leaves frames out, half as fast each comes twice', () => {
    const frames = [0, 1, 2, 3, 4, 5];
    expect(shownOn(use({ speed: { over: 2, of: 1 } }), CYCLE, 6, frames)).toEqual([0, 2, 4, 0, 2, 4]);
    expect(shownOn(use({ speed: { over: 1, of: 2 } }), CYCLE, 6, frames)).toEqual([0, 0, 1, 1, 2, 2]);
  });

  test('so many turns last so many frames at its speed, and the last frame of the last turn stays if it should', () => {
    const twice = use({ start: 1, repeats: 2, speed: { over: 1, of: 3 }, after: 'last' });
    expect(seenFrames(twice, CYCLE, 4)).toBe(24);
    expect(shownOn(twice, CYCLE, 4, [24, 25, 90])).toEqual([3, 3, 3]);
    expect(momentOn(twice, CYCLE, 4, 90)?.since).toBe(89);
    expect(shownOn({ ...twice, after: 'first' }, CYCLE, 4, [24, 25])).toEqual([3, 0]);
    expect(shownOn({ ...twice, after: 'nothing' }, CYCLE, 4, [24, 25])).toEqual([3, null]);
  });

  test('before it begins it shows nothing, its first or its last frame; what loops for good has its turn’s last', () => {
    const on = (before: Placement['before'], more: Partial<Placement> = {}) =>
      placementFrame(use({ start: 5, before, ...more }), CYCLE, 4, 1);
    expect([on('nothing'), on('first'), on('last')]).toEqual([null, 0, 3]);
    expect(on('last', { speed: { over: 1, of: 2 } })).toBe(3);
    expect(on('last', { lasts: 2 })).toBe(1);
    expect(on('first', { lasts: 0 })).toBeNull();
  });
});

describe('a one-shot', () => {
  test('ends with its last frame, earlier where it begins later in itself', () => {
    expect(seenFrames(use(), ONCE, 6)).toBe(6);
    expect(seenFrames(use({ phase: 4 }), ONCE, 6)).toBe(2);
    expect(seenFrames(use({ phase: 9 }), ONCE, 6)).toBe(0);
    expect(seenFrames(use({ speed: { over: 4, of: 1 } }), ONCE, 6)).toBe(2);
    expect(shownOn(use({ phase: 4, after: 'last' }), ONCE, 6, [0, 1, 2])).toEqual([4, 5, 5]);
    expect(turnsIn(use(), ONCE, 6, 100)).toBe(1);
  });
});

describe('the way back, from a frame of the element to one of its holder', () => {
  const speeds = fc.record({ over: fc.integer({ min: 1, max: 3 }), of: fc.integer({ min: 1, max: 3 }) });
  test('is the first that shows it, or one after it where the speed leaps over it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.nat({ max: 8 }),
        fc.nat({ max: 8 }),
        fc.nat({ max: 3 }),
        fc.integer({ min: -5, max: 20 }),
        speeds,
        (length, nth, begins, turn, start, speed) => {
          const [frame, phase] = [nth % length, begins % length];
          const placement = use({ start, phase, speed });
          const there = outerFrame(placement, CYCLE, length, frame, turn);
          expect(there).toBeGreaterThanOrEqual(start);
          // Frames of the element as they go by, turns added up.
          const gone = (outer: number) => Math.floor(((outer - start) * speed.over) / speed.of) + phase;
          const wanted = turn * length + frame < phase ? turn * length + frame + length : turn * length + frame;
          expect(gone(there)).toBeGreaterThanOrEqual(wanted);
          if (there > start) expect(gone(there - 1)).toBeLessThan(wanted);
        },
      ),
    );
  });
  test('of a one-shot, what lies before the frame it begins with is its beginning', () => {
    expect(outerFrame(use({ start: 7, phase: 3 }), ONCE, 6, 1, 0)).toBe(7);
    expect(outerFrame(use({ start: 7, phase: 3, speed: { over: 1, of: 2 } }), ONCE, 6, 5, 0)).toBe(11);
  });
});

test('turns are counted by those that begin before the holder ends', () => {
  expect([7, 8, 9, 12].map((outer) => turnsIn(use(), CYCLE, 4, outer))).toEqual([2, 2, 3, 3]);
  expect(turnsIn(use({ start: 20 }), CYCLE, 4, 12)).toBe(1);
  expect(turnsIn(use({ repeats: 2 }), CYCLE, 4, 100)).toBe(2);
  expect(turnsIn(use({ phase: 3 }), CYCLE, 4, 2)).toBe(2);
});

describe('in a shot', () => {
  const cycle = cycleOf(base, 2, () => base.stroke(0, 0, 10, 10));
  const inner = find(cycle, 'element', base.elementId)!;
  const plane = find(cycle, 'plane', shotOf(cycle).planes[0])!;
  const first = find(cycle, 'placement', plane.placements[0])!;
  const holder: Element = { ...inner, id: newId(), name: 'Holder', layers: [], time: 'open' };
  const within = (more: Partial<Placement>): { doc: ShotDocument; length: number } => {
    const inside = use({ elementId: inner.id, holderId: holder.id, ...more });
    const doc = putEntities(cycle, { ...holder, layers: [inside.id] }, inside);
    return { doc, length: elementLength(doc, find(doc, 'element', holder.id)!) };
  };

  test('an element is as long as what lies in it: a cycle counts with one turn, or as many as are asked for', () => {
    expect(within({}).length).toBe(4);
    expect(within({ start: 3 }).length).toBe(7);
    expect(within({ repeats: 3 }).length).toBe(12);
    expect(within({ repeats: 3, lasts: 5 }).length).toBe(5);
    expect(within({ speed: { over: 1, of: 2 } }).length).toBe(8);
    expect(within({ speed: { over: 2, of: 1 } }).length).toBe(2);
  });

  test('elements inside others are seen, too, each once, and one that is placed nowhere is not', () => {
    const { doc } = within({});
    expect(usedElements(doc).map(({ id }) => id)).toEqual([inner.id]);
    const seen = use({ elementId: holder.id });
    const both = putEntities(doc, seen, { ...plane, placements: [seen.id, ...plane.placements] });
    expect(usedElements(both).map(({ id }) => id)).toEqual([holder.id, inner.id]);
    expect(placedElements(both).map(({ placement }) => placement.id)).toEqual([seen.id, first.id]);
    const dangling: Plane = { ...plane, placements: ['gone', ...plane.placements] };
    expect(placedElements(putEntities(both, dangling)).map(({ placement }) => placement.id)).toEqual([first.id]);
  });

  test('uses are told apart by how they lie, unless they have names', () => {
    const [under, over, named] = [use(), use(), use({ name: 'Sparks' })].map((each) => ({
      ...each,
      elementId: inner.id,
    })) as [Placement, Placement, Placement];
    const doc = putEntities(cycle, named, over, under, {
      ...plane,
      placements: [over.id, first.id, named.id, under.id],
    });
    expect(placementsOf(doc, inner.id).map(({ id }) => id)).toEqual([over.id, first.id, named.id, under.id]);
    expect(placementsOf(doc, 'another')).toEqual([]);
    expect([over, first, named, under].map((each) => labelOfUse(doc, each))).toEqual([
      `${inner.name} · 1 of 4`,
      `${inner.name} · 2 of 4`,
      'Sparks',
      `${inner.name} · 4 of 4`,
    ]);
    expect(labelOfUse(cycle, first)).toBe(inner.name);
    expect(nameOfUse(cycle, { name: null, elementId: 'gone' })).toBe('');
    const [a, b] = [use({ elementId: inner.id }), use({ elementId: inner.id })].sort((x, y) => (x.id < y.id ? -1 : 1));
    const unplaced = putEntities(cycle, b!, a!);
    expect(placementsOf(unplaced, inner.id).map(({ id }) => id)).toEqual([first.id, a!.id, b!.id]);
  });

  test('a drawing is counted as often as it is shown', () => {
    const list = entitiesOf(cycle, 'runlist').find(({ runs }) => runs.length === 2)!;
    const [one, two] = list.runs;
    const thrice = { ...list, runs: [one!, two!, { ...one!, id: 'x' }, { ...one!, id: 'y' }] };
    expect([one, two].map((run) => timesShown(thrice, run!.slot!))).toEqual([3, 1]);
    expect(timesShown(thrice, 'none')).toBe(0);
  });
});

test('to and fro each end comes once a turn', () => {
  expect(Array.from({ length: 9 }, (_, place) => bounced(place, 4))).toEqual([0, 1, 2, 3, 2, 1, 0, 1, 2]);
  expect([0, 1, 5].map((place) => bounced(place, 1))).toEqual([0, 0, 0]);
  expect([0, 1, 2, 3].map((place) => bounced(place, 2))).toEqual([0, 1, 0, 1]);
});

test('the rate goes by the last second and a half, of two frames at least', () => {
  const meter = new RateMeter();
  meter.note(1000);
  expect(meter.rate()).toBeNull();
  meter.note(1000);
  expect(meter.rate()).toBeNull();
  for (let time = 1100; time <= 3000; time += 100) meter.note(time);
  expect(meter.rate()).toBeCloseTo(10, 6);
  // Slower from now on: two seconds later nothing of before is left.
  for (let time = 3250; time <= 6000; time += 250) meter.note(time);
  expect(meter.rate()).toBeCloseTo(4, 6);
  meter.note(20_000);
  expect(meter.rate()).toBeCloseTo(1 / 14, 6);
});
