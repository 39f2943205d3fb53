import fc from 'fast-check';
import {
  newShotDocument,
  putEntities,
  shotOf,
  type Drawing,
  type Layer,
  type Shape,
  type ShotDocument,
  entitiesOf,
} from '../document/index.ts';
import { addLayer, addMark, setElement, setLayer } from '../edit/index.ts';
import { polygonRing, seededIds } from '../geometry/index.ts';
import { ByteCache, chunksBox, drawingBox, frameKey, paintsOnLayer, drawListOf } from './index.ts';

const newId = seededIds(12);

describe('the cache', () => {
  test('never holds more than its bound, and gives up the longest unused first', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 1, max: 60 })), { maxLength: 60 }),
        (list) => {
          const gone: number[] = [];
          const cache = new ByteCache<number>(100, (value) => gone.push(value));
          list.forEach(([key, bytes], i) => {
            cache.set(String(key), i, bytes);
            expect(cache.bytes).toBeLessThanOrEqual(100);
            expect(cache.get(String(key))).toBe(i);
          });
          expect(new Set(gone).size).toBe(gone.length);
        },
      ),
    );
    const cache = new ByteCache<string>(2);
    cache.set('a', 'a', 1);
    cache.set('b', 'b', 1);
    cache.get('a');
    cache.set('c', 'c', 1);
    expect([cache.get('a'), cache.get('b'), cache.get('c')]).toEqual(['a', undefined, 'c']);
  });
  test('what is larger than all of it is not kept; clearing releases everything', () => {
    let released = 0;
    const cache = new ByteCache<number>(10, () => (released += 1));
    expect(cache.set('big', 1, 11)).toBe(false);
    cache.set('x', 1, 5);
    cache.clear();
    expect([released, cache.bytes]).toEqual([1, 0]);
  });
});

describe('items of a frame', () => {
  const square = (): Shape => ({
    kind: 'shape',
    id: newId(),
    swatch: shotOf(base).swatches[1]!,
    rule: 'evenodd',
    opacity: 1,
    rings: [
      polygonRing([
        [0, 0],
        [10, 0],
        [10, 20],
        [0, 20],
      ]),
    ],
  });
  const base = newShotDocument(
    newId(),
    { name: 'T', width: 100, height: 50, rate: 24, length: 12, background: null },
    newId,
  );
  const element = entitiesOf(base, 'element')[0]!;
  const line = element.layers[0]!;
  const top = addLayer(base, element.id, 'Top', 'body', line, newId);
  const doc: ShotDocument = setElement(
    addMark(addMark(top.doc, line, 0, square(), newId), top.layerId, 1, square(), newId),
    element.id,
    { time: 'cycle' },
  );

  test('lie from the lowest to the topmost, placed in the shot, turn after turn', () => {
    expect(drawListOf(doc, 1, { guides: true }).map((s) => s.layerId)).toEqual([line, top.layerId]);
    expect(drawListOf(doc, 0, { guides: true }).map((s) => s.layerId)).toEqual([line]);
    expect(drawListOf(doc, 1, { guides: true })[0]!.matrix).toEqual([1, 0, 0, 1, 50, 25]);
    expect(frameKey(drawListOf(doc, 4, { guides: true }))).toBe(frameKey(drawListOf(doc, 1, { guides: true })));
    expect(frameKey(drawListOf(doc, 0, { guides: true }))).not.toBe(frameKey(drawListOf(doc, 1, { guides: true })));
  });
  test('leave out hidden layers, guides where they are not wanted, drawings not loaded, and time before the start', () => {
    const layers = (d: ShotDocument, guides: boolean, frame = 1) =>
      drawListOf(d, frame, { guides }).map((s) => s.layerId);
    expect(layers(setLayer(doc, line, { visible: false }), true)).toEqual([top.layerId]);
    const guided = setLayer(doc, line, { role: 'guide' });
    expect([layers(guided, true), layers(guided, false)]).toEqual([[line, top.layerId], [top.layerId]]);
    const drawing = Object.values((doc.entities[line] as Layer).slots)[0]!;
    const entities = Object.fromEntries(Object.entries(doc.entities).filter(([id]) => id !== drawing));
    expect(layers({ ...doc, entities }, true)).toEqual([top.layerId]);
    const placement = entitiesOf(doc, 'placement')[0]!;
    expect(layers(putEntities(doc, { ...placement, start: 5 }), true)).toEqual([]);
  });
  test('take their colours from the palette; a swatch that is gone shows grey', () => {
    expect(paintsOnLayer(doc, undefined)(shotOf(doc).swatches[1]!)).toBe('#e2581c');
    expect(paintsOnLayer(doc, undefined)(newId())).toBe('#808080');
  });
  test('the box of a drawing holds its shapes and strokes, rub-outs add nothing', () => {
    const flat = (...v: number[]) => Float32Array.of(...v);
    const samples = {
      x: flat(100, 200),
      y: flat(0, 0),
      pressure: flat(1, 1),
      altitude: flat(1, 1),
      azimuth: flat(0, 0),
    };
    const brush = { kind: 'ink', width: 10, opacity: 1, pressure: false } as const;
    const marks = [
      square(),
      { kind: 'stroke', id: newId(), swatch: newId(), brush, seed: 0, samples } as const,
      { kind: 'rub', id: newId(), brush, seed: 0, samples: { ...samples, x: flat(900, 901) } } as const,
    ];
    const drawing: Drawing = {
      kind: 'drawing',
      id: newId(),
      marks: Object.fromEntries(marks.map((m) => [m.id, m])),
      order: marks.map((m) => m.id),
    };
    expect(drawingBox(drawing)).toEqual({ left: 0, top: -5, right: 205, bottom: 20 });
    expect(chunksBox({ samples, brush }, 0, 1, [2, 0, 0, 2, 0, 0])).toEqual({
      left: 189,
      top: -11,
      right: 411,
      bottom: 11,
    });
  });
});
