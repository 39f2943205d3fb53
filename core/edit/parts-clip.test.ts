import {
  encodeEntity,
  entitiesOf,
  find,
  findAll,
  newShotDocument,
  putEntities,
  readEntity,
  referencesOf,
  shotOf,
  type Drawing,
  type ShotDocument,
} from '../document/index.ts';
import { DERIVED, touchedOf, type DerivedEntity, type DerivedKind } from '../derived/index.ts';
import { seededIds } from '../geometry/index.ts';
import { everyKind } from '../testing/every-kind.ts';
import { lineOver, pasteParts, takeParts } from './index.ts';

const newId = seededIds(91);
const world = everyKind(seededIds(90));
const element = entitiesOf(world, 'element')[0]!;
const FACTS = { name: 'Other', width: 1280, height: 720, rate: 24, length: 48, background: null };
const other = newShotDocument(newId(), FACTS, newId);
const [layer] = entitiesOf(other, 'layer');

/** Everything that a paste has put in is valid and points at what is there. */
function expectSound(doc: ShotDocument, before: ShotDocument): void {
  for (const entity of Object.values(doc.entities)) {
    if (before.entities[entity.id] === entity) continue;
    expect(readEntity(encodeEntity(entity))).toHaveProperty('ok');
    for (const { id } of referencesOf(entity)) expect(doc.entities[id]).toBeDefined();
  }
}

test.each([
  ['the same shot', world],
  ['another shot', other],
])('a whole element goes into %s with all that belongs to it', (_, target) => {
  const over = entitiesOf(target, 'layer')[0]!;
  const clip = takeParts(world, [element.id]);
  const { doc, copies } = pasteParts(target, clip, over.id, newId);
  expectSound(doc, target);
  const copy = find(doc, 'element', copies.get(element.id))!;
  expect(shotOf(doc).elements[0]).toBe(copy.id);
  expect(copy.layers.length).toBe(element.layers.length);
  const placed = entitiesOf(doc, 'placement').filter(({ elementId }) => elementId === copy.id);
  // However often it is used where it comes from, it is used once here.
  expect(placed).toHaveLength(1);
  const listed = entitiesOf(doc, 'plane').flatMap(({ placements }) => placements);
  for (const { id } of placed) expect(listed).toContain(id);
  // Nothing of it is shared with what it was taken from.
  for (const { id, kind } of clip.entities)
    if (kind !== 'swatch') expect(find(doc, kind, id)).toBe(target.entities[id]);
  for (const kind of Object.keys(DERIVED) as DerivedKind[]) {
    const touched = (of: ShotDocument, elementId: string) =>
      entitiesOf(of, kind)
        .filter((each: DerivedEntity) => each.elementId === elementId)
        .map((each) => touchedOf(of, each).length);
    expect(touched(doc, copy.id)).toEqual(touched(world, element.id));
  }
});

describe('a layer with what is tied to it', () => {
  const line = entitiesOf(world, 'layer').find(
    ({ elementId, slots }) => elementId === element.id && Object.keys(slots).length,
  )!;
  const over = lineOver(world, line.id, 'Over', 'line', newId);
  const clip = takeParts(over.doc, [over.layerId, line.id]);
  const { doc, copies, broughtSwatches } = pasteParts(other, clip, layer!.id, newId);
  const made = [over.layerId, line.id].map((id) => find(doc, 'layer', copies.get(id))!);

  test('lies right over a layer of the other shot, tied as it was, its drawings with it', () => {
    expectSound(doc, other);
    expect(find(doc, 'element', layer!.elementId)!.layers).toEqual([...made.map(({ id }) => id), layer!.id]);
    expect(new Set(made.map(({ runListId }) => runListId)).size).toBe(1);
    expect(made.map(({ elementId }) => elementId)).toEqual([layer!.elementId, layer!.elementId]);
    const marks = (of: ShotDocument, slots: object) =>
      findAll(of, 'drawing', Object.values(slots)).map((drawing: Drawing) => drawing.order.length);
    expect(marks(doc, made[1]!.slots)).toEqual(marks(world, line.slots));
  });

  test('takes the swatches of the palette that are alike, and brings the others along', () => {
    const before = shotOf(other).swatches;
    expect(shotOf(doc).swatches.slice(0, before.length)).toEqual(before);
    expect(shotOf(doc).swatches.length).toBe(before.length + broughtSwatches);
    const again = pasteParts(doc, clip, layer!.id, newId);
    expect(again.broughtSwatches).toBe(
      findAll(doc, 'swatch', shotOf(doc).swatches.slice(before.length)).filter((s) => s.gradient).length,
    );
  });

  test('is called a copy only where its name stands already', () => {
    expect(made[0]!.name).toBe('Over');
    const again = pasteParts(doc, clip, layer!.id, newId);
    expect(find(again.doc, 'layer', again.copies.get(over.layerId))!.name).toBe('Over copy');
  });
});

test('a swatch of the same colour is taken before a new one is made, one of the same name first', () => {
  const shot = shotOf(other);
  const [first, second] = findAll(other, 'swatch', shot.swatches);
  const twin = { ...first!, id: newId(), name: 'Twin' };
  const doubled = putEntities(other, twin, { ...shot, swatches: [twin.id, ...shot.swatches] });
  const source = newShotDocument(newId(), FACTS, newId);
  const like = findAll(source, 'swatch', shotOf(source).swatches);
  const drawing: Drawing = {
    kind: 'drawing',
    id: newId(),
    order: ['a', 'b'],
    marks: Object.fromEntries(
      [like[0]!, like[1]!].map((swatch, i) => [
        'ab'[i]!,
        {
          kind: 'shape',
          id: 'ab'[i]!,
          swatch: swatch.id,
          rings: [Float32Array.of(0, 0, 9, 0, 9, 9)],
          rule: 'evenodd',
          opacity: 1,
        },
      ]),
    ),
  };
  const own = entitiesOf(source, 'layer')[0]!;
  const drawn = putEntities(source, drawing, { ...own, slots: { [newId()]: drawing.id } });
  const { doc, copies, broughtSwatches } = pasteParts(doubled, takeParts(drawn, [own.id]), layer!.id, newId);
  expect(broughtSwatches).toBe(0);
  const [pasted] = findAll(doc, 'drawing', Object.values(find(doc, 'layer', copies.get(own.id))!.slots));
  expect(pasted!.order.map((id) => pasted!.marks[id]).map((m) => m && 'swatch' in m && m.swatch)).toEqual([
    first!.id,
    second!.id,
  ]);
});
