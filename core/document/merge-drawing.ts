/** Merging what two sides drew on one drawing. */
import { derivedId } from './derived-id.ts';
import type { Drawing } from './kinds/drawing.ts';
import type { Mark } from './mark-types.ts';
import { mergeOrder, mergeRecord, type Merged } from './merge-fields.ts';

/**
 * Marks are kept by both: where both changed one, the second stays beside it as a mark of its own. Its id hangs on
 * the mark and what it became, so that the same merge made again adds nothing.
 */
export function mergeDrawing(base: Drawing, ours: Drawing, theirs: Drawing): Merged<Drawing> {
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
