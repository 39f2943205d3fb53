import fc from 'fast-check';
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import {
  entitiesOf,
  find,
  keysIn,
  putEntities,
  shotOf,
  valueAt,
  type Id,
  type ShotDocument,
} from '../document/index.ts';
import { occurrencesOn, planeOf } from '../assembly/index.ts';
import { polygonRing, isInside, ringPoints } from '../geometry/index.ts';
import { lightsOn } from '../render/index.ts';
import { elementLength, momentOn, placementsOf } from '../timing/index.ts';
import {
  addElement,
  addFolder,
  addLayer,
  addLightOf,
  addMark,
  addPlane,
  copyPlacement,
  cutOfPlacement,
  layScatter,
  layWash,
  makeUseOwn,
  movePlacement,
  newScattering,
  placeElement,
  rational,
  relayScatter,
  removePlacements,
  removePlane,
  setElement,
  setPlacements,
  setShot,
  splitPlacement,
  takeScatter,
  touchedCopies,
  trimEnd,
  trimStart,
  whyNotInside,
  whyNotRemovePlane,
} from './index.ts';

const made = fixture(91);
const { elementId, layerId, newId, stroke } = made;
const cycle = setShot(
  cycleOf(made, 6, (i) => stroke(i, 0, i, 9)),
  { length: 60 },
);
const once = setElement(cycle, elementId, { time: 'one-shot' });
const use = entitiesOf(cycle, 'placement')[0]!;
const turn = elementLength(cycle, find(cycle, 'element', elementId)!);
/** The element's frames that are seen over the shot, by where each stands. */
const seen = (doc: ShotDocument, from = 0, to = shotOf(doc).length) =>
  Array.from({ length: to - from }, (_, i) =>
    occurrencesOn(doc, from + i)
      .map(({ moment, matrix }) => `${moment.frame}@${matrix.map((v) => v.toFixed(3)).join()}`)
      .join(' '),
  );

describe('uses of an element', () => {
  test('are as many as one likes; the source is edited once and changes everywhere, until one is made its own', () => {
    const plane = planeOf(cycle, use.id)!;
    const second = placeElement(cycle, elementId, { planeId: plane.id }, { start: 9, x: 5, y: 6 }, newId);
    expect(placementsOf(second.doc, elementId)).toHaveLength(2);
    expect(planeOf(second.doc, second.placementId!)!.placements[0]).toBe(second.placementId);
    const own = makeUseOwn(second.doc, second.placementId!, newId);
    const other = find(own, 'placement', second.placementId)!.elementId;
    expect(other).not.toBe(elementId);
    expect(placementsOf(own, other)).toHaveLength(1);
    expect(placementsOf(own, elementId)).toHaveLength(1);
    const drawn = addMark(own, find(own, 'element', other)!.layers[0]!, 0, stroke(1, 1, 2, 2), newId);
    expect(layerOf(drawn, layerId)).toBe(layerOf(own, layerId));
    // Used once it is its own already.
    expect(makeUseOwn(own, second.placementId!, newId)).toBe(own);
  });

  test('of some layers show those of the copy once they are their own', () => {
    const { doc, placementId } = copyPlacement(cycle, use.id, { layers: [layerId] }, newId);
    const own = makeUseOwn(doc, placementId!, newId);
    const { layers, elementId: other } = find(own, 'placement', placementId)!;
    expect(layers).toEqual([find(own, 'element', other)!.layers[0]]);
  });

  test('taken away, the element stays to be used again', () => {
    const gone = removePlacements(cycle, [use.id]);
    expect(find(gone, 'element', elementId)).toBeDefined();
    expect(shotOf(gone).elements).toContain(elementId);
    expect(occurrencesOn(gone, 0)).toEqual([]);
  });

  test('go inside another element, and never inside themselves', () => {
    const { doc, elementId: holder } = addElement(cycle, 'Around', 0, newId);
    const inside = movePlacement(doc, use.id, { holderId: holder });
    expect(find(inside, 'placement', use.id)!.holderId).toBe(holder);
    expect(planeOf(inside, use.id)).toBeUndefined();
    expect(find(inside, 'element', holder)!.layers[0]).toBe(use.id);
    expect(whyNotInside(inside, holder, elementId)).toContain('lies in');
    const outer = placementsOf(inside, holder)[0]!;
    expect(movePlacement(inside, outer.id, { holderId: elementId })).toBe(inside);
    expect(
      placeElement(inside, elementId, { holderId: elementId }, { start: 0, x: 0, y: 0 }, newId).placementId,
    ).toBeNull();
    const back = movePlacement(inside, use.id, { planeId: shotOf(inside).planes[0]! });
    expect(find(back, 'placement', use.id)!.holderId).toBeNull();
    expect(find(back, 'element', holder)!.layers).not.toContain(use.id);
  });
});

describe('splitting', () => {
  test('changes nothing that is seen, whatever its speed, phase and way', () => {
    fc.assert(
      fc.property(
        fc.record({
          start: fc.integer({ min: -5, max: 20 }),
          phase: fc.nat({ max: 5 }),
          over: fc.integer({ min: 1, max: 3 }),
          repeats: fc.option(fc.integer({ min: 1, max: 4 })),
          lasts: fc.option(fc.integer({ min: 1, max: 40 })),
        }),
        fc.nat({ max: 59 }),
        ({ over, ...time }, at) => {
          const keys = [
            { frame: 0, value: 0, ease: 'straight' },
            { frame: 8, value: 90, ease: 'straight' },
            { frame: 20, value: 10, ease: 'hold' },
          ] as const;
          const shift = { ...use.shift, x: { keys: [...keys] } };
          const before = setPlacements(cycle, [use.id], { ...time, shift, speed: { over, of: 1 } });
          const { doc } = splitPlacement(before, use.id, at, newId);
          expect(seen(doc)).toEqual(seen(before));
        },
      ),
      { numRuns: 60 },
    );
  });

  test('does nothing outside of what is seen', () => {
    expect(splitPlacement(cycle, use.id, 0, newId).doc).toBe(cycle);
    expect(splitPlacement(once, use.id, turn + 4, newId).doc).toBe(once);
  });
});

describe('trimming', () => {
  test('leaves every frame that is still seen as it was', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -6, max: 12 }),
        fc.integer({ min: 1, max: 50 }),
        fc.boolean(),
        fc.nat({ max: 5 }),
        (from, to, round, phase) => {
          const before = setPlacements(round ? cycle : once, [use.id], { start: 4, phase, speed: { over: 1, of: 1 } });
          const trimmed = trimEnd(trimStart(before, use.id, from), use.id, to);
          const { start } = find(trimmed, 'placement', use.id)!;
          const [was, is] = [seen(before, 0, 50), seen(trimmed, 0, 50)];
          for (let f = Math.max(4, start); f < 50; f++) expect(is[f]).toBe(f < Math.max(start + 1, to) ? was[f] : '');
          for (let f = 0; f < Math.min(50, start); f++) expect(is[f]).toBe('');
        },
      ),
    );
  });
});

test('parted, a use goes on in its looks, and shines and is lit as it did', () => {
  const tinted = layWash(once, use.id, [0, 0.2, 0.4, 0.4, 0.2, 0], shotOf(once).swatches[0]!, 80, newId);
  const lit = addLightOf(tinted, use.id, newId);
  const { doc, placementId } = splitPlacement(lit.doc, use.id, use.start + 3, newId);
  const strength = (of: ShotDocument, id: string, since: number) =>
    valueAt(find(of, 'placement', id)!.finishes[0]!.numbers['strength']!, since, null);
  expect(strength(doc, placementId!, 0)).toBeCloseTo(strength(tinted, use.id, 3), 6);
  expect(strength(doc, placementId!, 2)).toBeCloseTo(strength(tinted, use.id, 5), 6);
  const shines = (of: ShotDocument, frame: number) =>
    lightsOn(of, frame).map(({ x, y, strength: each }) => [x, y, each]);
  for (let frame = use.start; frame < use.start + 6; frame++)
    expect(shines(doc, frame)).toEqual(shines(lit.doc, frame));
});

test('made its own, a use of some layers goes on showing copies of just these, in folders too', () => {
  const second = addLayer(cycle, elementId, 'Second', 'body', null, newId);
  const filed = addFolder(second.doc, elementId, 'Both', [layerId, second.layerId], newId).doc;
  const more = copyPlacement(filed, use.id, { layers: [second.layerId] }, newId);
  const own = makeUseOwn(more.doc, more.placementId!, newId);
  const placement = find(own, 'placement', more.placementId!)!;
  expect(placement.elementId).not.toBe(elementId);
  const [seen] = placement.layers!;
  expect(layerOf(own, seen!)).toMatchObject({ name: 'Second', elementId: placement.elementId });
});

describe('planes', () => {
  test('are taken away only when nothing stands on them, and never the last', () => {
    const only = shotOf(cycle).planes[0]!;
    expect(removePlane(cycle, only)).toBe(cycle);
    const { doc, planeId } = addPlane(cycle, 'Front', null, newId);
    expect(shotOf(doc).planes).toEqual([planeId, only]);
    const moved = movePlacement(doc, use.id, { planeId });
    expect(whyNotRemovePlane(moved, planeId)).toContain('“Front”');
    expect(removePlane(moved, only)).not.toBe(moved);
    expect(find(moved, 'plane', only)!.placements).toEqual([]);
  });
});

describe('what is cut off', () => {
  test.each([
    ['by the shot', once, { start: 55 }],
    ['by its slot', once, { lasts: 7 }],
    ['in its last turn', cycle, { start: 5 }],
    ['by both', once, { start: 52, lasts: 5 }],
    ['at half the speed', once, { start: 50, speed: { over: 1, of: 2 } }],
  ] as const)('%s is mended by each of its mends in one step', (_, base, settings) => {
    const doc = setPlacements(base, [use.id], settings);
    const cut = cutOfPlacement(doc, use.id)!;
    expect(cut.missing).toBeGreaterThan(0);
    expect(cut.mends.length).toBeGreaterThan(1);
    for (const { label, edit } of cut.mends) {
      const mended = cutOfPlacement(edit(doc), use.id);
      // A longer slot may reach beyond the shot: that is another end.
      expect({ label, left: mended?.by === cut.by ? mended.missing : 0 }).toEqual({ label, left: 0 });
    }
  });
  test('nothing is said where all of it is seen', () => {
    expect(cutOfPlacement(once, use.id)).toBeNull();
  });
});

describe('scattered copies', () => {
  const copiesOf = (doc: ShotDocument, id: Id) => Object.keys(find(doc, 'scatter', id)!.copies);
  test('are never two alike in time, nor in step with what they are copied from', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 11 }), fc.nat(), fc.boolean(), (count, seed, round) => {
        const base = round ? cycle : once;
        const { doc, scatterId } = layScatter(base, use.id, { ...newScattering(200, seed), count }, newId);
        const all = [use.id, ...copiesOf(doc, scatterId)].map((id) => find(doc, 'placement', id)!);
        expect(all).toHaveLength(count + 1);
        const times = all.map((each) => {
          const element = find(doc, 'element', elementId)!;
          return round ? momentOn(each, element, turn, 40)!.frame : each.start;
        });
        expect(new Set(times).size).toBe(count + 1);
      }),
      { numRuns: 40 },
    );
  });

  test('lie in a region, with sizes, turns and mirrors within their ranges, the same for the same seed', () => {
    const region = polygonRing([[100, 100], [400, 120], [380, 300], [120, 280]]); // prettier-ignore
    const settings = { ...newScattering(10, 5), count: 12, region, size: { least: 0.5, most: 0.6 }, mirrored: 0.5 };
    const places = [0, 1].map(() => {
      const { doc, scatterId } = layScatter(cycle, use.id, settings, newId);
      return copiesOf(doc, scatterId).map((id) => find(doc, 'placement', id)!);
    });
    const [one, two] = places as [(typeof places)[0], (typeof places)[0]];
    expect(one.map(({ x, y, phase, mirror }) => [x, y, phase, mirror])).toEqual(
      two.map(({ x, y, phase, mirror }) => [x, y, phase, mirror]),
    );
    expect(one.filter(({ mirror }) => mirror)).toHaveLength(6);
    const outline = ringPoints(region, 4);
    for (const { x, y, shift } of one) {
      // Rounded to whole px it may lie half a px outside.
      expect(isInside(outline, { x, y }) || isInside(outline, { x: x + 1, y: y + 1 })).toBe(true);
      const size = valueAt(shift.scale, 0, null);
      expect(size).toBeGreaterThanOrEqual(0.5);
      expect(size).toBeLessThanOrEqual(0.6);
    }
  });

  test('touched by hand they stay when the seed changes, and when all are taken away', () => {
    const laid = layScatter(cycle, use.id, { ...newScattering(100), count: 4 }, newId);
    const [first] = copiesOf(laid.doc, laid.scatterId);
    const touched = setPlacements(laid.doc, [first!], { x: 777 });
    const scatter = find(touched, 'scatter', laid.scatterId)!;
    expect(touchedCopies(touched, scatter)).toBe(1);
    const again = relayScatter(touched, laid.scatterId, { seed: 99 }, newId);
    expect(find(again, 'placement', first)!.x).toBe(777);
    expect(placementsOf(again, elementId)).toHaveLength(5);
    const fewer = relayScatter(again, laid.scatterId, { count: 2 }, newId);
    expect(placementsOf(fewer, elementId)).toHaveLength(3);
    const gone = takeScatter(fewer, laid.scatterId);
    expect(
      placementsOf(gone, elementId)
        .map(({ id }) => id)
        .sort(),
    ).toEqual([use.id, first].sort());
    expect(find(gone, 'placement', first)!.scatterId).toBeNull();
  });

  test('follow a source that moves: its keys are theirs, scaled', () => {
    const keys = [
      { frame: 0, value: 1, ease: 'soft' },
      { frame: 9, value: 2, ease: 'soft' },
    ] as const;
    const growing = setPlacements(cycle, [use.id], { shift: { ...use.shift, scale: { keys: [...keys] } } });
    const { doc, scatterId } = layScatter(growing, use.id, { ...newScattering(90), count: 2 }, newId);
    for (const id of copiesOf(doc, scatterId)) {
      const [a, b] = keysIn(find(doc, 'placement', id)!.shift.scale);
      expect(b!.value / a!.value).toBeCloseTo(2, 6);
    }
  });

  test('speeds are of small whole numbers', () => {
    expect([0.5, 1, 1.5, 0.34].map(rational)).toEqual([
      { over: 1, of: 2 },
      { over: 1, of: 1 },
      { over: 3, of: 2 },
      { over: 1, of: 3 },
    ]);
    expect(putEntities(cycle)).toEqual(cycle);
  });
});
