/** Drawings that lie aside: a painter reads their marks itself. */
import { find, packedMarks } from '@tallow/core/document';
import { cycleOf, fixture, layerOf } from '../../core/fixture.ts';
import { Board } from './board.ts';

const made = fixture(17);
const doc = cycleOf(made, 1, (i) => made.stroke(i * 10, 0, i * 10 + 20, 9));
const drawing = find(doc, 'drawing', Object.values(layerOf(doc, made.layerId).slots)[0])!;
const { kind, id, order } = drawing;
const blob = () => new Blob(packedMarks(drawing.marks) as BlobPart[]);

function boardThatAsks(): { board: Board; asked: string[] } {
  const asked: string[] = [];
  const board = new Board(
    (ids) => asked.push(...ids),
    () => undefined,
  );
  return { board, asked };
}

test('a drawing that lies aside comes with its marks, to whoever waits for it', async () => {
  const { board, asked } = boardThatAsks();
  const ready = board.ready([id]);
  expect(asked).toEqual([id]);
  expect(await board.take({ kind, id, order }, blob())).toBe(true);
  await ready;
  expect(board.doc.entities[id]).toEqual(drawing);
});

test('what came for it meanwhile counts', async () => {
  const { board } = boardThatAsks();
  const emptied = { ...drawing, marks: {}, order: [] };
  const taken = board.take({ kind, id, order }, blob());
  board.update([{ id, entity: emptied, grew: false }]);
  expect(await taken).toBe(true);
  expect(board.doc.entities[id]).toBe(emptied);
  // Another shot has been opened: nothing of the one before comes after that.
  const late = board.take({ kind, id, order }, blob());
  board.clear();
  await late;
  expect(board.doc.entities).toEqual({});
});

const gone = { arrayBuffer: () => Promise.reject(new Error('gone')) } as unknown as Blob;
const cutOff = new Blob(['too little']);

test.each([
  ['gone', gone],
  ['cut off', cutOff],
])('marks the browser has lost are said to be, and still waited for: %s', async (_, lost) => {
  const { board } = boardThatAsks();
  let came = false;
  const ready = board.ready([id]).then(() => (came = true));
  expect(await board.take({ kind, id, order }, lost)).toBe(false);
  expect(came).toBe(false);
  board.update([{ id, entity: drawing, grew: false, asked: true }]);
  await ready;
  expect(came).toBe(true);
});
