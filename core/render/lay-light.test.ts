import fc from 'fast-check';
import { dyingAway, layLight, litPixels, lightReach, type OnPixels } from './lay-light.ts';

const [WIDTH, HEIGHT] = [70, 45];
const FAR = { left: -Infinity, top: -Infinity, right: Infinity, bottom: Infinity };
const ALL = { left: 0, top: 0, right: WIDTH, bottom: HEIGHT };

const pixel = (red: number, green: number, blue: number, alpha: number): number =>
  (alpha << 24) | (blue << 16) | (green << 8) | red;
const channelsOf = (each: number): number[] => [each & 255, (each >>> 8) & 255, (each >>> 16) & 255, each >>> 24];

/** A picture of a disc, solid but for its rim, on nothing. */
function disc(middle: number, radius: number, shade: number): Int32Array {
  const pixels = new Int32Array(WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const alpha = Math.round(255 * Math.max(0, Math.min(1, radius - Math.hypot(x + 0.5 - middle, y + 0.5 - 22))));
      pixels[y * WIDTH + x] = alpha === 0 ? 0 : pixel(shade, (shade * 7) % 256, (shade * 13) % 256, alpha);
    }
  return pixels;
}

interface Setting {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly strength: number;
  readonly dies: number;
  readonly side: number;
  readonly adds: boolean;
}
const setting: fc.Arbitrary<Setting> = fc.record({
  x: fc.double({ min: -30, max: 100, noNaN: true }),
  y: fc.double({ min: -30, max: 80, noNaN: true }),
  radius: fc.double({ min: 4, max: 120, noNaN: true }),
  strength: fc.double({ min: 0, max: 3, noNaN: true }),
  dies: fc.double({ min: 1, max: 6, noNaN: true }),
  side: fc.constantFrom(0, 0.5, 2),
  adds: fc.boolean(),
});
const COLOUR = [255, 160, 40];

function lightOf({ x, y, radius, strength, dies, side, adds }: Setting): OnPixels {
  const away = dyingAway((share) => strength * (1 - share) ** dies, COLOUR, adds, side);
  const reach = Math.ceil(lightReach({ radius, ends: away.ends }));
  const box = {
    left: Math.max(0, Math.floor(x) - reach),
    top: Math.max(0, Math.floor(y) - reach),
    right: Math.min(WIDTH, Math.ceil(x) + reach),
    bottom: Math.min(HEIGHT, Math.ceil(y) + reach),
  };
  return { x, y, radius, adds, side, ...away, box };
}

const laid = (pixels: Int32Array, light: OnPixels): Int32Array => {
  const copy = pixels.slice();
  layLight(litPixels(copy, WIDTH, HEIGHT, FAR), light);
  return copy;
};

test('without a side, each pixel is screened or added by what is left of the light, within a level; how opaque it is stays', () => {
  fc.assert(
    fc.property(setting, fc.integer({ min: 0, max: 255 }), (wanted, shade) => {
      const own = { ...wanted, side: 0 };
      const before = disc(30, 24, shade);
      const after = laid(before, lightOf(own));
      let worst = 0;
      for (let i = 0; i < before.length; i++) {
        const was = channelsOf(before[i]!);
        const is = channelsOf(after[i]!);
        if (is[3] !== was[3] || (was[3] === 0 && after[i] !== before[i])) worst = Infinity;
        const far = Math.hypot((i % WIDTH) + 0.5 - own.x, Math.floor(i / WIDTH) + 0.5 - own.y);
        const left = was[3] === 0 ? 0 : own.strength * Math.max(0, 1 - far / own.radius) ** own.dies;
        COLOUR.forEach((colour, channel) => {
          const by = left * (colour / 255);
          const exact = Math.min(255, was[channel]! + (own.adds ? 255 : 255 - was[channel]!) * by);
          worst = Math.max(worst, Math.abs(is[channel]! - exact));
        });
      }
      // What is left is looked up in 1024 steps, beside a rounding.
      expect(worst).toBeLessThanOrEqual(1 + 255 * own.strength * (own.dies / 1024));
    }),
    { numRuns: 40 },
  );
});

test('light laid square by square is the light laid pixel by pixel', () => {
  fc.assert(
    fc.property(setting, fc.integer({ min: 5, max: 40 }), (wanted, radius) => {
      const before = disc(35, radius, 90);
      const light = lightOf(wanted);
      const whole = laid(before, light);
      // No square is left out, or told by its neighbours that it has no side.
      const single = before.slice();
      const on = litPixels(single, WIDTH, HEIGHT, FAR);
      on.squares.covered.fill(1);
      layLight(on, light);
      expect(Buffer.from(whole.buffer).equals(Buffer.from(single.buffer))).toBe(true);
    }),
    { numRuns: 60 },
  );
});

test('beyond its reach a light changes nothing, and right before it a pixel', () => {
  const own = { x: 0, y: 0, radius: 60, strength: 1, dies: 1, side: 0, adds: false };
  const light = lightOf(own);
  const black = new Int32Array(WIDTH * HEIGHT).fill(pixel(0, 0, 0, 255));
  const after = laid(black, { ...light, box: ALL });
  const lit = [...after.keys()].filter((i) => after[i] !== black[i]);
  const far = lit.map((i) => Math.hypot((i % WIDTH) + 0.5, Math.floor(i / WIDTH) + 0.5));
  expect(Math.max(...far)).toBeLessThan(lightReach(light));
  expect(Math.max(...far)).toBeGreaterThan(lightReach(light) - 1.5);
});
