import fc from 'fast-check';
import type { Run } from '../document/index.ts';
import { cycleOf, fixture, layerOf, fixtureList } from '../fixture.ts';
import { find, putEntities } from '../document/index.ts';
import {
  arcsOf,
  arcsWithin,
  drawingsInOrder,
  drawingsNear,
  elementLength,
  exposureAt,
  slotsInOrder,
  timedLayers,
} from './index.ts';

const runs = fc
  .array(fc.constantFrom(null, 'a', 'b', 'c', 'd'), { minLength: 1, maxLength: 12 })
  .map((slots) => slots.map((slot, i): Run => ({ id: String(i), slot, length: 1 })));

test('slots come each once, where they first show from a run on, round the seam', () => {
  fc.assert(
    fc.property(runs, fc.nat(), (list, n) => {
      const from = n % list.length;
      const found = slotsInOrder({ runs: list }, from);
      expect(new Set(found.map(({ slot }) => slot))).toEqual(new Set(list.flatMap(({ slot }) => slot ?? [])));
      expect(new Set(found.map(({ slot }) => slot)).size).toBe(found.length);
      const way = (index: number) => (index - from + list.length) % list.length;
      for (const { slot, index } of found) {
        expect(list[index]!.slot).toBe(slot);
        list.forEach((run, i) => {
          if (run.slot === slot) expect(way(i)).toBeGreaterThanOrEqual(way(index));
        });
      }
      const ways = found.map(({ index }) => way(index));
      expect(ways).toEqual([...ways].sort((a, b) => a - b));
    }),
  );
});

const made = fixture(40);
const { layerId, elementId, stroke } = made;
const four = cycleOf(made, 4, (i) => stroke(i, 0, i, 9));
const timelineOf = (doc: typeof four) => {
  const element = find(doc, 'element', elementId)!;
  return { element, layers: timedLayers(doc, element), length: elementLength(doc, element) };
};

test('a drawing that shows in several slots comes once, those that begin elsewhere in the order of time', () => {
  const shifted = putEntities(four, { ...fixtureList(four, layerId), offset: 3 });
  const { layers, length } = timelineOf(shifted);
  const found = drawingsInOrder(shifted, layers[0], length);
  expect(found.map(({ frame }) => frame)).toEqual([...found.map(({ frame }) => frame)].sort((a, b) => a - b));
  expect(found).toHaveLength(4);
  const layer = layerOf(four, layerId);
  const [first, second] = Object.keys(layer.slots) as [string, string];
  const twice = putEntities(four, { ...layer, slots: { ...layer.slots, [second]: layer.slots[first]! } });
  expect(drawingsInOrder(twice, timelineOf(twice).layers[0], 8)).toHaveLength(3);
  expect(drawingsInOrder(four, undefined, 8)).toEqual([]);
});

test('what is nearest to a frame comes first, round the seam the short way, and what is not loaded too', () => {
  const layer = layerOf(four, layerId);
  const ids = fixtureList(four, layerId).runs.map(({ slot }) => layer.slots[slot!]!);
  const [a, b, c, d] = ids as [string, string, string, string];
  expect(drawingsNear(timelineOf(four), 0)).toEqual([a, d, b, c]);
  expect(drawingsNear(timelineOf(four), 5)).toEqual([c, d, b, a]);
  const bare = { ...four, entities: { ...four.entities } };
  Reflect.deleteProperty(bare.entities, b);
  expect(drawingsNear(timelineOf(bare), 2)).toContain(b);
});

describe('arcs of a layer', () => {
  const list = (more: object) => putEntities(four, { ...fixtureList(four, layerId), ...more });

  test('tell on every frame what shows there, whatever the offset and the repeat', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20 }), fc.constantFrom(null, 8, 4), (offset, period) => {
        const own = period === 4 ? fixtureList(four, layerId).runs.slice(0, 2) : fixtureList(four, layerId).runs;
        const doc = list({ offset: offset % (period ?? 8), period, runs: own });
        const now = { ...timelineOf(doc), length: 8 };
        const arcs = arcsOf(now, 0);
        for (let frame = 0; frame < 8; frame++) {
          const here = arcs.filter(({ from, to }) => from <= frame && frame < to);
          expect(here).toHaveLength(1);
          expect(here[0]!.run).toBe(exposureAt(now.layers[0]!.list, frame, 8)!.index);
        }
      }),
    );
  });

  test('a run over the seam lies in two', () => {
    const arcs = arcsOf(timelineOf(list({ offset: 1 })), 0);
    expect(arcs.filter(({ run }) => run === 3).map(({ from, to }) => [from, to])).toEqual([
      [7, 8],
      [0, 1],
    ]);
  });

  test('a still layer is one arc, bare slots and gaps are told, and a stretch cuts arcs to itself', () => {
    expect(arcsOf(timelineOf(list({ period: 1 })), 0)).toHaveLength(1);
    const gap = fixtureList(four, layerId).runs.map((run, i) =>
      i === 1 ? { ...run, slot: null } : i === 2 ? { ...run, slot: 'bare' } : run,
    );
    const [, empty, bare] = arcsOf(timelineOf(list({ runs: gap })), 0);
    expect(empty).toMatchObject({ drawn: false, bare: false });
    expect(bare).toMatchObject({ drawn: false, bare: true });
    expect(arcsWithin(arcsOf(timelineOf(four), 0), { from: 1, length: 4 }).map(({ from, to }) => [from, to])).toEqual([
      [1, 2],
      [2, 4],
      [4, 5],
    ]);
  });
});
