import fc from 'fast-check';
import { addElement, addLayer, setLayer } from '../edit/index.ts';
import { newShotDocument, entitiesOf } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { brighteningLayers, fileStem, frameName, patternProblem, sequencesOf, USUAL_PATTERN } from './index.ts';

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
  expect(sequencesOf(guide.doc, { format: 'png', parts: 'picture' }).map((s) => s.name)).toEqual(['vent-smoke']);
  expect(sequencesOf(guide.doc, { format: 'png', parts: 'layers' }).map((s) => s.name)).toEqual(['line', 'line-2']);
  // One file holds the whole picture.
  expect(sequencesOf(guide.doc, { format: 'gif', parts: 'layers' })).toHaveLength(1);
  const hidden = setLayer(guide.doc, body.layerId, { visible: false });
  expect(sequencesOf(hidden, { format: 'png', parts: 'layers' }).map((s) => s.name)).toEqual(['line']);
  const two = addElement(hidden, 'Element 1', 0, newId).doc;
  expect(sequencesOf(two, { format: 'png', parts: 'elements' }).map((s) => s.name)).toEqual([
    'element-1',
    'element-1-2',
  ]);
  expect(brighteningLayers(setLayer(two, element.layers[0]!, { blend: 'screen' }))).toEqual(['Line']);
});
