/** What use lies under a place of the picture. */
import { occurrenceIn, occurrencesOn, standing, withInner, type Occurrence } from '@tallow/core/assembly';
import type { Id } from '@tallow/core/document';
import { apply, invert, type Point } from '@tallow/core/geometry';
import { markAt } from '@tallow/core/marks';
import { drawListOf } from '@tallow/core/render';
import { placedInside } from '@tallow/core/timing';
import type { Level } from './placing.ts';

/** The uses of a level that show on a frame, frontmost first. */
function shownOn({ doc, path, holder }: Level, shotFrame: number): Occurrence[] {
  if (!holder) return occurrencesOn(doc, shotFrame);
  const outer = standing(doc, path, shotFrame);
  return outer
    ? placedInside(doc, holder).flatMap(({ placement }) => occurrenceIn(doc, outer, placement.id) ?? [])
    : [];
}

/** The topmost use with something drawn at a place of the shot; null where there is none. @param reach px of the shot. */
export function hitAt(level: Level, at: Point, shotFrame: number, reach: number): Id | null {
  const { doc } = level;
  for (const use of shownOn(level, shotFrame)) {
    const isHere = withInner(doc, use).some(({ key }) =>
      drawListOf(doc, shotFrame, { guides: false, place: key, looks: 'none' })
        .filter((sheet) => sheet.place === key)
        .some(({ drawing, matrix }) => {
          const on = markAt(drawing, apply(invert(matrix), at), reach);
          return on !== null && drawing.marks[on]!.kind !== 'rub';
        }),
    );
    if (isHere) return use.placement.id;
  }
  return null;
}
