import fc from 'fast-check';
import { fixture } from '../fixture.ts';
import { entitiesOf, find, newPlane, putEntities, shotOf, type Shake, type ShotDocument } from '../document/index.ts';
import { addShake, anchorPlace, movedBy, movePlaces, setCamera, setCameraKey, setDepthOfShot } from '../edit/index.ts';
import { apply, IDENTITY, invert, multiply, seededIds } from '../geometry/index.ts';
import { occurrencesOn } from './occurrences.ts';
import { airAt, depthMatrix, depthOfScale, depthScale, planeMatrix } from './planes.ts';
import { shakenBy, shakeOn, NO_SHAKE } from './shake.ts';

const { base, elementId } = fixture();
const newId = seededIds(90);
const use = entitiesOf(base, 'placement').find((each) => each.elementId === elementId)!;
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** The shot with its one plane at a depth. */
const at = (depth: number, doc: ShotDocument = base): ShotDocument =>
  putEntities(doc, { ...entitiesOf(doc, 'plane')[0]!, depth });
/** The shot with a camera that is moved, zoomed and turned. */
const looking = (x: number, y: number, zoom: number, angle: number): ShotDocument =>
  (
    [
      ['x', x],
      ['y', y],
      ['zoom', zoom],
      ['angle', angle],
    ] as const
  ).reduce((doc, [which, value]) => setCamera(doc, which, 0, value), base);

test('depth 0 without a camera changes nothing, to the bit', () => {
  expect(depthMatrix(base, 0, 7)).toBe(IDENTITY);
  expect(occurrencesOn(base, 0)[0]!.matrix).toEqual([1, 0, 0, 1, use.x, use.y]);
});

test('a depth and how much smaller it is seen are each other’s inverse; the focal length away is half as large', () => {
  fc.assert(
    fc.property(number(100, 20_000), number(-0.9, 50), (focal, share) => {
      const depth = focal * share;
      expect(depthOfScale(focal, depthScale(focal, depth))).toBeCloseTo(depth, 4);
    }),
  );
  expect(depthScale(1000, 1000)).toBe(0.5);
  expect(depthScale(1000, -500)).toBe(2);
  // Behind the eye is as near as can be.
  expect(depthScale(1000, -1000)).toBe(20);
});

test('planes are seen about the middle of the picture, and shift the less the farther they are', () => {
  const { width, height } = shotOf(base);
  const middle = { x: width / 2, y: height / 2 };
  expect(apply(planeMatrix(at(width), use.id, 0), middle)).toEqual(middle);
  const far = apply(planeMatrix(at(width), use.id, 0), { x: middle.x + 100, y: middle.y });
  expect(far.x).toBeCloseTo(middle.x + 50, 9);
  // The camera goes right: what is on the picture plane goes left by as much, what is far by half.
  const moved = looking(80, 0, 1, 0);
  expect(apply(planeMatrix(moved, use.id, 0), middle).x).toBeCloseTo(middle.x - 80, 9);
  expect(apply(planeMatrix(at(width, moved), use.id, 0), middle).x).toBeCloseTo(middle.x - 40, 9);
});

test('what the camera looks at is in the middle, upright where the camera is turned with it', () => {
  fc.assert(
    fc.property(number(-400, 400), number(-400, 400), number(0.2, 5), number(-3, 3), (x, y, zoom, angle) => {
      const doc = looking(x, y, zoom, angle);
      const { width, height } = shotOf(doc);
      const matrix = depthMatrix(doc, 0, 0);
      const seen = apply(matrix, { x: width / 2 + x, y: height / 2 + y });
      expect(Math.hypot(seen.x - width / 2, seen.y - height / 2)).toBeLessThan(1e-6);
      const along = apply(matrix, { x: width / 2 + x + Math.cos(angle), y: height / 2 + y + Math.sin(angle) });
      expect(along.x - seen.x).toBeCloseTo(zoom, 6);
      expect(along.y - seen.y).toBeCloseTo(0, 6);
      const [a, b, c, d] = multiply(matrix, invert(matrix));
      for (const [is, wanted] of [
        [a, 1],
        [b, 0],
        [c, 0],
        [d, 1],
      ] as const)
        expect(is).toBeCloseTo(wanted, 9);
    }),
  );
});

test('the camera goes over time, is left at rest for drawing, and goes back to nothing', () => {
  let doc = setCameraKey(base, 'x', 0, 'straight');
  doc = setCamera(doc, 'x', 10, 100);
  expect(depthMatrix(doc, 0, 5)[4]).toBeCloseTo(-50, 9);
  expect(depthMatrix(doc, 0, 5, { still: true })).toBe(IDENTITY);
  expect(depthMatrix(doc, 0, 0)).toBe(IDENTITY);
});

test('a use on any plane, moved by what is seen, is seen to have gone exactly so far', () => {
  fc.assert(
    fc.property(number(-500, 5000), number(-300, 300), number(-300, 300), number(-1, 1), (depth, dx, dy, angle) => {
      const doc = at(depth, looking(30, -20, 1.4, angle));
      const before = anchorPlace(doc, find(doc, 'placement', use.id)!, 0);
      const next = movePlaces(doc, [use.id], 0, movedBy(dx, dy));
      const after = anchorPlace(next, find(next, 'placement', use.id)!, 0);
      expect(after.x - before.x).toBeCloseTo(dx, 6);
      expect(after.y - before.y).toBeCloseTo(dy, 6);
    }),
  );
});

test('what stands on a hidden plane does not show', () => {
  const hidden = putEntities(base, { ...entitiesOf(base, 'plane')[0]!, visible: false });
  expect(occurrencesOn(base, 0)).toHaveLength(1);
  expect(occurrencesOn(hidden, 0)).toHaveLength(0);
});

test('air: none at the picture and nearer, half of it at its reach, never all of it', () => {
  const { air } = shotOf(setDepthOfShot(base, { air: { swatch: shotOf(base).swatches[0]!, reach: 400 } }));
  expect([-100, 0, 400, 800].map((depth) => airAt({ air }, depth))).toEqual([0, 0, 0.5, 0.75]);
  expect(airAt({ air }, 1e5)).toBeLessThanOrEqual(1);
  expect(airAt({ air: null }, 400)).toBe(0);
  expect(newPlane('Far', 400, newId)).toMatchObject({ depth: 400, visible: true, placements: [] });
});

describe('shaking', () => {
  const shake: Shake = { id: newId(), from: 12, lasts: 24, amount: 40, turn: 0.05, frequency: 7, seed: 5 };
  test('is nothing before the hit and after it has died down, and never more than it may be', () => {
    expect(shakeOn(shake, 11, 24)).toEqual(NO_SHAKE);
    expect(shakeOn(shake, 36, 24)).toEqual(NO_SHAKE);
    fc.assert(
      fc.property(fc.integer({ min: 12, max: 35 }), fc.integer({ min: 0, max: 1e6 }), (frame, seed) => {
        const left = (1 - (frame - 12) / 24) ** 2;
        const { x, y, angle } = shakeOn({ ...shake, seed }, frame, 24);
        expect(Math.max(Math.abs(x), Math.abs(y))).toBeLessThanOrEqual(40 * left + 1e-9);
        expect(Math.abs(angle)).toBeLessThanOrEqual(0.05 * left + 1e-9);
      }),
    );
  });
  test('is the same for the same seed, another for another, and shakings add up', () => {
    expect(shakeOn(shake, 15, 24)).toEqual(shakeOn({ ...shake }, 15, 24));
    expect(shakeOn(shake, 15, 24)).not.toEqual(shakeOn({ ...shake, seed: 6 }, 15, 24));
    const twice = shakenBy([shake, shake], 15, 24);
    expect(twice.x).toBeCloseTo(2 * shakeOn(shake, 15, 24).x, 9);
  });
  test('moves the picture and leaves it as it was', () => {
    const { doc } = addShake(base, 4, 3, newId);
    expect(depthMatrix(doc, 0, 3)).toBe(IDENTITY);
    expect(depthMatrix(doc, 0, 6)).not.toEqual(IDENTITY);
    expect(depthMatrix(doc, 0, 40)).toBe(IDENTITY);
  });
});
