import { addElement, addMark, newDrawing, setElement } from '../edit/index.ts';
import { find, newShotDocument, shotOf, entitiesOf } from '../document/index.ts';
import { seededIds, discRing } from '../geometry/index.ts';
import { exposureSheet, sheetPage } from './index.ts';

const newId = seededIds(5);
const base = newShotDocument(newId(), { name: 'T', width: 9, height: 9, rate: 24, length: 8, background: null }, newId);
const element = entitiesOf(base, 'element')[0]!;
const layer = element.layers[0]!;
const dot = () => ({
  kind: 'shape' as const,
  id: newId(),
  swatch: shotOf(base).swatches[0]!,
  rule: 'nonzero' as const,
  opacity: 1,
  rings: [discRing(0, 0, 3)],
});
let doc = addMark(base, layer, 0, dot(), newId);
doc = addMark(newDrawing(doc, layer, 0, newId).doc, layer, 2, dot(), newId);
doc = setElement(doc, element.id, { time: 'cycle' });
const smoke = addElement(doc, 'Smoke', 3, newId);
const smokeLayer = find(smoke.doc, 'element', smoke.elementId)!.layers[0]!;
const whole = addMark(smoke.doc, smokeLayer, 0, dot(), newId);

test('names every layer and numbers its drawings on the frames they show, turn after turn', () => {
  const { head, rows } = exposureSheet(whole);
  expect(head).toEqual(['Frame', 'Smoke / Line', 'Element 1 / Line']);
  expect(rows.map((row) => row.join(','))).toEqual(['1,,1', '2,,1', '3,,2', '4,1,2', '5,1,1', '6,,1', '7,,2', '8,,2']);
});

test('on paper it is a table with its head on every page, holds as lines, nothing hatched, seconds told by a line', () => {
  const page = sheetPage(whole, 0, 8);
  expect(page).toMatch(/^<!doctype html>/);
  expect(page.match(/<tr/g)).toHaveLength(9);
  const { rows } = exposureSheet(whole, 0, 8);
  const numbers = [...page.matchAll(/<td>(\d+)<\/td>/g)].map(([, number]) => number);
  const begins = rows.flatMap((row, i) => row.slice(1).filter((n, k) => n !== '' && n !== rows[i - 1]?.[k + 1]));
  expect(numbers).toEqual(begins);
  expect(page).not.toMatch(/undefined|NaN/);
});
