import fc from 'fast-check';
import { doubleAreaOf, polygonRing, ringPoints } from '../geometry/index.ts';
import { toneShapes, type ToneSettings } from './index.ts';

const SETTINGS: ToneSettings = { depth: 90, shade: 0.6, light: 0.5, steps: 2, rim: 4 };

/** A body of lobes: a circle whose radius goes in and out. */
const lobed = (cx: number, cy: number, radius: number, lobes: number, phase = 0): Float32Array =>
  polygonRing(
    Array.from({ length: 160 }, (_, i) => {
      const turn = (i / 160) * 2 * Math.PI;
      const r = radius * (1 + 0.12 * Math.cos(lobes * turn + phase));
      return [cx + r * Math.cos(turn), cy + r * Math.sin(turn)] as [number, number];
    }),
  );

const areaOf = (rings: readonly Float32Array[] = []): number =>
  Math.abs(rings.reduce((sum, r) => sum + doubleAreaOf(ringPoints(r, 6)) / 2, 0));
/** The centre of an area (even-odd, holes winding the other way). */
const middleOf = (rings: readonly Float32Array[] = []) => {
  let [area, x, y] = [0, 0, 0];
  for (const ring of rings) {
    const points = ringPoints(ring, 6);
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length]!;
      const cross = p.x * q.y - q.x * p.y;
      area += cross;
      x += (p.x + q.x) * cross;
      y += (p.y + q.y) * cross;
    });
  }
  return { x: x / (3 * area), y: y / (3 * area) };
};

test('shade lies away from the light and light towards it, whichever way it comes', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 23 }), (step) => {
      const light = step * 15;
      const {
        shade,
        light: lit,
        deep,
      } = toneShapes({
        rings: [lobed(0, 0, 160, 6)],
        details: [],
        settings: SETTINGS,
        light,
      });
      const toward = { x: Math.cos((light * Math.PI) / 180), y: Math.sin((light * Math.PI) / 180) };
      const along = (p: { x: number; y: number }) => p.x * toward.x + p.y * toward.y;
      expect(along(middleOf(shade))).toBeLessThan(-40);
      expect(along(middleOf(lit))).toBeGreaterThan(40);
      // The second step lies in the first.
      expect(areaOf(deep)).toBeLessThan(areaOf(shade));
      expect(areaOf(deep)).toBeGreaterThan(0);
    }),
    { numRuns: 12 },
  );
});

test('tone stays off the rim, within the body, and there is more of it the more is asked for', () => {
  const rings = [lobed(0, 0, 160, 8)];
  const cut = (settings: Partial<ToneSettings>) =>
    toneShapes({ rings, details: [], settings: { ...SETTINGS, ...settings }, light: 240 });
  const areas = [0.2, 0.5, 0.8].map((shade) => areaOf(cut({ shade }).shade));
  expect(areas[0]).toBeLessThan(areas[1]!);
  expect(areas[1]).toBeLessThan(areas[2]!);
  for (const ring of cut({ rim: 10 }).shade!)
    for (const { x, y } of ringPoints(ring, 4)) {
      const turn = Math.atan2(y, x);
      const edge = 160 * (1 + 0.12 * Math.cos(8 * turn));
      expect(Math.hypot(x, y)).toBeLessThan(edge - 4);
    }
  expect(cut({ shade: 0, light: 0 })).toEqual({});
});

test('tone is steady: as the body changes a little from drawing to drawing, so does it', () => {
  // Six lobes roll round by a hundredth of a turn: area and place of the tone change by less than a few per cent.
  const drawn = Array.from({ length: 8 }, (_, i) =>
    toneShapes({
      rings: [lobed(i * 1.5, -i, 150 + i, 6, i * 0.06)],
      details: [],
      settings: SETTINGS,
      light: 240,
    }),
  );
  for (let i = 1; i < drawn.length; i++)
    for (const key of ['shade', 'light'] as const) {
      const [a, b] = [areaOf(drawn[i - 1]![key]), areaOf(drawn[i]![key])];
      expect(Math.abs(a - b) / Math.max(a, b)).toBeLessThan(0.09);
      const [p, q] = [middleOf(drawn[i - 1]![key]), middleOf(drawn[i]![key])];
      expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeLessThan(12);
    }
});

test('a detail line creases the body: there is shade and light on either side of it', () => {
  const rings = [lobed(0, 0, 160, 6)];
  const line = Array.from({ length: 20 }, (_, i) => ({ x: -80 + i * 8, y: 0 }));
  const without = toneShapes({ rings, details: [], settings: SETTINGS, light: 270 });
  const creased = toneShapes({ rings, details: [line], settings: SETTINGS, light: 270 });
  expect(areaOf(creased.shade)).toBeGreaterThan(1.1 * areaOf(without.shade));
});
