import fc from 'fast-check';
import { addElement, addLayer, lineOver, setLayer } from '../edit/index.ts';
import { newShotDocument, entitiesOf } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import {
  brighteningLayers,
  fileStem,
  frameName,
  patternProblem,
  leftOut,
  sequencesOf,
  USUAL_PATTERN,
} from './index.ts';

const newId = seededIds(6);
const base = newShotDocument(
  newId(),
  { name: 'Vent smoke', width: 9, height: 9, rate: 24, length: 8, background: null },
  newId,
);
const element = entitiesOf(base, 'element')[0]!;

test('a pattern must number the frames and hold nothing unknown', () => {
  expect(patternProblem(USUAL_PATTERN)).toBeNull();
  expect(patternProblem('{shot}')).toMatch(/\{frame\}/);
  expect(patternProblem('{shop}-{frame}')).toMatch(/\{shop\}/);
  expect(patternProblem('a/{frame}')).toMatch(/“\/”/);
  expect(frameName('{part}_{frame}', 'vent', 'core', 11)).toBe('core_0012');
});

test('stems are never empty and hold nothing a file system could refuse', () => {
  fc.assert(
    fc.property(fc.string(), (name) => {
      expect(fileStem(name)).toMatch(/^[\p{Letter}\p{Number}-]+$/u);
    }),
  );
});

test('layers and elements each get a sequence with a name of its own; hidden and guide layers none', () => {
  const body = addLayer(base, element.id, 'Line', 'body', null, newId);
  const guide = addLayer(body.doc, element.id, 'Guide', 'guide', null, newId);
  expect(sequencesOf(guide.doc, { format: 'png', parts: 'picture', work: false }).map((s) => s.name)).toEqual([
    'vent-smoke',
  ]);
  expect(sequencesOf(guide.doc, { format: 'png', parts: 'layers', work: false }).map((s) => s.name)).toEqual([
    'line',
    'line-2',
  ]);
  // One file holds the whole picture.
  expect(sequencesOf(guide.doc, { format: 'gif', parts: 'layers', work: false })).toHaveLength(1);
  const hidden = setLayer(guide.doc, body.layerId, { visible: false });
  expect(sequencesOf(hidden, { format: 'png', parts: 'layers', work: false }).map((s) => s.name)).toEqual(['line']);
  const two = addElement(hidden, 'Element 1', 0, newId).doc;
  expect(sequencesOf(two, { format: 'png', parts: 'elements', work: false }).map((s) => s.name)).toEqual([
    'element-1',
    'element-1-2',
  ]);
  expect(brighteningLayers(setLayer(two, element.layers[0]!, { blend: 'screen' }))).toEqual(['Line']);
});

test('what is for work is left out by name, and let in where it is wanted', () => {
  const body = addLayer(base, element.id, 'Body', 'body', null, newId);
  const rough = setLayer(body.doc, body.layerId, { forWork: true });
  const { doc } = addLayer(rough, element.id, 'Guide', 'guide', null, newId);
  expect(leftOut(doc)).toEqual([
    { name: 'Guide', why: 'guide' },
    { name: 'Body', why: 'for work' },
  ]);
  const names = (work: boolean) => sequencesOf(doc, { format: 'png', parts: 'layers', work }).map((s) => s.name);
  expect(names(false)).toEqual(['line']);
  expect(names(true).sort()).toEqual(['body', 'line']);
  expect(leftOut(setLayer(doc, body.layerId, { visible: false }))).toEqual([{ name: 'Guide', why: 'guide' }]);
});

test('a rough under a line drawn over it is for work from the start', () => {
  const { doc } = lineOver(base, element.layers[0]!, 'Clean', 'line', newId);
  expect(leftOut(doc).map(({ name }) => name)).toEqual(['Line']);
  const painted = addLayer(base, element.id, 'Body', 'body', null, newId);
  expect(leftOut(lineOver(painted.doc, painted.layerId, 'Clean', 'line', newId).doc)).toEqual([]);
});
