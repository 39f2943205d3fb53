import fc from 'fast-check';
import { angleOf, frameAt, pointAt, ringsFor, WHEEL } from './dial.ts';

const dials = fc.record({ length: fc.integer({ min: 1, max: 500 }), closed: fc.boolean() });

test('every frame is found again under the middle of its own arc, at any radius', () => {
  fc.assert(
    fc.property(dials, fc.nat(), fc.double({ min: 10, max: 170, noNaN: true }), (dial, n, radius) => {
      const frame = n % dial.length;
      const { x, y } = pointAt((angleOf(dial, frame) + angleOf(dial, frame + 1)) / 2, radius);
      expect(frameAt(dial, x, y)).toBe(frame);
    }),
  );
});

test('time runs clockwise from the top; a closed disc leaves no opening', () => {
  const dial = { length: 24, closed: true };
  expect(angleOf(dial, 0)).toBe(0);
  expect(angleOf(dial, 24)).toBeCloseTo(2 * Math.PI, 12);
  expect(frameAt(dial, 10, 0)).toBe(6);
  expect(frameAt(dial, 0, 10)).toBe(12);
  expect(frameAt(dial, -10, 0)).toBe(18);
});

test('in the opening of a disc that does not close, the nearer end is meant', () => {
  const dial = { length: 10, closed: false };
  expect(frameAt(dial, 0.01, -100)).toBe(0);
  expect(frameAt(dial, -0.01, -100)).toBe(9);
});

test('rings lie within their space in the order of the layers, the active one thick, none upon another', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 14 }), fc.nat(), (count, n) => {
      const active = n % count;
      const rings = ringsFor(count, active);
      expect(rings[0]!.outer).toBe(WHEEL.ringsOuter);
      rings.forEach((ring, i) => {
        expect(ring.outer - ring.inner).toBeGreaterThanOrEqual(i === active ? 20 : 1);
        if (i > 0) expect(ring.outer).toBeLessThan(rings[i - 1]!.inner);
      });
      expect(rings.at(-1)!.inner).toBeGreaterThanOrEqual(WHEEL.ringsInner - 1e-9);
    }),
  );
});
