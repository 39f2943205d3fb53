import fc from 'fast-check';
import { coveredIn } from './covered.ts';
import type { Surface } from './surface.ts';

/** A surface with single covered pixels. */
function withPixels(width: number, height: number, at: readonly (readonly [number, number])[]): Surface {
  const data = new Uint8ClampedArray(width * height * 4);
  for (const [x, y] of at) data[(y * width + x) * 4 + 3] = 1;
  return { width, height, picture: {}, context: { getImageData: () => ({ data }) } as unknown as Surface['context'] };
}

test('a box with a covered pixel in it is never called empty, and one far from all of them never covered', () => {
  const side = fc.integer({ min: 1, max: 60 });
  const end = fc.double({ min: -20, max: 80, noNaN: true });
  fc.assert(
    fc.property(side, side, fc.array(fc.tuple(fc.nat(59), fc.nat(59))), end, end, end, end, (w, h, all, a, b, c, d) => {
      const pixels = all.filter(([x, y]) => x < w && y < h);
      const box = { left: Math.min(a, b), right: Math.max(a, b), top: Math.min(c, d), bottom: Math.max(c, d) };
      const meets = (by: number) =>
        pixels.some(
          ([x, y]) => x + 1 > box.left - by && x < box.right + by && y + 1 > box.top - by && y < box.bottom + by,
        );
      const told = coveredIn(withPixels(w, h, pixels))(box);
      if (meets(0) && box.left < box.right && box.top < box.bottom) expect(told).toBe(true);
      if (!meets(4)) expect(told).toBe(false);
    }),
  );
});
