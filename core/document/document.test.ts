import fc from 'fast-check';
import { seededIds } from '../geometry/index.ts';
import {
  decodeColumn,
  documentOf,
  encodeColumn,
  encodeEntity,
  newShotDocument,
  readEntity,
  textProblem,
  type Drawing,
  type Shot,
  type Stroke,
} from './index.ts';

const format = { name: 'Test', width: 640, height: 360, rate: 24, length: 24, background: '#101010' };
const samples = (values: number[]) => {
  const column = Float32Array.from(values);
  return {
    x: column,
    y: column,
    pressure: column.map(() => 0.5),
    altitude: column.map(() => 1),
    azimuth: column.map(() => 0),
  };
};
const newId = seededIds(1);
const stroke = (values: number[], id = newId()): Stroke => ({
  kind: 'stroke',
  id,
  swatch: newId(),
  brush: { kind: 'ink', width: 10, opacity: 1, pressure: true },
  seed: 1,
  samples: samples(values),
});

describe('columns', () => {
  test('come back exactly, whatever they hold', () => {
    fc.assert(
      fc.property(fc.float32Array({ noNaN: true, noDefaultInfinity: true }), (column) => {
        expect(decodeColumn(encodeColumn(column))).toEqual(column);
      }),
    );
  });
  test('are the base64 of little-endian floats', () => {
    expect(encodeColumn(Float32Array.of(1, -2))).toBe(
      Buffer.from(new Uint8Array([0, 0, 128, 63, 0, 0, 0, 192])).toString('base64'),
    );
  });
  test.each(['A', 'AAA=', 'AAAA', '****', 'AACAfw==', 'AADAfw=='])('%s is refused', (text) => {
    expect(decodeColumn(text)).toBeNull();
  });
});

describe('names', () => {
  test.each([[''], ['   '], ['a\u0000b'], ['\ud800'], ['x'.repeat(10_000)], [5]])('%j cannot be one', (name) => {
    expect(textProblem(name, 'The name')).toMatch(/^The name /);
  });
  test.each(['Fire', 'Feuer 🔥', 'ö', 'x'.repeat(200)])('%s can be one', (name) => {
    expect(textProblem(name, 'The name')).toBeNull();
  });
});

describe('bodies', () => {
  const doc = newShotDocument(newId(), format, newId);
  const shot = doc.entities[doc.shotId] as Shot;
  const drawing: Drawing = (() => {
    const mark = stroke([1, 2.5, -3]);
    return { kind: 'drawing', id: newId(), marks: { [mark.id]: mark }, order: [mark.id] };
  })();

  test('of a new shot and a drawing come back from JSON as they were', () => {
    for (const entity of [...Object.values(doc.entities), drawing]) {
      expect(readEntity(JSON.parse(JSON.stringify(encodeEntity(entity))))).toEqual({ ok: entity });
    }
  });

  test.each([
    ['width', 15],
    ['width', 8193],
    ['height', 1.5],
    ['rate', 0],
    ['rate', 121],
    ['length', 0],
    ['length', 10_001],
    ['name', ' '],
    ['background', 'red'],
    ['planes', ['x']],
  ])('of a shot whose %s is %j are refused, naming the field', (field, value) => {
    const read = readEntity({ ...shot, [field]: value });
    expect('problems' in read && read.problems[0]?.field).toMatch(new RegExp(`^${field}`));
  });

  test('with a field that does not belong, of no kind, or no objects are refused', () => {
    for (const body of [{ ...shot, extra: 1 }, { kind: 'castle' }, null, [], 'shot', { kind: '__proto__' }])
      expect(readEntity(body)).toHaveProperty('problems');
  });

  test('of a drawing are refused when order and marks differ, columns differ in length, or pressure leaves its range', () => {
    const body = encodeEntity(drawing) as { marks: Record<string, { samples: Record<string, string> }> };
    const id = drawing.order[0]!;
    const withSamples = (more: Record<string, string>) => ({
      ...body,
      marks: { [id]: { ...body.marks[id], samples: { ...body.marks[id]!.samples, ...more } } },
    });
    expect(readEntity({ ...body, order: [] })).toHaveProperty('problems');
    expect(readEntity(withSamples({ x: encodeColumn(Float32Array.of(1)) }))).toHaveProperty('problems');
    expect(readEntity(withSamples({ pressure: encodeColumn(Float32Array.of(1, 2, 3)) }))).toHaveProperty('problems');
  });

  test('a hundred thousand samples are read', () => {
    const mark = stroke(Array.from({ length: 100_000 }, (_, i) => i / 10));
    const big: Drawing = { ...drawing, marks: { [mark.id]: mark }, order: [mark.id] };
    expect(readEntity(encodeEntity(big))).toEqual({ ok: big });
  });
});

test('a document keeps its entities by id', () => {
  const doc = newShotDocument(newId(), format, newId);
  expect(documentOf(doc.shotId, Object.values(doc.entities))).toEqual(doc);
});
