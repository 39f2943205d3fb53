import { middleLine } from '../brush/index.ts';
import { mapBox, ringBox, ringPoints } from '../geometry/index.ts';
import {
  ballField,
  doubleArea,
  fireAt,
  fireBalls,
  fireGrid,
  levelLines,
  lickAt,
  LINE_SAMPLES,
  lineAlong,
  sampleField,
  USUAL_FIRE,
} from './index.ts';

const phases = Array.from({ length: 12 }, (_, i) => i / 12);
const flames = phases.map((phase) => fireAt(USUAL_FIRE, phase));

/** The farthest that any of some points lies from a closed polyline, px. */
function farthest(points: readonly { x: number; y: number }[], line: readonly { x: number; y: number }[]): number {
  return Math.max(
    ...points.map((p) =>
      Math.min(
        ...line.map((a, i) => {
          const b = line[(i + 1) % line.length]!;
          const [dx, dy] = [b.x - a.x, b.y - a.y];
          const squared = dx * dx + dy * dy;
          const t = squared === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / squared));
          return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
        }),
      ),
    ),
  );
}

describe('the blob field', () => {
  const ball = { x: 0, y: 0, radius: 10, pull: 3, weight: 2 };
  test('is the weight at the middle, nothing beyond the edge, and reaches up to a point', () => {
    expect(ballField(ball, 0, 0)).toBe(2);
    expect(ballField(ball, 10, 0)).toBe(0);
    expect(ballField(ball, 0, -29)).toBeGreaterThan(0);
    expect(ballField(ball, 0, -30)).toBe(0);
    expect(ballField(ball, 5, -25)).toBe(0);
  });
  test('a round ball is cut to a ring of the right area', () => {
    const grid = { left: -15, top: -15, columns: 121, rows: 121, cell: 0.25 };
    const [line] = levelLines(sampleField([{ ...ball, pull: 1, weight: 1 }], grid), grid, 0.5);
    const wide = Math.max(...line!.map(([x]) => x));
    // soft(d) = (1 - d²)² is one half where d² = 1 - sqrt(1/2).
    expect(wide).toBeCloseTo(10 * Math.sqrt(1 - Math.SQRT1_2), 1);
    expect(Math.abs(doubleArea(line!))).toBeGreaterThan(0);
  });
});

describe('fire', () => {
  test('closes exactly: a whole turn later it is the same', () => {
    for (const phase of phases) {
      fireBalls(USUAL_FIRE, phase + 1).forEach((ball, i) => {
        const before = fireBalls(USUAL_FIRE, phase)[i]!;
        expect(
          Math.abs(ball.x - before.x) + Math.abs(ball.y - before.y) + Math.abs(ball.radius - before.radius),
        ).toBeLessThan(1e-6);
      });
    }
  });
  test('the step across the seam is no larger than the others', () => {
    const area = (i: number) =>
      flames[i % 12]!.outline.reduce(
        (sum, ring) => sum + Math.abs(doubleArea(ringPoints(ring, 6).map((p) => [p.x, p.y]))),
        0,
      );
    const steps = phases.map((_, i) => Math.abs(area(i + 1) - area(i)));
    const mean = steps.reduce((a, b) => a + b) / 12;
    expect(steps[11]!).toBeLessThan(3 * mean + 1);
  });
  test('is the same for the same seed and another for another', () => {
    expect(fireAt(USUAL_FIRE, 0.25)).toEqual(flames[3]);
    expect(fireAt({ ...USUAL_FIRE, seed: 8 }, 0.25)).not.toEqual(flames[3]);
  });
  test('every drawing has an outline on the base line, a body and a core within it', () => {
    for (const { outline, body, core } of flames) {
      const box = ringBox(outline.reduce((a, b) => (b.length > a.length ? b : a)));
      expect(box.bottom).toBeGreaterThan(-20);
      expect(box.bottom).toBeLessThan(60);
      expect(body.length).toBeGreaterThan(0);
      expect(core.length).toBeGreaterThan(0);
      const inside = mapBox([1, 0, 0, 1, 0, 0], ringBox(core[0]!));
      expect(inside.top).toBeGreaterThan(-USUAL_FIRE.height * 1.5);
    }
  });
  test('contours have at most 150 points and lie within half a px of the field’s own', () => {
    for (const phase of [0, 5 / 12]) {
      const grid = fireGrid(USUAL_FIRE);
      const lines = levelLines(sampleField(fireBalls(USUAL_FIRE, phase), grid), grid, 0.3)
        .filter((line) => Math.abs(doubleArea(line)) / 2 >= USUAL_FIRE.smallest)
        .map((line) => line.map(([x, y]) => ({ x, y })));
      const rings = fireAt(USUAL_FIRE, phase).outline;
      rings.forEach((ring, i) => {
        expect(ring.length / 6).toBeLessThanOrEqual(150);
        expect(farthest(ringPoints(ring, 5), lines[i]!)).toBeLessThanOrEqual(0.5);
      });
    }
  });
  test('a line along a contour has at most 150 samples and stays within three quarters of a px of it', () => {
    for (const ring of flames.slice(0, 1).flatMap((flame) => flame.outline)) {
      const samples = lineAlong(ring);
      expect(samples.x.length).toBeLessThanOrEqual(LINE_SAMPLES);
      const line = middleLine(samples, { kind: 'ink', width: 4, opacity: 1, pressure: true });
      expect(farthest(line, ringPoints(ring, 8))).toBeLessThanOrEqual(0.75);
      expect(samples.pressure.every((p) => p > 0 && p <= 1)).toBe(true);
    }
  });
  test('a lick rises and shrinks until it is gone', () => {
    const tops = [0, 0.5, 1].map((life) => ringBox(lickAt(USUAL_FIRE, life)[0]!));
    expect(tops[1]!.bottom).toBeLessThan(tops[0]!.bottom);
    expect(tops[2]!.right - tops[2]!.left).toBeLessThan((tops[0]!.right - tops[0]!.left) / 2);
  });
});
