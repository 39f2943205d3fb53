import { seededIds } from '../geometry/index.ts';
import {
  documentOf,
  encodeEntity,
  entitiesOf,
  newGuide,
  newPath,
  newShotDocument,
  readEntity,
  referencesOf,
  type Element,
  type Entity,
  type Layer,
  type Starter,
} from './index.ts';
import { duplicateShot } from '../edit/index.ts';

const newId = seededIds(3);
const doc = newShotDocument(
  newId(),
  { name: 'Test', width: 640, height: 360, rate: 24, length: 24, background: null },
  newId,
);
const element = entitiesOf(doc, 'element')[0]!;
const nodes = Float32Array.of(0, 0, 0, 0, 10, 0, 90, 50, 80, 50, 90, 50);
const drawn = newPath(element.id, 'Path 1', nodes, false, newId);
const path = { ...drawn, standIn: { ...drawn.standIn, form: 'shape' as const, shape: nodes.slice() } };
const guide = newGuide(null, 'level', 'Floor', { x: 0, y: 300, toX: 10, toY: 300 }, newId);
const starter: Starter = {
  kind: 'starter',
  id: newId(),
  elementId: element.id,
  effect: 'fire',
  seed: 4,
  x: 1,
  y: 2,
  settings: { height: 300 },
  line: Float32Array.of(0, 0, 40, 5),
  pathId: path.id,
  from: 0,
  length: 24,
  hold: null,
  layers: { body: element.layers[0]! },
  paints: {},
  laid: { body: [{ drawingId: newId(), slot: newId(), print: 'abcdef' }] },
  along: null,
};

describe('what is planned', () => {
  test.each<[string, Entity]>([
    ['path', path],
    ['guide', guide],
    ['starter', starter],
  ])('a %s comes back exactly through JSON', (_, entity) => {
    expect(readEntity(JSON.parse(JSON.stringify(encodeEntity(entity))))).toEqual({ ok: entity });
  });

  test('bodies from before planning are read as having nothing planned', () => {
    const { anchor, bases, phases, mood, paths, ...old } = element;
    expect(readEntity(old)).toEqual({ ok: { ...old, anchor, bases, phases, mood, paths } });
    const layer = entitiesOf(doc, 'layer')[0]!;
    const { starterId, ...oldLayer } = layer;
    expect(starterId).toBeNull();
    expect(readEntity(oldLayer)).toEqual({ ok: layer });
  });

  test.each<[string, string, unknown]>([
    ['path', 'ticks', 1],
    ['path', 'softStart', 1.2],
    ['path', 'placed', { '-1': 0.5 }],
    ['path', 'slows', [{ id: path.id, at: 2, width: 0.2, amount: 0.5 }]],
    ['path', 'nodes', 'AAAA'],
    ['guide', 'form', 'spiral'],
    ['guide', 'span', { from: 0, length: 0 }],
    ['starter', 'effect', 'rain'],
    ['starter', 'settings', { height: 'tall' }],
    ['starter', 'settings', { '__proto__x y': 1 }],
    ['starter', 'length', 100_000],
    ['starter', 'line', 'AAAA'],
    ['starter', 'seed', -1],
    ['element', 'mood', 'sleepy'],
    ['element', 'phases', [{ id: path.id, name: 'Burst', length: 0, hold: 1 }]],
    ['element', 'bases', [{ id: path.id, name: '', x: 0, y: 0, notes: [] }]],
  ])('a %s whose %s is %j is refused, naming the field', (kind, field, value) => {
    const body = [path, guide, starter, element].find((e) => e.kind === kind)!;
    const read = readEntity({ ...encodeEntity(body), [field]: value });
    expect('problems' in read && read.problems[0]!.field.split('.')[0]).toBe(field);
  });

  test('points at what it needs: an element at its paths, a layer at its starter', () => {
    expect(referencesOf({ ...element, paths: [path.id] })).toContainEqual({ field: 'paths', id: path.id });
    const layer = entitiesOf(doc, 'layer')[0]!;
    expect(referencesOf({ ...layer, starterId: starter.id })).toContainEqual({ field: 'starterId', id: starter.id });
    expect(referencesOf(guide)).toEqual([]);
  });

  test('a copy of a shot has paths, guides and starters of its own', () => {
    const layer = entitiesOf(doc, 'layer')[0]!;
    const planned = documentOf(doc.shotId, [
      ...Object.values(doc.entities),
      { ...element, paths: [path.id] },
      { ...layer, starterId: starter.id },
      path,
      guide,
      starter,
    ]);
    const copy = duplicateShot(planned, newId(), newId);
    const own = Object.values(copy.entities);
    const made = own.find((e): e is Starter => e.kind === 'starter')!;
    expect(made.id).not.toBe(starter.id);
    expect(own.find((e) => e.kind === 'path')!.id).toBe(made.pathId);
    expect(own.find((e): e is Layer => e.kind === 'layer')!.starterId).toBe(made.id);
    expect(own.find((e): e is Element => e.kind === 'element')!.paths).toEqual([made.pathId]);
  });
});
