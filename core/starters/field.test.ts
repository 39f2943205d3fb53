import { gridOver } from '../geometry/index.ts';
import fc from 'fast-check';
import { stretchOf } from './bolt-strike.ts';
import { discsBox, partOf, softMax, unionField, withinBall, without } from './field.ts';

const disc = fc.record({
  x: fc.integer({ min: -100, max: 100 }),
  y: fc.integer({ min: -100, max: 100 }),
  r: fc.integer({ min: 3, max: 60 }),
});
const discs = fc.array(disc, { minLength: 1, maxLength: 8 });

describe('the field of discs', () => {
  test('is, where anything is inside, the greatest depth in any disc', () => {
    fc.assert(
      fc.property(discs, (all) => {
        const grid = gridOver(discsBox(all), 4);
        const values = unionField(all, grid, 0);
        for (let i = 0; i < values.length; i += 7) {
          const x = grid.left + (i % grid.columns) * grid.cell;
          const y = grid.top + Math.floor(i / grid.columns) * grid.cell;
          const depth = Math.max(...all.map((d) => d.r - Math.hypot(d.x - x, d.y - y)));
          if (depth > 0) expect(values[i]).toBeCloseTo(depth, 9);
          else expect(values[i]!).toBeLessThanOrEqual(0);
        }
      }),
      { numRuns: 30 },
    );
  });
  test('flowing together adds a quarter of the blend at most, and never takes away', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: 0.1, max: 40, noNaN: true }),
        (a, b, blend) => {
          const soft = softMax(a, b, blend);
          expect(soft).toBe(softMax(b, a, blend));
          expect(soft).toBeGreaterThanOrEqual(Math.max(a, b));
          expect(soft).toBeLessThanOrEqual(Math.max(a, b) + blend / 4 + 1e-9);
        },
      ),
    );
  });
  test('in both, and in one without the other', () => {
    const grid = gridOver({ left: -40, right: 40, top: -40, bottom: 40 }, 4);
    const a = unionField([{ x: -10, y: 0, r: 20 }], grid, 0);
    const b = unionField([{ x: 10, y: 0, r: 20 }], grid, 0);
    const inBoth = withinBall(a, b);
    const onlyA = without(a, b);
    inBoth.forEach((v, i) => {
      expect(v > 0).toBe(a[i]! > 0 && b[i]! > 0);
      expect(onlyA[i]! > 0).toBe(a[i]! > 0 && b[i]! < 0);
    });
  });
  test('a part of a grid has the samples of the whole', () => {
    fc.assert(
      fc.property(discs, (all) => {
        const grid = gridOver({ left: -180, right: 180, top: -180, bottom: 180 }, 5);
        const part = partOf(grid, all, 10);
        const [whole, own] = [unionField(all, grid, 6), unionField(all, part.grid, 6)];
        for (let i = 0; i < own.length; i += 5) {
          const [column, row] = [i % part.grid.columns, Math.floor(i / part.grid.columns)];
          expect(own[i]).toBeCloseTo(whole[(part.row + row) * grid.columns + part.column + column]!, 6);
        }
      }),
      { numRuns: 20 },
    );
  });
});

test('a stretch of a line is as long as its share, and lies on it', () => {
  const line = [
    { x: 0, y: 0 },
    { x: 30, y: 0 },
    { x: 30, y: 40 },
  ];
  const long = (points: readonly { x: number; y: number }[]) =>
    points.slice(1).reduce((sum, p, i) => sum + Math.hypot(p.x - points[i]!.x, p.y - points[i]!.y), 0);
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 0.9, noNaN: true }),
      fc.double({ min: 0.05, max: 0.1, noNaN: true }),
      (from, more) => {
        const part = stretchOf(line, from, from + more);
        expect(long(part)).toBeCloseTo(70 * more, 6);
      },
    ),
  );
  expect(stretchOf(line, 0.25, 1)[0]).toEqual({ x: 17.5, y: 0 });
});
