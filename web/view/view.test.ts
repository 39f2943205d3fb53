import { apply, invert } from '@tallow/core/geometry';
import fc from 'fast-check';
import { fittedView, viewAbout, viewMatrix, type View } from './view.ts';

const area = { width: 900, height: 560 };
const shot = { width: 1920, height: 1080 };
const views = fc.record({
  scale: fc.double({ min: 0.1, max: 8, noNaN: true }),
  angle: fc.double({ min: -3, max: 3, noNaN: true }),
  mirrored: fc.boolean(),
  panX: fc.double({ min: -500, max: 500, noNaN: true }),
  panY: fc.double({ min: -500, max: 500, noNaN: true }),
}) satisfies fc.Arbitrary<View>;
const places = fc.record({
  x: fc.double({ min: 0, max: 900, noNaN: true }),
  y: fc.double({ min: 0, max: 560, noNaN: true }),
});

test('zooming and turning about a point leaves what lies there where it is', () => {
  fc.assert(
    fc.property(
      views,
      places,
      fc.double({ min: 0.5, max: 2, noNaN: true }),
      fc.double({ min: -1, max: 1, noNaN: true }),
      (view, at, factor, turn) => {
        const under = apply(invert(viewMatrix(view, shot, area)), at);
        const after = apply(viewMatrix(viewAbout(view, area, at, factor, turn), shot, area), under);
        expect(Math.hypot(after.x - at.x, after.y - at.y)).toBeLessThan(1e-6);
      },
    ),
  );
});

test('a mirrored picture turns the way the hand turns it', () => {
  const view: View = { scale: 1, angle: 0, mirrored: true, panX: 0, panY: 0 };
  const [a, b] = viewMatrix(viewAbout(view, area, { x: 450, y: 280 }, 1, Math.PI / 2), shot, area);
  expect([Math.round(a) + 0, Math.round(b) + 0]).toEqual([0, -1]);
});

test('the fitted view shows the whole shot with a margin, in the middle', () => {
  for (const size of [shot, { width: 1080, height: 1920 }, { width: 16, height: 16 }]) {
    const matrix = viewMatrix(fittedView(size, area), size, area);
    const [from, to] = [apply(matrix, { x: 0, y: 0 }), apply(matrix, { x: size.width, y: size.height })];
    expect(Math.min(from.x, from.y)).toBeGreaterThanOrEqual(25);
    expect(from.x + to.x).toBeCloseTo(area.width, 6);
    expect(from.y + to.y).toBeCloseTo(area.height, 6);
  }
});

test('zoom has ends, and a step past them moves nothing', () => {
  const view: View = { scale: 32, angle: 0, mirrored: false, panX: 10, panY: 10 };
  expect(viewAbout(view, area, { x: 3, y: 4 }, 2)).toEqual(view);
});
