import { LEAST, MOST, scaleOver } from './room.ts';
import { WHEEL } from './dial.ts';

/** The bars, head and buttons that stand in the column beside wheel and rows. */
const BARS = 188;

test('at 1280x800 eight rows of layers and what stands round them fit under the wheel, which is nearly as large as it can be', () => {
  const scale = scaleOver(800, 74 + 8 * 26);
  expect(BARS + scale * WHEEL.size + 74 + 8 * 26).toBeLessThanOrEqual(800);
  expect(scale).toBeGreaterThan(0.9);
});

test('it is never larger than it is drawn nor too small to be read, however high the window', () => {
  expect(scaleOver(4000, 300)).toBe(MOST);
  expect(scaleOver(300, 300)).toBe(LEAST);
});
