import fc from 'fast-check';
import { walkOf } from '../geometry/index.ts';
import { strokeThrough } from '../testing/lines.ts';
import { betweenLines, type Going } from './lines.ts';
import { crestsAlong } from './crests.ts';

/** A line from 0 to 400 with a crest of a height at a share of the way. */
const crested = (at: number, height = 60, width = 0.08) =>
  strokeThrough(
    Array.from({ length: 121 }, (_, i): [number, number] => {
      const t = i / 120;
      return [400 * t, -height * Math.exp(-((t - at) ** 2) / (2 * width * width))];
    }),
    4,
  );
const straight =
  (share: number): Going =>
  (from, to) =>
    from.map((p, i) => ({ x: p.x + (to[i]!.x - p.x) * share, y: p.y + (to[i]!.y - p.y) * share }));
/** The top of a line: how high, and where. */
const topOf = ({ samples: { x, y } }: ReturnType<typeof crested>) => {
  const i = y.reduce((best, v, k) => (v < y[best]! ? k : best), 0);
  return { height: -y[i]!, at: x[i]! / 400 };
};

test.each([
  [0.25, 0.6],
  [0.7, 0.4],
  [0.3, 0.45],
])('a crest travels from %f to %f of the line and keeps its height, where it would be flattened else', (from, to) => {
  const [a, b] = [crested(from), crested(to)];
  for (const share of [0.25, 0.5, 0.75]) {
    const top = topOf(betweenLines(a, b, share, straight(share), true));
    expect(top.height).toBeGreaterThan(54);
    expect(Math.abs(top.at - (from + (to - from) * share))).toBeLessThan(0.04);
  }
  if (Math.abs(to - from) > 0.2) expect(topOf(betweenLines(a, b, 0.5, straight(0.5))).height).toBeLessThan(42);
});

test('ends stay ends, and places keep their order', () => {
  const place = fc.double({ min: 0.15, max: 0.85, noNaN: true });
  fc.assert(
    fc.property(place, place, fc.double({ min: 5, max: 90, noNaN: true }), (from, to, height) => {
      const [a, b] = [crested(from, height), crested(to)];
      const points = (line: typeof a) => Array.from(line.samples.x, (x, i) => ({ x, y: line.samples.y[i]! }));
      const map = crestsAlong(walkOf(points(a), false), walkOf(points(b), false), false);
      expect([map(0), map(1)]).toEqual([0, 1]);
      for (let i = 1; i <= 50; i++) expect(map(i / 50)).toBeGreaterThanOrEqual(map((i - 1) / 50) - 1e-9);
    }),
    { numRuns: 60 },
  );
});

test('a line that only moves goes as it always did', () => {
  const a = crested(0.5);
  const b = { ...a, samples: { ...a.samples, y: a.samples.y.map((y) => y + 80) } };
  const [along, plain] = [betweenLines(a, b, 0.5, straight(0.5), true), betweenLines(a, b, 0.5, straight(0.5))];
  plain.samples.y.forEach((y, i) => expect(Math.abs(y - along.samples.y[i]!)).toBeLessThan(1.5));
});
