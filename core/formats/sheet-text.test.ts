import fc from 'fast-check';
import { entitiesOf, newShotDocument, type ShotDocument } from '../document/index.ts';
import { addLayer, addMark, newDrawing, writeSheet } from '../edit/index.ts';
import { discRing, seededIds } from '../geometry/index.ts';
import { elementLength, exposureAt, slotNumbers, timedLayers } from '../timing/index.ts';
import { exposureSheet } from './exposure-sheet.ts';
import { readSheet } from './sheet-text.ts';

const newId = seededIds(5);
const text = ({ head, rows }: ReturnType<typeof exposureSheet>): string =>
  [head, ...rows].map((cells) => cells.join(',')).join('\r\n') + '\r\n';

/** A shot of one element with six drawings on 2s. */
function made(): { doc: ShotDocument; layer: string; element: string } {
  let doc = newShotDocument(
    newId(),
    { name: 'A', width: 64, height: 36, rate: 24, length: 24, background: null },
    newId,
  );
  const [element] = entitiesOf(doc, 'element');
  const layer = element!.layers[0]!;
  for (let i = 0; i < 6; i++) {
    if (i > 0) doc = newDrawing(doc, layer, 2 * (i - 1), newId).doc;
    const swatch = entitiesOf(doc, 'swatch')[0]!.id;
    const mark = {
      kind: 'shape',
      id: newId(),
      swatch,
      rings: [discRing(0, 0, 5)],
      rule: 'nonzero',
      opacity: 1,
    } as const;
    doc = addMark(doc, layer, 2 * i, mark, newId);
  }
  return { doc, layer, element: element!.id };
}
/** The numbers a layer shows, frame by frame. */
function numbersOf(doc: ShotDocument, layerId: string): (number | null)[] {
  const [element] = entitiesOf(doc, 'element');
  const length = elementLength(doc, element!);
  const timed = timedLayers(doc, element!).find(({ layer }) => layer.id === layerId)!;
  const numbers = slotNumbers(timed.list);
  return Array.from({ length }, (_, frame) => {
    // A slot that is still to be drawn has a number as well.
    const slot = exposureAt(timed.list, frame, length)?.run.slot;
    return slot ? numbers.get(slot)! : null;
  });
}

test('a sheet that was taken away is read back as it was', () => {
  const { doc, element } = made();
  const other = addLayer(doc, element, 'Core, "hot"', 'body', null, newId).doc;
  const sheet = exposureSheet(other);
  const quoted = { ...sheet, head: sheet.head.map((each) => `"${each.replaceAll('"', '""')}"`) };
  const read = readSheet(text(quoted));
  if (!('ok' in read)) throw new Error(read.problem);
  expect(read.ok.columns.map(({ name }) => name)).toEqual(sheet.head.slice(1));
  for (const [i, { numbers }] of read.ok.columns.entries())
    expect(numbers.map((n) => (n === null ? '' : String(n)))).toEqual(sheet.rows.map((row) => row[i + 1]));
});

test('written onto a layer, it shows just that, frame by frame', () => {
  const { doc, layer } = made();
  const cell = fc.oneof(fc.constant(null), fc.integer({ min: 1, max: 9 }));
  fc.assert(
    fc.property(fc.array(cell, { minLength: 1, maxLength: 30 }), (cells) => {
      // What shows nothing at the end of a layer takes no time.
      const numbers = [...cells, 1];
      const next = writeSheet(doc, layer, numbers, newId);
      expect(numbersOf(next, layer).slice(0, numbers.length)).toEqual(numbers);
    }),
    { numRuns: 60 },
  );
});

test('separators of other programs, held cells and blanks are read', () => {
  const read = readSheet('﻿Frame;Line;Core\n1;1;\n2;-;x\n3;2;4\n\n');
  expect(read).toEqual({
    ok: {
      columns: [
        { name: 'Line', numbers: [1, 1, 2] },
        { name: 'Core', numbers: [null, null, 4] },
      ],
    },
  });
});

test('what is wrong is told with its line', () => {
  const problem = (of: string): string => (readSheet(of) as { problem: string }).problem;
  expect(problem('')).toBe('There is no frame in this sheet.');
  expect(problem('Frame\n1')).toBe('Line 1 names no layer beside the frames.');
  expect(problem('Frame,Line\n1,1\n3,2')).toBe('Line 3 must be of frame 2: frames follow each other.');
  expect(problem('Frame,Line\n1,seven')).toBe('Line 2, Line: “seven” is no number of a drawing.');
});
