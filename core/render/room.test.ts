/** What of a drawing lies within a room. */
import fc from 'fast-check';
import { drawingWith, strokeThrough } from '../testing/lines.ts';
import { intersection, isEmpty, mapBox, type Matrix } from '../geometry/index.ts';
import { drawingBox, markBox } from './marks.ts';
import { boxWithin } from './room.ts';

const place = fc.tuple(fc.integer({ min: -900, max: 900 }), fc.integer({ min: -900, max: 900 }));
const lines = fc.array(fc.tuple(place, place), { minLength: 1, maxLength: 6 });
const view = fc.constantFrom<Matrix>([1, 0, 0, 1, 0, 0], [0.5, 0, 0, 0.5, 200, 100], [0, 2, -2, 0, 40, -30]);
const room = { left: 0, top: 0, right: 640, bottom: 360 };

test('the box holds every mark as far as it lies within the room, and nothing where none does', () => {
  fc.assert(
    fc.property(lines, view, (ends, matrix) => {
      const drawing = drawingWith(...ends.map(([from, to]) => strokeThrough([from, to], 6)));
      const box = boxWithin(drawing, matrix, room);
      const seen = Object.values(drawing.marks)
        .map((mark) => intersection(mapBox(matrix, markBox(mark)), room))
        .filter((part) => !isEmpty(part));
      expect(isEmpty(box)).toBe(seen.length === 0);
      for (const part of seen) expect(intersection(part, box)).toEqual(part);
      if (seen.length === 0) return;
      const whole = mapBox(matrix, drawingBox(drawing));
      expect(intersection(box, whole)).toEqual(box);
    }),
  );
});

test('a frame around the picture takes no room in it, though its box covers all of it', () => {
  const frame = drawingWith(
    strokeThrough(
      [
        [-60, -60],
        [-60, 400],
      ],
      20,
    ),
    strokeThrough(
      [
        [700, -60],
        [700, 400],
      ],
      20,
    ),
    strokeThrough(
      [
        [-60, -40],
        [700, -40],
      ],
      20,
    ),
  );
  expect(isEmpty(boxWithin(frame, [1, 0, 0, 1, 0, 0], room))).toBe(true);
  expect(isEmpty(intersection(drawingBox(frame), room))).toBe(false);
});
