/** A drawing: marks by their ids, and their order. */
import { z } from 'zod';
import { id, uniqueIds } from '../fields.ts';
import { type Id } from '../id.ts';
import { mark, SAMPLE_LIMIT, encodeMark } from '../mark-check.ts';
import { type Mark } from '../mark-types.ts';
import { derivedId } from '../derived-id.ts';
import { mergeOrder, mergeRecord, type Merged } from '../merge-fields.ts';
import { kindOf, one, entries, withFields, type Pointer } from './kind.ts';

export interface Drawing {
  readonly kind: 'drawing';
  readonly id: Id;
  readonly marks: Readonly<Record<Id, Mark>>;
  /** Mark ids from the lowest to the topmost. */
  readonly order: readonly Id[];
}

const swatchOf = (markId: Id): Pointer => ({ field: `marks.${markId}.swatch`, to: 'swatch', bond: 'needs' });

/**
 * Marks are kept by both: where both changed one, the second stays beside it as a mark of its own. Its id hangs on
 * the mark and what it became, so that the same merge made again adds nothing.
 */
function mergeDrawing(base: Drawing, ours: Drawing, theirs: Drawing): Merged<Drawing> {
  const { record, clashes } = mergeRecord<Mark>(base.marks, ours.marks, theirs.marks);
  let order = mergeOrder(base.order, ours.order, theirs.order).filter((id) => record[id]);
  order = [...order, ...Object.keys(record).filter((id) => !order.includes(id))];
  for (const clash of clashes) {
    const id = derivedId(clash.id, clash.ours);
    if (record[id]) continue;
    record[id] = { ...clash.ours, id };
    order.splice(order.indexOf(clash.id) + 1, 0, id);
  }
  return { merged: { ...theirs, marks: record, order }, clashes: [] };
}

export const drawing = kindOf<Drawing>({
  kind: 'drawing',
  version: 1,
  schema: () =>
    z
      .strictObject({ kind: z.literal('drawing'), id, marks: z.record(id, mark), order: uniqueIds })
      .refine((d) => d.order.length === Object.keys(d.marks).length && d.order.every((m) => m in d.marks), {
        path: ['order'],
        message: 'must name every mark once',
      })
      .refine((d) => Object.entries(d.marks).every(([key, m]) => key === m.id), {
        path: ['marks'],
        message: 'must keep each mark under its own id',
      })
      .refine(
        (d) =>
          Object.values(d.marks).reduce((n, m) => n + (m.kind === 'shape' ? 0 : m.samples.x.length), 0) <= SAMPLE_LIMIT,
        {
          path: ['marks'],
          message: `must hold at most ${SAMPLE_LIMIT} samples together`,
        },
      ),
  merge: { marks: 'record', order: 'order' },
  mergeWhole: mergeDrawing,
  points: ['swatch'],
  mapIds: (drawing, of) =>
    withFields(drawing, {
      marks: entries(drawing.marks, (id, mark) => [
        id,
        mark.kind === 'rub' ? mark : withFields(mark, { swatch: one(mark.swatch, of, swatchOf(id)) }),
      ]),
    }),
  encode: (drawing) => ({
    ...drawing,
    marks: Object.fromEntries(Object.values(drawing.marks).map((mark) => [mark.id, encodeMark(mark)])),
  }),
});
