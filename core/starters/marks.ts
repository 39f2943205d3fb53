/** What a starter lays as marks of a document. */
import type { Drawing, Id, Mark, NewId } from '../document/index.ts';
import { EMPTY_BOX, ringBox, union, type Box } from '../geometry/index.ts';
import { isLine, type LaidMark } from './starter.ts';

/** Marks in starter space moved to where the starter stands. @param swatchOf the swatch of a paint. */
export function marksFrom(
  laid: readonly LaidMark[],
  swatchOf: (paint: string) => Id,
  at: { readonly x: number; readonly y: number },
  newId: NewId,
): Mark[] {
  const shifted = (column: Float32Array, by: number) => column.map((v) => v + by);
  return laid.map((mark, i): Mark => {
    const common = { id: newId(), swatch: swatchOf(mark.paint) };
    if (isLine(mark)) {
      const { samples } = mark;
      return {
        kind: 'stroke',
        ...common,
        brush: { kind: 'ink', width: mark.width, opacity: mark.opacity ?? 1, pressure: true },
        seed: i,
        samples: { ...samples, x: shifted(samples.x, at.x), y: shifted(samples.y, at.y) },
      };
    }
    return {
      kind: 'shape',
      ...common,
      rings: mark.rings.map((ring) => ring.map((v, k) => v + (k % 2 === 0 ? at.x : at.y))),
      rule: 'evenodd',
      opacity: mark.opacity ?? 1,
    };
  });
}

/** A box around what was laid: of areas with their handles, of lines along their middles. */
export function laidBox(laid: readonly LaidMark[]): Box {
  let box = EMPTY_BOX;
  for (const mark of laid) {
    if (isLine(mark)) {
      mark.samples.x.forEach((x, i) => {
        const y = mark.samples.y[i]!;
        box = union(box, { left: x, right: x, top: y, bottom: y });
      });
    } else for (const ring of mark.rings) box = union(box, ringBox(ring));
  }
  return box;
}

/** A drawing of marks, lowest first. */
export const drawingOf = (id: Id, marks: readonly Mark[]): Drawing => ({
  kind: 'drawing',
  id,
  marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
  order: marks.map((mark) => mark.id),
});
