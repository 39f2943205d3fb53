import fc from 'fast-check';
import {
  derivedId,
  dropEntities,
  encodeEntity,
  isId,
  mergeEntity,
  newPath,
  readEntity,
  same,
  type Drawing,
  type Entity,
  type Id,
  type Starter,
  type Stroke,
  type Tone,
  entitiesOf,
} from '../document/index.ts';
import { fixture } from '../fixture.ts';
import { addMark, addMarks, addSwatch, newTone, setLayer, setSwatch } from './index.ts';
import { adoptPending, takeIn, type Acknowledged, type Pending, type Theirs } from './take-in.ts';

const { base, layerId, elementId, newId, swatch, stroke } = fixture();
const start = addMark(base, layerId, 0, stroke(0, 0, 9, 9), newId);
const drawing = entitiesOf(start, 'drawing')[0]!;
const known = (doc = start): Acknowledged => ({
  revision: 1,
  bodies: new Map(Object.entries(doc.entities)),
  gone: new Set(),
});
const told = (doc: typeof start, ...ids: Id[]): Theirs[] => ids.map((id) => ({ id, entity: doc.entities[id] ?? null }));
const entityOf = <K extends Entity['kind']>(doc: typeof start, id: Id) =>
  doc.entities[id] as Extract<Entity, { kind: K }>;
const tone = (): Tone => ({
  ...newTone(entityOf<'layer'>(start, layerId), newId),
  layers: { shade: newId() },
  swatches: { shade: swatch },
  laid: {},
});
const starter = (): Starter => ({
  kind: 'starter',
  id: newId(),
  elementId,
  effect: 'fire',
  seed: 1,
  x: 0,
  y: 0,
  settings: { height: 200, sway: 1 },
  line: null,
  pathId: null,
  from: 0,
  length: 12,
  hold: 2,
  layers: { body: newId() },
  paints: { body: swatch },
  laid: { body: [] },
  along: null,
});

describe('merging any kind', () => {
  test('records of starters and tone come together key by key, at any depth', () => {
    const from = starter();
    const more = newId();
    expect(
      mergeEntity(
        from,
        { ...from, settings: { ...from.settings, sway: 2 }, layers: { ...from.layers, core: more } },
        { ...from, settings: { ...from.settings, height: 90 }, paints: { body: more } },
      ),
    ).toEqual({
      merged: {
        ...from,
        settings: { height: 90, sway: 2 },
        layers: { ...from.layers, core: more },
        paints: { body: more },
      },
      clashes: [],
    });
    const layer = newId();
    const shade: Tone = { ...tone(), laid: { [layer]: { a: 'one' } } };
    const merged = mergeEntity(
      shade,
      { ...shade, laid: { [layer]: { a: 'one', b: 'two' } } },
      { ...shade, laid: { [layer]: { a: 'one', c: 'three' } } },
    );
    expect(merged.merged.laid).toEqual({ [layer]: { a: 'one', b: 'two', c: 'three' } });
  });
  test('a body merged with itself, or with one side unchanged, is that body', () => {
    const all: Entity[] = [...Object.values(start.entities), tone(), starter()];
    all.push(newPath(elementId, 'Path', Float32Array.of(0, 0, 0, 0, 3, 0, 9, 0, 6, 0, 9, 0), false, newId));
    for (const entity of all) {
      const other = (readEntity(encodeEntity(entity)) as { ok: Entity }).ok;
      expect(mergeEntity(entity, entity, other).merged).toEqual(entity);
      expect(mergeEntity(undefined, entity, other).merged).toEqual(entity);
    }
  });
  test('without a common body the parts of both are kept', () => {
    const [mine, theirs] = [stroke(1, 1, 2, 2), stroke(3, 3, 4, 4)].map((mark): Drawing => ({
      kind: 'drawing',
      id: drawing.id,
      marks: { [mark.id]: mark },
      order: [mark.id],
    }));
    const { merged } = mergeEntity(undefined, mine!, theirs!);
    expect(new Set(merged.order)).toEqual(new Set([...mine!.order, ...theirs!.order]));
  });
});

test('ids that are derived are ids, differ with what they are of, and are the same for the same', () => {
  fc.assert(
    fc.property(fc.uuid(), fc.anything({ maxDepth: 2 }), fc.anything({ maxDepth: 2 }), (id, a, b) => {
      const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value ?? null)) as unknown;
      const [one, other] = [plain(a), plain(b)];
      expect(isId(derivedId(id, one))).toBe(true);
      expect(derivedId(id, one)).toBe(derivedId(id, plain(one)));
      if (!same(one, other)) expect(derivedId(id, one)).not.toBe(derivedId(id, other));
    }),
  );
});

describe('taking in what others changed', () => {
  test('strokes of both are there; what is the same as here is no change and no clash', () => {
    const mine = addMarks(start, layerId, 0, [stroke(1, 1, 2, 2)], newId);
    const theirs = addMarks(start, layerId, 0, [stroke(5, 5, 6, 6)], newId);
    const result = takeIn(mine, known(), told(theirs, drawing.id), 2);
    expect(entityOf<'drawing'>(result.doc, drawing.id).order).toHaveLength(3);
    expect(result).toMatchObject({ keep: null, notices: [], acknowledged: { revision: 2 } });
    // The same save met again, under another saveId: nothing is added.
    const again = takeIn(result.doc, result.acknowledged, told(result.doc, drawing.id), 3);
    expect(again.doc.entities[drawing.id]).toBe(result.doc.entities[drawing.id]);
    expect(again.acknowledged.bodies.get(drawing.id)).toBe(result.doc.entities[drawing.id]);
  });
  test('a body that comes back as it was keeps its identity, which undo goes by', () => {
    const copy = (readEntity(encodeEntity(drawing)) as { ok: Entity }).ok;
    expect(takeIn(start, known(), [{ id: drawing.id, entity: copy }], 2).doc).toBe(start);
  });
  test('one thing changed twice is kept twice, however often it is met', () => {
    const withSwatch = addSwatch(start, { name: 'glow', role: 'light', colour: '#111111' }, newId);
    const from = withSwatch.doc;
    const id = withSwatch.swatchId;
    const mine = setSwatch(from, id, { colour: '#222222' });
    const theirs = told(setSwatch(from, id, { colour: '#333333' }), id);
    const result = takeIn(mine, known(from), theirs, 2);
    expect(result.notices).toHaveLength(1);
    const kept = result.keep!(result.doc);
    const again = takeIn({ ...kept, entities: { ...kept.entities, [id]: mine.entities[id]! } }, known(from), theirs, 2);
    expect(again.keep).toBeNull();
    expect(entitiesOf(kept, 'swatch').filter((e) => e.name.startsWith('glow'))).toHaveLength(2);
  });
  test('a drawing deleted there and drawn on here gets a layer of its own, once', () => {
    const mine = addMarks(start, layerId, 0, [stroke(1, 1, 2, 2)], newId);
    const bare = { ...entityOf<'layer'>(start, layerId), slots: {} };
    const theirs: Theirs[] = [
      { id: drawing.id, entity: null },
      { id: layerId, entity: bare },
    ];
    const result = takeIn(mine, known(), theirs, 2);
    const kept = result.keep!(result.doc);
    const layers = entitiesOf(kept, 'layer');
    expect(layers.filter(({ slots }) => Object.values(slots).includes(drawing.id))).toHaveLength(1);
    expect(takeIn(kept, result.acknowledged, [{ id: drawing.id, entity: null }], 3).keep).toBeNull();
  });
  test('a body that cannot be merged changes nothing at all', () => {
    const before = known();
    const broken = { id: layerId, entity: { ...entityOf<'layer'>(start, layerId), slots: null as never } };
    const mine = setLayer(start, layerId, { name: 'Mine' });
    expect(() => takeIn(mine, before, [...told(start, drawing.id), broken], 9)).toThrow();
    expect(before).toEqual(known());
  });
});

describe('adopting what was left unsaved', () => {
  const mark = stroke(1, 1, 2, 2);
  const left = addMarks(start, layerId, 0, [mark], newId);
  const pending: Pending[] = [{ id: drawing.id, entity: left.entities[drawing.id]!, base: drawing }];
  test('puts it in; again, or after it has arrived, adds nothing', () => {
    const once = adoptPending(start, known(), pending);
    expect(entityOf<'drawing'>(once.doc, drawing.id).order).toContain(mark.id);
    const moreHere = addMarks(once.doc, layerId, 0, [stroke(7, 7, 8, 8)], newId);
    expect(adoptPending(moreHere, known(), pending).doc).toBe(moreHere);
  });
  test('any number of orphans in any order, adopted any number of times, give each stroke once', () => {
    const strokes = Array.from({ length: 5 }, (_, i) => stroke(i, 1, i, 2));
    const orphans = strokes.map((each): Pending[] => [
      { id: drawing.id, entity: addMarks(start, layerId, 0, [each], newId).entities[drawing.id]!, base: drawing },
    ]);
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 4 }), { minLength: 1, maxLength: 12 }), (order) => {
        const doc = order.reduce((now, i) => adoptPending(now, known(), orphans[i]!).doc, start);
        const expected = new Set(order.map((i) => strokes[i]!.id));
        const { order: marks } = entityOf<'drawing'>(doc, drawing.id);
        expect(marks).toHaveLength(1 + expected.size);
        for (const id of expected) expect(marks).toContain(id);
      }),
    );
  });
  test('what was deleted there is brought back in so many words; a deletion of what changed since is left out', () => {
    const gone: Acknowledged = { ...known(), bodies: new Map([...known().bodies].filter(([id]) => id !== drawing.id)) };
    const back = adoptPending(dropEntities(start, [drawing.id]), gone, pending);
    expect(back.acknowledged.gone.has(drawing.id)).toBe(true);
    expect(back.doc.entities[drawing.id]).toBe(pending[0]!.entity);
    const deleted: Pending[] = [{ id: drawing.id, entity: null, base: drawing }];
    expect(adoptPending(start, known(), deleted).doc.entities[drawing.id]).toBeUndefined();
    expect(adoptPending(left, known(left), deleted).doc).toBe(left);
  });
  test('a mark changed there and here is kept twice, the second under an id that hangs on it', () => {
    const changed = (width: number): Drawing => {
      const [id] = drawing.order;
      const from = drawing.marks[id!] as Stroke;
      return { ...drawing, marks: { [id!]: { ...from, brush: { ...from.brush, width } } } };
    };
    const here = { ...start, entities: { ...start.entities, [drawing.id]: changed(7) } };
    const left2: Pending[] = [{ id: drawing.id, entity: changed(9), base: drawing }];
    const once = adoptPending(here, known(here), left2).doc;
    expect(entityOf<'drawing'>(once, drawing.id).order).toHaveLength(2);
    expect(adoptPending(once, known(here), left2).doc).toBe(once);
  });
});
