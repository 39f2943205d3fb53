import { MIN, MAX, scaleOver } from './room.ts';
import { apartWithin, BAND, rowsFor } from './band.ts';
import { bundled } from './bundles.ts';
import { WHEEL } from './dial.ts';

/** The bars, head and buttons that stand in the column beside wheel and rows. */
const BARS = 188;

test('at 1280x800 eight rows of layers and what stands round them fit under the wheel, which is nearly as large as it can be', () => {
  const scale = scaleOver(800, 74 + 8 * 26);
  expect(BARS + scale * WHEEL.size + 74 + 8 * 26).toBeLessThanOrEqual(800);
  expect(scale).toBeGreaterThan(0.9);
});

test('it is never larger than it is drawn nor too small to be read, however high the window', () => {
  expect(scaleOver(4000, 300)).toBe(MAX);
  expect(scaleOver(300, 300)).toBe(MIN);
});

test('unrolled in a small room, what is left of the layers fits into it, bundles and all', () => {
  for (let height = 130; height < 340; height += 7) {
    const groups = bundled(12, 6, apartWithin(height));
    const active = groups.findIndex((group) => group.length === 1 && group[0] === 6);
    const last = rowsFor(groups.length, active).at(-1)!;
    expect(groups.flat()).toHaveLength(12);
    // The active layer and a bundle on each side are always there.
    const min = BAND.ruler + BAND.pictures + 6 + BAND.active + 2 * BAND.row + 3 * BAND.gap;
    expect(last.top + last.height).toBeLessThanOrEqual(Math.max(height, min));
  }
});
