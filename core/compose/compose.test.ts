import fc from 'fast-check';
import { constant, newShotDocument, readEntity, type AppliedLook, entitiesOf } from '../document/index.ts';
import { addLook, keyLookNumber, moveLook, newLook, setLookNumber } from '../edit/index.ts';
import { doubleAreaOf, polygonRing, ringPoints, seededIds } from '../geometry/index.ts';
import { fixture, layerOf } from '../fixture.ts';
import { LOOKS, lookKinds, waverOf } from '../looks/index.ts';
import { cutRing, resolved } from './index.ts';

const newId = seededIds(3);
const doc = newShotDocument(
  newId(),
  { name: 'T', width: 640, height: 360, rate: 24, length: 24, background: null },
  newId,
);
const look = (
  kind: AppliedLook['kind'],
  numbers: Record<string, number> = {},
  choices: Record<string, string> = {},
): AppliedLook => {
  const made = newLook(doc, kind, newId);
  return {
    ...made,
    numbers: { ...made.numbers, ...Object.fromEntries(Object.entries(numbers).map(([k, v]) => [k, constant(v)])) },
    choices: { ...made.choices, ...choices },
  };
};

test('waver closes over the cycle: at the end of the turn every point is where it began', () => {
  const point = fc.record({
    x: fc.double({ min: -900, max: 900, noNaN: true }),
    y: fc.double({ min: -900, max: 900, noNaN: true }),
  });
  fc.assert(
    fc.property(
      point,
      fc.integer({ min: 0, max: 12 }),
      fc.integer({ min: 8, max: 1200 }),
      fc.integer({ min: 0, max: 5000 }),
      (place, churn, scale, seed) => {
        const numbers = { amount: 20, scale, churn };
        const at = (share: number) => waverOf({ numbers, seed, at: share })(place);
        const [first, last] = [at(0), at(1)];
        expect(Math.hypot(first.x - last.x, first.y - last.y)).toBeLessThan(1e-6);
        // It never goes farther than its amount allows.
        const half = at(0.37);
        expect(Math.hypot(half.x - place.x, half.y - place.y)).toBeLessThan(20 * Math.SQRT2 * Math.sqrt(5));
      },
    ),
  );
});

test('a ring cut in more pieces encloses the same', () => {
  const area = (ring: Float32Array) => doubleAreaOf(ringPoints(ring, 400)) / 2;
  const ring = Float32Array.from([0, 0, -40, 30, 40, -30, 100, 0, 60, -20, 130, 20, 100, 90, 140, 70, 60, 110]);
  const cut = cutRing(ring, 9);
  expect(cut.length).toBeGreaterThan(ring.length);
  expect(area(cut)).toBeCloseTo(area(ring), -0.5);
  const square = polygonRing([
    [0, 0],
    [50, 0],
    [50, 50],
    [0, 50],
  ]);
  expect(area(cutRing(square, 5))).toBeCloseTo(2500, 1);
});

test('looks resolve on a frame: off ones and those without effect are left out, texture boils by its frames', () => {
  const glow = look('glow', { strength: 0 });
  const tint = { ...look('tint'), on: false };
  const boil = look('texture', { every: 3 }, { moves: 'boils' });
  expect(resolved([glow, tint], 0, 24)).toEqual([]);
  const at = (frame: number) => resolved([boil], frame, 24)[0]!.at;
  expect([0, 2, 3, 23].map(at)).toEqual([0, 0, 1, 7]);
  const drift = look('texture', {}, { moves: 'drifts' });
  expect(resolved([drift], 12, 24)[0]!.at).toBeCloseTo(0.5);
});

test('every kind of look is what the rules of bodies allow, and out of range it is refused', () => {
  const layer = entitiesOf(doc, 'layer')[0]!;
  for (const kind of lookKinds()) {
    expect(readEntity({ ...layer, finishes: [look(kind)] })).toHaveProperty('ok');
    const [field] = LOOKS[kind].fields;
    const wrong = look(kind, { [field!.key]: field!.max + 1 });
    expect(readEntity({ ...layer, finishes: [wrong] })).toHaveProperty('problems');
  }
});

test('looks are added, set on a frame, ordered; numbers stay in their range', () => {
  const { base, layerId } = fixture();
  const [glow, blur] = [newLook(base, 'glow', newId), newLook(base, 'blur', newId)];
  let next = addLook(addLook(base, layerId, glow), layerId, blur);
  next = setLookNumber(next, layerId, glow.id, 'radius', 0, 9999);
  expect(layerOf(next, layerId).finishes[0]!.numbers['radius']).toEqual({ constant: 400 });
  next = keyLookNumber(next, layerId, glow.id, 'radius', 4, null);
  next = setLookNumber(next, layerId, glow.id, 'radius', 8, 10);
  expect(layerOf(next, layerId).finishes[0]!.numbers['radius']).toMatchObject({ keys: [{ frame: 4 }, { frame: 8 }] });
  next = moveLook(next, layerId, glow.id, 1);
  expect(layerOf(next, layerId).finishes.map(({ kind }) => kind)).toEqual(['blur', 'glow']);
  expect(moveLook(next, layerId, glow.id, 1)).toBe(next);
});
