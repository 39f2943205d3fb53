import { find, newShotDocument, shotOf, type Shape, entitiesOf } from '../document/index.ts';
import { polygonRing, seededIds } from '../geometry/index.ts';
import { addMark, changeMarks, deleteMarks, duplicateMarks, orderMarks, replaceMarks, namedPiece } from './index.ts';
import { fixture } from '../fixture.ts';

const newId = seededIds(44);
const empty = newShotDocument(
  newId(),
  { name: 'T', width: 100, height: 50, rate: 24, length: 12, background: null },
  newId,
);
const layerId = entitiesOf(empty, 'layer')[0]!.id;
const square = (): Shape => ({
  kind: 'shape',
  id: newId(),
  swatch: shotOf(empty).swatches[0]!,
  rule: 'evenodd',
  opacity: 1,
  rings: [
    polygonRing([
      [0, 0],
      [10, 0],
      [10, 10],
    ]),
  ],
});
const [a, b, c, d] = [square(), square(), square(), square()];
const doc = [a, b, c, d].reduce((all, mark) => addMark(all, layerId, 0, mark, newId), empty);
const drawing = entitiesOf(doc, 'drawing')[0]!;
const sets = (...ids: string[]) => ({ [drawing.id]: ids });
const orderIn = (next: typeof doc) => find(next, 'drawing', drawing.id)!.order;

test('order moves what is picked up by one place or to an end, its own order kept', () => {
  const [p, q, r, s] = [a.id, b.id, c.id, d.id];
  expect(orderIn(orderMarks(doc, sets(p, q), 'top'))).toEqual([r, s, p, q]);
  expect(orderIn(orderMarks(doc, sets(s), 'bottom'))).toEqual([s, p, q, r]);
  expect(orderIn(orderMarks(doc, sets(p), 'up'))).toEqual([q, p, r, s]);
  expect(orderIn(orderMarks(doc, sets(s), 'down'))).toEqual([p, q, s, r]);
  expect(orderIn(orderMarks(doc, sets(s), 'up'))).toEqual([p, q, r, s]);
});

test('marks are changed, replaced by several in their place, copied on top and taken away', () => {
  const faint = changeMarks(doc, sets(b.id), (mark) => ({ ...mark, opacity: 0.5 }) as Shape);
  expect((find(faint, 'drawing', drawing.id)!.marks[b.id] as Shape).opacity).toBe(0.5);
  expect(changeMarks(doc, sets(b.id), (mark) => mark).entities[drawing.id]).toBe(drawing);
  const parts = [{ ...b }, square()];
  expect(orderIn(replaceMarks(doc, sets(b.id), () => parts))).toEqual([a.id, b.id, parts[1]!.id, c.id, d.id]);
  const copied = duplicateMarks(doc, sets(c.id, a.id), newId);
  expect(orderIn(copied.doc)).toEqual([...drawing.order, ...copied.sets[drawing.id]!]);
  expect(copied.sets[drawing.id]).toHaveLength(2);
  expect(orderIn(deleteMarks(doc, sets(a.id, c.id)))).toEqual([b.id, d.id]);
});

test('marks that are gone and drawings that are not loaded are passed over', () => {
  expect(orderIn(deleteMarks(doc, sets(newId())))).toEqual(drawing.order);
  expect(changeMarks(doc, { [newId()]: [a.id] }, (mark) => ({ ...mark }))).toEqual(doc);
});

test('marks are given to a piece, and taken from it; what rubs out belongs to none', () => {
  const { stroke } = fixture(8);
  const line = stroke(0, 0, 9, 9);
  expect(namedPiece(line, 'drop')).toEqual({ ...line, piece: 'drop' });
  expect(namedPiece(namedPiece(line, 'drop'), null)).toEqual(line);
  const { id, brush, seed, samples } = line;
  const rub = { kind: 'rub', id, brush, seed, samples } as const;
  expect(namedPiece(rub, 'drop')).toBe(rub);
});
