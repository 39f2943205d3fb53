import {
  emptyDrawing,
  find,
  newShotDocument,
  shotOf,
  type Layer,
  type ShotDocument,
  type Stroke,
  entitiesOf,
} from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { nodePoints, wayOf, wayThrough } from '../plan/index.ts';
import { addMarks } from './drawings.ts';
import {
  addGuide,
  addPath,
  addSketch,
  cutPath,
  deleteGuide,
  deletePath,
  joinPaths,
  revealDrawing,
  setGuide,
  setPath,
  setPlan,
  stampPath,
} from './plan.ts';

const newId = seededIds(19);
const doc = newShotDocument(
  newId(),
  { name: 'Shot', width: 640, height: 360, rate: 24, length: 24, background: null },
  newId,
);
const element = entitiesOf(doc, 'element')[0]!;
const swatch = shotOf(doc).swatches[0]!;
const nodes = wayThrough(
  [
    { x: 0, y: 0 },
    { x: 100, y: 50 },
    { x: 200, y: 0 },
    { x: 300, y: 80 },
  ],
  false,
);
const planned = addPath(doc, element.id, { nodes, closed: false }, 0, newId);
const paths = (d: ShotDocument) => find(d, 'element', element.id)!.paths;

test('a path belongs to its element until it is deleted', () => {
  expect(paths(planned.doc)).toEqual([planned.pathId]);
  const gone = deletePath(planned.doc, planned.pathId);
  expect(paths(gone)).toEqual([]);
  expect(find(gone, 'path', planned.pathId)).toBeUndefined();
});

test('taken apart and joined again it is as long as before, and one path again', () => {
  const cut = cutPath(planned.doc, planned.pathId, 1, newId);
  expect(paths(cut)).toHaveLength(2);
  const [first, second] = paths(cut).map((id) => nodePoints(find(cut, 'path', id)!.nodes).length);
  expect([first, second]).toEqual([2, 3]);
  const joined = joinPaths(cut, paths(cut)[0]!, paths(cut)[1]!);
  expect(paths(joined)).toEqual([planned.pathId]);
  const long = (d: ShotDocument) => wayOf(find(d, 'path', planned.pathId)!).length;
  expect(long(joined)).toBeCloseTo(long(planned.doc), 1);
});

test('stamping makes a drawing per tick on a layer of its own; on 2s every second one, to the same end', () => {
  const set = setPath(planned.doc, planned.pathId, { ticks: 9, from: 3, hold: 1 });
  for (const [every, count, last] of [
    [1, 9, 1],
    [2, 5, 1],
  ] as const) {
    const stamped = stampPath(set, planned.pathId, swatch, every, newId);
    const layer = find(stamped.doc, 'layer', stamped.layerId)!;
    const { runs } = find(stamped.doc, 'runlist', layer.runListId)!;
    expect(runs[0]).toMatchObject({ slot: null, length: 3 });
    expect(runs.slice(1)).toHaveLength(count);
    expect(runs.at(-1)!.length).toBe(last);
    expect(runs.reduce((n, r) => n + r.length, 0)).toBe(12);
    for (const id of Object.values(layer.slots)) expect(find(stamped.doc, 'drawing', id)!.order).toHaveLength(1);
  }
});

test('guides are the shot’s own list, and plans are set on the element alone', () => {
  const guided = addGuide(doc, null, 'level', { x: 0, y: 300, toX: 1, toY: 300 }, newId);
  expect(shotOf(guided.doc).guides).toEqual([guided.guideId]);
  const spanned = setGuide(guided.doc, guided.guideId, { span: { from: 2, length: 5 }, locked: true });
  expect(find(spanned, 'guide', guided.guideId)).toMatchObject({ locked: true, span: { from: 2, length: 5 } });
  expect(shotOf(deleteGuide(spanned, guided.guideId)).guides).toEqual([]);
  expect(find(setPlan(doc, element.id, { mood: 'angry' }), 'element', element.id)!.mood).toBe('angry');
});

test('a rough sketch is a faint guide layer shown throughout', () => {
  const sketched = addSketch(doc, element.id, newId);
  const layer = find(sketched.doc, 'layer', sketched.layerId)!;
  expect(layer.role).toBe('guide');
  expect(find(sketched.doc, 'runlist', layer.runListId)!.period).toBe(1);
});

test('strokes of a drawing are revealed and taken away on a new layer; a drawing without strokes is refused', () => {
  const samples = {
    x: Float32Array.of(0, 100),
    y: Float32Array.of(0, 0),
    pressure: Float32Array.of(1, 1),
    altitude: Float32Array.of(1, 1),
    azimuth: Float32Array.of(0, 0),
  };
  const stroke: Stroke = {
    kind: 'stroke',
    id: newId(),
    swatch,
    brush: { kind: 'ink', width: 4, opacity: 1, pressure: true },
    seed: 1,
    samples,
  };
  const drawn = addMarks(doc, element.layers[0]!, 0, [stroke], newId);
  const drawing = entitiesOf(drawn, 'drawing')[0]!;
  const laid = revealDrawing(drawn, element.id, drawing.id, { comes: 4, goes: 4, overlap: 1 }, 2, 1, newId);
  const layer = find(laid.doc, 'layer', laid.layerId) as Layer;
  const own = Object.values(layer.slots).map((id) => Object.values(find(laid.doc, 'drawing', id)!.marks)[0]);
  expect(own).toHaveLength(7);
  expect(own.map((mark) => (mark?.kind === 'stroke' ? mark.samples.x.at(-1) : null))).toEqual([
    25,
    50,
    75,
    100,
    100,
    100,
    null,
  ]);
  expect(own[4]?.kind === 'stroke' && own[4].samples.x[0]).toBe(50);
  const empty = emptyDrawing(newId());
  const blank = { ...doc, entities: { ...doc.entities, [empty.id]: empty } };
  expect(() => revealDrawing(blank, element.id, empty.id, { comes: 2, goes: 2, overlap: 0 }, 0, 1, newId)).toThrow(
    'no stroke',
  );
});
