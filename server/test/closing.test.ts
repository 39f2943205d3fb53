/** Gaps that fills close, as they come out in the shapes: drawn on the server, filled as the desk does. */
import type { Drawing } from '@tallow/core/document';
import { IDENTITY, ringPoints, type Point } from '@tallow/core/geometry';
import { FillWorker } from '@tallow/core/render';
import { drawingWith, strokeThrough } from '../../core/testing/lines.ts';
import { makeSurface } from '../render/canvas.ts';

const WIDTH = 8;
const PICTURE = { left: -400, top: -400, right: 400, bottom: 400 };

/** The outline of what a press at the middle fills. */
function outlineOf(drawing: Drawing, gap: number): Point[] | null {
  const worker = new FillWorker(makeSurface);
  const rules = { gap, under: null };
  worker.ready('it', { bounding: [{ drawing, matrix: IDENTITY }], colours: {}, picture: PICTURE, rules });
  const { shape } = worker.at('it', { x: 0, y: 0 });
  return shape && shape.rings.flatMap((ring) => ringPoints(ring, 12));
}

const on = (r: number, degrees: number): [number, number] => [
  r * Math.cos((degrees * Math.PI) / 180),
  r * Math.sin((degrees * Math.PI) / 180),
];

describe.each([4, 9, 20, 45, 80, 120])('a gap of %i px', (opening) => {
  test.each([0, 23, 77, 140])('in a round line turned by %i degrees is closed by the curve that goes on', (turn) => {
    const r = 160;
    const half = ((opening + WIDTH) / 2 / r) * (180 / Math.PI);
    const points = Array.from({ length: 121 }, (_, i) => on(r, turn + half + ((360 - 2 * half) * i) / 120));
    const outline = outlineOf(drawingWith(strokeThrough(points, WIDTH)), opening + 3)!;
    // The middle of the line and of the way over the gap alike; half a pixel for the curve, half for the lattice.
    for (const { x, y } of outline) expect(Math.abs(Math.hypot(x, y) - r)).toBeLessThan(1);
    // The way across is a little shorter than the way round.
    expect(outlineOf(drawingWith(strokeThrough(points, WIDTH)), Math.max(0, 0.95 * opening - 3))).toBeNull();
  });

  test.each([0, 31, 102])(
    'between two ends that lead past each other, turned by %i degrees, is closed straight',
    (turn) => {
      // A bowl whose walls lean inwards: neither leads to the other.
      const span = (opening + WIDTH) / 2;
      const points: [number, number][] = [
        [-span, -120],
        [-span - 60, 0],
        [-span - 60, 100],
        [span + 60, 100],
        [span + 60, 0],
        [span, -120],
      ];
      const [cos, sin] = on(1, turn);
      const turned = points.map(([x, y]): [number, number] => [x * cos - y * sin, x * sin + y * cos]);
      const outline = outlineOf(drawingWith(strokeThrough(turned, WIDTH)), opening + 3)!;
      const back = outline.map(({ x, y }) => ({ x: x * cos + y * sin, y: y * cos - x * sin }));
      const overGap = back.filter(({ x, y }) => Math.abs(x) < span - WIDTH && y < 0);
      for (const { y } of overGap) expect(Math.abs(y + 120)).toBeLessThan(1);
      if (opening > 2 * WIDTH) expect(overGap.length).toBeGreaterThan(0);
    },
  );
});
