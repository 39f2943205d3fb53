import { entitiesOf, find, findAll, newShotDocument, shotOf } from '../document/index.ts';
import { ringBox, seededIds } from '../geometry/index.ts';
import { elementLength } from '../timing/index.ts';
import { addBrought, type BroughtMarks } from './brought-marks.ts';

const newId = seededIds(3);
const doc = newShotDocument(
  newId(),
  { name: 'A', width: 640, height: 360, rate: 24, length: 20, background: null },
  newId,
);
const known = findAll(doc, 'swatch', shotOf(doc).swatches)[0]!.colour;
const ring = Float32Array.of(0, 0, 0, 0, 0, 0, 320, 0, 320, 0, 320, 0, 320, 180, 320, 180, 320, 180);
const column = (...values: number[]) => Float32Array.from(values);
const brought: BroughtMarks = {
  width: 320,
  height: 180,
  layers: [
    {
      name: 'Back',
      marks: [
        { kind: 'shape', rings: [ring], rule: 'nonzero', opacity: 1, colour: known },
        { kind: 'shape', rings: [ring], rule: 'nonzero', opacity: 1, colour: '#0a0b0c' },
      ],
    },
    {
      name: 'Front',
      marks: [
        {
          kind: 'stroke',
          seed: 1,
          brush: { kind: 'ink', width: 3, opacity: 1, pressure: false },
          samples: {
            x: column(0, 9),
            y: column(0, 9),
            pressure: column(1, 1),
            altitude: column(1, 1),
            azimuth: column(0, 0),
          },
          colour: '#0a0b0c',
        },
      ],
    },
  ],
};

test('marks from outside become an element as large as the picture, its layers as they lay, held to the end', () => {
  const { doc: next, elementId } = addBrought(doc, 'Sign', brought, 4, newId);
  const element = find(next, 'element', elementId)!;
  expect(shotOf(next).elements[0]).toBe(elementId);
  const layers = findAll(next, 'layer', element.layers);
  expect(layers.map(({ name, role }) => [name, role])).toEqual([
    ['Front', 'line'],
    ['Back', 'body'],
  ]);
  expect(elementLength(next, element)).toBe(16);
  const back = find(next, 'drawing', Object.values(layers[1]!.slots)[0])!;
  const shape = back.marks[back.order[0]!]!;
  expect(shape.kind === 'shape' && ringBox(shape.rings[0]!)).toEqual({
    left: -320,
    top: -180,
    right: 320,
    bottom: 180,
  });
  const front = find(next, 'drawing', Object.values(layers[0]!.slots)[0])!;
  expect(front.marks[front.order[0]!]).toMatchObject({ brush: { width: 6 } });
});

test('a colour the palette has is its swatch; others are added once', () => {
  const { doc: next } = addBrought(doc, 'Sign', brought, 0, newId);
  const added = shotOf(next).swatches.length - shotOf(doc).swatches.length;
  expect(added).toBe(1);
  expect(entitiesOf(next, 'swatch').filter(({ colour }) => colour === '#0a0b0c')).toHaveLength(1);
});
