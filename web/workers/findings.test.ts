import type { DrawingFacts } from '@tallow/core/checks';
import { find, putEntities, type ShotDocument } from '@tallow/core/document';
import { cycleOf, fixture, layerOf } from '../../core/fixture.ts';
import { findingsIn } from './findings.ts';

const made = fixture(17);
const { elementId, layerId, stroke } = made;
const doc = cycleOf(made, 3, (i) => stroke(i * 10, 0, i * 10 + 20, 9));
const drawing = find(doc, 'drawing', Object.values(layerOf(doc, layerId).slots)[1])!;
const emptied = putEntities(doc, { ...drawing, marks: {}, order: [] });
const turn = () => Promise.resolve();
const boardOf = (now: ShotDocument) => ({
  doc: now,
  changes: 1,
  ready: () => Promise.resolve(),
  facts: new Map<string, DrawingFacts>(),
});
const kinds = async (now: ShotDocument) => (await findingsIn(boardOf(now), elementId, turn))?.map(({ kind }) => kind);

test('a finding is told until it is mended', async () => {
  expect(await kinds(doc)).toEqual([]);
  expect(await kinds(emptied)).toEqual(['empty']);
  expect(await kinds(putEntities(emptied, drawing))).toEqual([]);
});

test('what lies out of sight hangs on where the element stands in the shot', async () => {
  const placement = Object.values(doc.entities).find((e) => e.kind === 'placement')!;
  expect(await kinds(putEntities(doc, { ...placement, x: -5000 }))).toEqual(['outside', 'outside', 'outside']);
});

test('nothing is told of a document that has changed meanwhile, or of an element that is gone', async () => {
  const board = boardOf(doc);
  const asked = findingsIn(board, elementId, turn);
  board.doc = emptied;
  board.changes += 1;
  expect(await asked).toBeNull();
  expect(await findingsIn(boardOf(doc), 'gone', turn)).toBeNull();
});
