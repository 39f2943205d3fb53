/** Rows of time: the in-between of two drawings of 300 strokes, and what pairing costs against going there. */
import { betweenAt, matchMarks } from '@tallow/core/between';
import type { Drawing, Stroke } from '@tallow/core/document';
import { seededIds, seededRandom } from '@tallow/core/geometry';
import { against, timed, type Row } from './measure.ts';

/** The design's goal for two drawings of 300 strokes, in the worker. */
const BETWEEN_MS = 100;
const STROKES = 300;
const SAMPLES = 60;

/** A drawing of many strokes. @param by px it stands further on. */
function drawing(by: number): Pick<Drawing, 'marks' | 'order'> {
  const newId = seededIds(9);
  const random = seededRandom(4);
  const marks = Array.from({ length: STROKES }, (): Stroke => {
    const [x, y] = [random() * 900, random() * 700];
    const column = (value: (i: number) => number) => Float32Array.from({ length: SAMPLES }, (_, i) => value(i));
    return {
      kind: 'stroke',
      id: newId(),
      swatch: 'line',
      brush: { kind: 'ink', width: 6, opacity: 1, pressure: true },
      seed: 1,
      samples: {
        x: column((i) => x + by + i * 2),
        y: column((i) => y + 10 * Math.sin(i / 6)),
        pressure: column(() => 0.6),
        altitude: column(() => 1.2),
        azimuth: column(() => 0),
      },
    };
  });
  return { order: marks.map(({ id }) => id), marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])) };
}

export function betweenRows(): Row[] {
  const newId = seededIds(11);
  const paired = (): void => {
    const [a, b] = [drawing(0), drawing(15)];
    betweenAt(a, b, matchMarks(a, b, { ties: [] }), 0.5, { way: 'arc' }, newId);
  };
  const made = timed(9, () => [drawing(0), drawing(15)]);
  return [against('in-between of two drawings of 300 strokes', timed(9, paired) - made, BETWEEN_MS)];
}
