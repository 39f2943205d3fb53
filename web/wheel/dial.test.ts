import fc from 'fast-check';
import { BAND, bandShowing, bandTurned, framesSeen, rowsFor, timeAtX, xOf } from './band.ts';
import { APART, bundled } from './bundles.ts';
import { angleOf, frameAt, pointAt, ringsFor, WHEEL } from './dial.ts';

const dials = fc.record({
  from: fc.integer({ min: 0, max: 300 }),
  length: fc.integer({ min: 1, max: 500 }),
  closed: fc.boolean(),
  turned: fc.double({ min: -9, max: 9, noNaN: true }),
});

test('every frame is found again under the middle of its own arc, at any radius', () => {
  fc.assert(
    fc.property(dials, fc.nat(), fc.double({ min: 10, max: 170, noNaN: true }), (dial, n, radius) => {
      const frame = dial.from + (n % dial.length);
      const { x, y } = pointAt((angleOf(dial, frame) + angleOf(dial, frame + 1)) / 2, radius);
      expect(frameAt(dial, x, y)).toBe(frame);
    }),
  );
});

test('time runs clockwise from the top; a closed disc leaves no opening', () => {
  const dial = { from: 0, length: 24, closed: true, turned: 0 };
  expect(angleOf(dial, 0)).toBe(0);
  expect(angleOf(dial, 24)).toBeCloseTo(2 * Math.PI, 12);
  expect(frameAt(dial, 10, 0)).toBe(6);
  expect(frameAt(dial, 0, 10)).toBe(12);
  expect(frameAt(dial, -10, 0)).toBe(18);
});

test('in the opening of a disc that does not close, the nearer end is meant', () => {
  const dial = { from: 0, length: 10, closed: false, turned: 0 };
  expect(frameAt(dial, 0.01, -100)).toBe(0);
  expect(frameAt(dial, -0.01, -100)).toBe(9);
});

test('rings lie within their space in the order of the layers, the active one thick, none upon another', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 60 }), fc.nat(), (count, n) => {
      const layer = n % count;
      const groups = bundled(count, layer, APART.disc);
      expect(groups.flat()).toEqual(Array.from({ length: count }, (_, i) => i));
      const active = groups.findIndex((group) => group.length === 1 && group[0] === layer);
      const rings = ringsFor(groups.length, active);
      expect(rings[0]!.outer).toBe(WHEEL.ringsOuter);
      rings.forEach((ring, i) => {
        expect(ring.outer - ring.inner).toBeGreaterThanOrEqual(i === active ? 20 : 1.5);
        if (i > 0) expect(ring.outer).toBeLessThan(rings[i - 1]!.inner);
      });
      expect(rings.at(-1)!.inner).toBeGreaterThanOrEqual(WHEEL.ringsInner - 1e-9);
    }),
  );
});

test('turning the disc turns every frame with it', () => {
  const dial = { from: 0, length: 24, closed: true, turned: Math.PI / 2 };
  expect(frameAt(dial, 10, 1)).toBe(0);
  expect(angleOf(dial, 6)).toBeCloseTo(Math.PI, 12);
});

describe('the unrolled wheel', () => {
  test('shows the frame asked for, and finds every frame it shows again', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2000 }), fc.nat(), fc.nat({ max: 3000 }), (length, n, from) => {
        const frame = n % length;
        const band = bandShowing(length, from, frame);
        const x = xOf(band, frame + 0.5);
        expect(x).toBeGreaterThanOrEqual(0);
        expect(x).toBeLessThanOrEqual(BAND.width + 1e-6);
        expect(Math.floor(timeAtX(band, x))).toBe(frame);
        expect(band.from + framesSeen(length)).toBeLessThanOrEqual(length + 1e-9);
        expect(band.perFrame).toBeGreaterThanOrEqual(8);
      }),
    );
  });
  test('is turned by whole pages while the shot plays: it stands still until the playhead leaves it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2000 }), (length) => {
        let from = 0;
        let turns = 0;
        for (let frame = 0; frame < length; frame++) {
          const band = bandTurned(length, from, frame);
          if (band.from !== from) turns++;
          from = band.from;
          expect(frame).toBeGreaterThanOrEqual(from - 1e-9);
          expect(frame + 1).toBeLessThanOrEqual(from + framesSeen(length) + 1e-9);
        }
        expect(turns).toBeLessThanOrEqual(Math.ceil(length / Math.max(1, framesSeen(length) - 4)));
        expect(bandTurned(length, from, 0).from).toBe(0);
      }),
      { numRuns: 40 },
    );
  });
  test('rows lie one under the other, the active one thick, all thick enough for a pen', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.nat(), (count, n) => {
        const layer = n % count;
        const groups = bundled(count, layer, APART.band);
        const rows = rowsFor(
          groups.length,
          groups.findIndex((g) => g.length === 1 && g[0] === layer),
        );
        expect(rows.length).toBeLessThanOrEqual(APART.band + 3);
        rows.forEach((row, i) => {
          expect(row.height).toBeGreaterThanOrEqual(10);
          if (i > 0) expect(row.top).toBeGreaterThanOrEqual(rows[i - 1]!.top + rows[i - 1]!.height);
        });
      }),
    );
  });
});
