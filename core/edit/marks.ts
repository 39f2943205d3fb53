/** Edits of marks that are there already. */
import { closedUp, type Joining, joined } from '../marks/index.ts';
import {
  find,
  marksAmong,
  putEntities,
  type Drawing,
  type Id,
  type Mark,
  type NewId,
  type ShotDocument,
} from '../document/index.ts';

/** Some marks of some drawings, by drawing. */
export type MarkSets = Readonly<Record<Id, readonly Id[]>>;

const drawingsOf = (doc: ShotDocument, sets: MarkSets): { drawing: Drawing; ids: readonly Id[] }[] =>
  Object.entries(sets).flatMap(([id, ids]) => {
    const drawing = find(doc, 'drawing', id);
    return drawing ? [{ drawing, ids: ids.filter((each) => drawing.marks[each]) }] : [];
  });

/** Changes some marks, each by the one function. @param change gets a mark and the drawing it lies in. */
export function changeMarks(
  doc: ShotDocument,
  sets: MarkSets,
  change: (mark: Mark, drawingId: Id) => Mark,
): ShotDocument {
  const changed = drawingsOf(doc, sets).flatMap(({ drawing, ids }) => {
    const marks = { ...drawing.marks };
    for (const id of ids) marks[id] = change(drawing.marks[id]!, drawing.id);
    return ids.some((id) => marks[id] !== drawing.marks[id]) ? [{ ...drawing, marks }] : [];
  });
  return putEntities(doc, ...changed);
}

/** Puts other marks in the place of some: the first of them takes the replaced one's id and place, the rest follow it. */
export function replaceMarks(
  doc: ShotDocument,
  sets: MarkSets,
  change: (mark: Mark, drawingId: Id) => readonly Mark[],
): ShotDocument {
  const changed = drawingsOf(doc, sets).map(({ drawing, ids }): Drawing => {
    const put = new Map(ids.map((id) => [id, change(drawing.marks[id]!, drawing.id)]));
    const list = drawing.order.flatMap((id) => put.get(id) ?? [drawing.marks[id]!]);
    return {
      ...drawing,
      order: list.map(({ id }) => id),
      marks: Object.fromEntries(list.map((mark) => [mark.id, mark])),
    };
  });
  return putEntities(doc, ...changed);
}

/** Takes marks away; the drawings stay, even without any. */
export const deleteMarks = (doc: ShotDocument, sets: MarkSets): ShotDocument => replaceMarks(doc, sets, () => []);

export type Ordering = 'top' | 'up' | 'down' | 'bottom';

/** Moves marks within the order of their drawings, their own order kept. */
export function orderMarks(doc: ShotDocument, sets: MarkSets, to: Ordering): ShotDocument {
  const changed = drawingsOf(doc, sets).map(({ drawing, ids }) => {
    const moving = new Set(ids);
    const own = drawing.order.filter((id) => moving.has(id));
    const rest = drawing.order.filter((id) => !moving.has(id));
    const below = (id: Id | undefined) =>
      drawing.order.slice(0, drawing.order.indexOf(id!)).filter((e) => !moving.has(e)).length;
    const at = {
      top: rest.length,
      bottom: 0,
      up: Math.min(rest.length, below(own.at(-1)) + 1),
      down: Math.max(0, below(own[0]) - 1),
    }[to];
    return { ...drawing, order: rest.toSpliced(at, 0, ...own) };
  });
  return putEntities(doc, ...changed);
}

/** A mark as part of a piece, or of none. What rubs out belongs to none. */
export function namedPiece(mark: Mark, piece: string | null): Mark {
  if (mark.kind === 'rub') return mark;
  const named = { ...mark };
  if (piece === null) Reflect.deleteProperty(named, 'piece');
  else Object.assign(named, { piece });
  return named;
}

/** Copies of marks with ids of their own. */
export const copiesOf = (marks: readonly Mark[], newId: NewId): Mark[] =>
  marks.map((mark) => ({ ...mark, id: newId() }));

/** Copies some marks on top of their own drawings. The edit says which ones they are. */
export function duplicateMarks(doc: ShotDocument, sets: MarkSets, newId: NewId): { doc: ShotDocument; sets: MarkSets } {
  const made: Record<Id, Id[]> = {};
  const changed = drawingsOf(doc, sets).map(({ drawing, ids }) => {
    const copies = copiesOf(marksAmong(drawing, ids), newId);
    made[drawing.id] = copies.map(({ id }) => id);
    return {
      ...drawing,
      marks: { ...drawing.marks, ...Object.fromEntries(copies.map((mark) => [mark.id, mark])) },
      order: [...drawing.order, ...made[drawing.id]!],
    };
  });
  return { doc: putEntities(doc, ...changed), sets: made };
}

/** Leads the open ends of some strokes of each drawing together: a single one closes, several become the first of them. */
export function joinMarks(doc: ShotDocument, sets: MarkSets, how: Joining): ShotDocument {
  return Object.entries(sets).reduce((next, [drawingId, ids]) => {
    const drawing = find(next, 'drawing', drawingId);
    const lines = drawing ? marksAmong(drawing, ids).filter((mark) => mark.kind === 'stroke') : [];
    const [first, ...rest] = lines;
    if (!first) return next;
    const whole = rest.length === 0 ? closedUp(first, how) : rest.reduce((all, line) => joined(all, line, how), first);
    return replaceMarks(next, { [drawingId]: lines.map(({ id }) => id) }, (mark) =>
      mark.id === first.id ? [whole] : [],
    );
  }, doc);
}
