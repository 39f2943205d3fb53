/** Light, looked at in pixels: known answers within 2 of 255; how opaque things are stays as it was. */
import fc from 'fast-check';
import { shine, type Falling } from '@tallow/core/render';
import { IDENTITY } from '@tallow/core/geometry';
import { makeSurface } from '../render/canvas.ts';

const SIZE = 64;
const light = (more: Partial<Falling> = {}): Falling => ({
  id: '',
  x: 32,
  y: 32,
  radius: 40,
  colour: '#ff8000',
  strength: 1,
  dies: 1,
  side: 0,
  blend: 'screen',
  ...more,
});

/** A thing of one colour over part of the surface, lit. Gives the four bytes of a pixel. */
function lit(colour: string, lights: readonly Falling[], [left, right] = [0, SIZE] as readonly [number, number]) {
  const thing = makeSurface(SIZE, SIZE);
  thing.context.fillStyle = colour;
  thing.context.fillRect(left, 0, right - left, SIZE);
  shine(thing, lights, IDENTITY);
  const { data } = thing.context.getImageData(0, 0, SIZE, SIZE);
  return (x: number, y: number): number[] => [...data.slice((y * SIZE + x) * 4, (y * SIZE + x) * 4 + 4)];
}
const expectNear = (found: readonly number[], wanted: readonly number[]): void => {
  found.forEach((v, i) => {
    expect(Math.abs(v - wanted[i]!)).toBeLessThanOrEqual(2);
  });
};

test('in its middle it screens its colour, half way to its rim half of it, and nothing beyond', () => {
  const at = lit('#202020', [light({ radius: 20 })]);
  const screened = (share: number) => [255, 128, 0].map((c) => 32 + (c * share * (255 - 32)) / 255);
  // The middle of the pixel is a little off the middle of the light.
  const off = 1 - Math.SQRT1_2 / 20;
  expectNear(at(32, 32), [...screened(off), 255]);
  expectNear(at(42, 32), [...screened(1 - 10.5 / 20), 255]);
  expect(at(60, 32)).toEqual([32, 32, 32, 255]);
});

test('added it adds, and a strength of 2 is twice as much', () => {
  const once = lit('#101010', [light({ blend: 'add', colour: '#202020', radius: 4000 })]);
  expectNear(once(32, 32), [48, 48, 48, 255]);
  const twice = lit('#101010', [light({ blend: 'add', colour: '#202020', radius: 4000, strength: 2 })]);
  expectNear(twice(32, 32), [80, 80, 80, 255]);
});

test('it falls inside what is there, and leaves how opaque that is', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 255 }),
      fc.constantFrom('screen' as const, 'add' as const),
      (alpha, blend) => {
        const colour = `rgba(90, 60, 30, ${alpha / 255})`;
        const at = lit(colour, [light({ blend, side: 1 }), light({ blend, x: 10 })], [0, 40]);
        const plain = lit(colour, [], [0, 40]);
        for (const [x, y] of [
          [5, 5],
          [32, 32],
          [39, 20],
          [50, 32],
        ] as const)
          // prettier-ignore
          expect(Math.abs(at(x, y)[3]! - plain(x, y)[3]!)).toBeLessThanOrEqual(2);
        expect(at(50, 32)).toEqual([0, 0, 0, 0]);
      },
    ),
    { numRuns: 30 },
  );
});

test('the side towards it is brighter than the side away from it', () => {
  // The light stands right of a band: both sides of it are as far from a second light, but one is nearer to this one.
  const at = lit('#303030', [light({ x: 80, radius: 4000, strength: 0.4, side: 1 })], [20, 50]);
  const [towards, away] = [at(49, 32)[0]!, at(24, 32)[0]!];
  expect(towards).toBeGreaterThan(away + 30);
  const even = lit('#303030', [light({ x: 80, radius: 4000, strength: 0.4 })], [20, 50]);
  expectNear(even(49, 32), even(24, 32));
});
