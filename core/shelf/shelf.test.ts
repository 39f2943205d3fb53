import fc from 'fast-check';
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import {
  documentOf,
  entitiesOf,
  find,
  newShotDocument,
  putEntities,
  referencesOf,
  shotOf,
  type ShotDocument,
} from '../document/index.ts';
import { addElement, addLayer, addMark, setPlacements, setSwatch } from '../edit/index.ts';
import { elementLength, placedElements } from '../timing/index.ts';
import {
  ASKED_NOTHING,
  changeWords,
  fromShelf,
  isFound,
  keepOlder,
  keptAlone,
  putFromShelf,
  shelfFacts,
  takeNewer,
  wouldChange,
  type ShelfClip,
} from './index.ts';

const made = fixture(61);
const { layerId, elementId, newId, stroke, swatch } = made;

/** A cycle of four drawings with a second layer, used twice, beside another element. */
const shot = ((): ShotDocument => {
  let doc = cycleOf(made, 4, (i) => stroke(i * 9, 0, i * 9 + 20, 10));
  const added = addLayer(doc, elementId, 'Core', 'body', null, newId);
  doc = addMark(added.doc, added.layerId, 0, stroke(1, 1, 5, 5), newId);
  doc = setSwatch(doc, swatch, { colour: '#ff8a2b', name: 'Flame' });
  doc = putEntities(doc, { ...find(doc, 'element', elementId)!, anchor: { x: 5, y: -40 } });
  const use = entitiesOf(doc, 'placement').find((each) => each.elementId === elementId)!;
  doc = setPlacements(doc, [use.id], { x: 300, y: 200, start: 7, phase: 2 });
  return addElement(doc, 'Beside', 0, newId).doc;
})();
const keptId = newId();
const kept = keptAlone(shot, elementId, { id: keptId, name: 'Furnace fire' }, newId)!;

describe('an element is kept', () => {
  it('alone, as long as it is, where it stood, from its first frame', () => {
    const [one, ...others] = placedElements(kept);
    expect(others).toEqual([]);
    expect(shotOf(kept)).toMatchObject({ id: keptId, name: 'Furnace fire', width: shotOf(shot).width });
    expect(shotOf(kept).length).toBe(elementLength(shot, find(shot, 'element', elementId)!));
    expect(one!.placement).toMatchObject({ start: 0, phase: 0, x: 300, y: 200 });
    expect(one!.element).toMatchObject({ name: 'Furnace fire', anchor: { x: 5, y: -40 }, time: 'cycle' });
    expect(entitiesOf(kept, 'layer')).toHaveLength(2);
    expect(entitiesOf(kept, 'drawing')).toHaveLength(5);
    expect(shelfFacts(kept)).toEqual({ time: 'cycle', colours: expect.arrayContaining(['#ff8a2b']) as string[] });
  });

  it('whole: everything it points at is there, and nothing has an id of the shot it came from', () => {
    for (const entity of Object.values(kept.entities))
      for (const { id } of referencesOf(entity)) expect(kept.entities[id]).toBeDefined();
    const shared = Object.keys(kept.entities).filter((id) => id in shot.entities);
    expect(shared).toEqual([]);
  });

  it('not at all where it is not there', () => {
    expect(keptAlone(shot, newId(), { id: newId(), name: 'Nothing' }, newId)).toBeNull();
  });
});

describe('put into another shot', () => {
  const clip: ShelfClip = {
    shotId: keptId,
    roots: [placedElements(kept)[0]!.element.id],
    entities: Object.values(kept.entities).filter(({ kind }) => kind !== 'shot' && kind !== 'plane'),
    made: { width: shotOf(kept).width, height: shotOf(kept).height },
    from: { shelfId: keptId, revision: 3 },
  };
  const into = (width: number, height: number) =>
    newShotDocument(newId(), { name: 'Into', width, height, rate: 24, length: 48, background: null }, newId);

  it('its anchor stands where it was dropped, and it is sized to the shot', () => {
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 4000 }), fc.integer({ min: 200, max: 4000 }), (width, height) => {
        const at = { x: width * 0.3, y: height * 0.8 };
        const put = putFromShelf(into(width, height), clip, { at, start: 12 }, newId);
        const placement = find(put.doc, 'placement', put.placementId!)!;
        const { anchor } = find(put.doc, 'element', put.elementId)!;
        expect(placement.x + anchor.x).toBeCloseTo(at.x, 6);
        expect(placement.y + anchor.y).toBeCloseTo(at.y, 6);
        expect(placement.start).toBe(12);
        const by = Math.min(width / clip.made.width, height / clip.made.height);
        expect(placement.shift.scale).toEqual({ constant: by });
      }),
      { numRuns: 20 },
    );
  });

  it('pressed, it stands where it stood in its own picture', () => {
    const put = putFromShelf(into(clip.made.width * 2, clip.made.height * 2), clip, { at: null, start: 0 }, newId);
    const placement = find(put.doc, 'placement', put.placementId!)!;
    expect([placement.x + 5, placement.y - 40]).toEqual([2 * 305, 2 * 160]);
  });

  it('its swatches are those of the shot that are alike, the others come along; it remembers where it came from', () => {
    const empty = into(640, 360);
    const same = setSwatch(empty, shotOf(empty).swatches[0]!, { colour: '#FF8A2B', name: 'Flame' });
    const put = putFromShelf(same, clip, { at: null, start: 0 }, newId);
    const marks = entitiesOf(put.doc, 'drawing').flatMap((drawing) => Object.values(drawing.marks));
    const used = new Set(marks.flatMap((mark) => ('swatch' in mark ? [mark.swatch] : [])));
    expect([...used]).toEqual([shotOf(empty).swatches[0]]);
    expect(fromShelf(put.doc)).toEqual([{ elementId: put.elementId, shelfId: keptId, revision: 3 }]);
    // What stands there already stays, and is not from the shelf.
    expect(placedElements(put.doc)).toHaveLength(placedElements(same).length + 1);
    expect(layerOf(put.doc, entitiesOf(same, 'layer')[0]!.id)).toBe(entitiesOf(same, 'layer')[0]);
    expect(documentOf(put.doc.shotId, Object.values(put.doc.entities)).shotId).toBe(same.shotId);
    expect(layerId in put.doc.entities).toBe(false);
  });
});

describe('a newer effect', () => {
  const clipOf = (doc: ShotDocument, revision: number): ShelfClip => ({
    shotId: keptId,
    roots: [placedElements(doc)[0]!.element.id],
    entities: Object.values(doc.entities).filter(({ kind }) => kind !== 'shot' && kind !== 'plane'),
    made: { width: shotOf(doc).width, height: shotOf(doc).height },
    from: { shelfId: keptId, revision },
  });
  const facts = { name: 'Into', width: 640, height: 360, rate: 24, length: 48, background: null };
  const put = putFromShelf(
    newShotDocument(newId(), facts, newId),
    clipOf(kept, 3),
    { at: { x: 100, y: 90 }, start: 6 },
    newId,
  );
  const { elementId: mine } = put;
  /** Worked on since: a stroke more in its first drawing, a layer more, its anchor elsewhere. */
  const reworked = ((): ShotDocument => {
    const { element } = placedElements(kept)[0]!;
    const first = entitiesOf(kept, 'layer').find(({ name }) => name !== 'Core')!;
    let doc = addMark(kept, first.id, 0, { ...stroke(0, 0, 90, 90), swatch: shotOf(kept).swatches[0]! }, newId);
    doc = addLayer(doc, element.id, 'Sparks', 'line', null, newId).doc;
    return putEntities(doc, { ...find(doc, 'element', element.id)!, anchor: { x: 25, y: -60 } });
  })();

  it('tells nothing where nothing is another', () => {
    const same = wouldChange(put.doc, mine, clipOf(kept, 4))!;
    expect(same).toMatchObject({ come: [], gone: [], drawings: 0, fewer: 0, colours: [] });
    expect(changeWords(same)).toEqual([]);
    expect(wouldChange(put.doc, newId(), clipOf(kept, 4))).toBeNull();
  });

  it('is told by what it would change', () => {
    const changes = wouldChange(put.doc, mine, clipOf(reworked, 4))!;
    expect(changes).toMatchObject({ come: ['Sparks'], gone: [], drawings: 1, fewer: 0 });
    expect(changeWords(changes)).toEqual(['“Sparks” comes', '1 drawing is another']);
  });

  it('comes in the place of the old one: its uses stand where they stood, and nothing of the old one is left', () => {
    const twice = putEntities(put.doc, {
      ...find(put.doc, 'placement', put.placementId!)!,
      id: newId(),
      start: 20,
      holderId: null,
    });
    const taken = takeNewer(twice, mine, clipOf(reworked, 4), newId);
    expect(find(taken.doc, 'element', mine)).toBeUndefined();
    const element = find(taken.doc, 'element', taken.elementId)!;
    expect(element).toMatchObject({ name: 'Furnace fire', shelf: { shelfId: keptId, revision: 4 } });
    expect(shotOf(taken.doc).elements.indexOf(taken.elementId)).toBe(shotOf(twice).elements.indexOf(mine));
    const uses = entitiesOf(taken.doc, 'placement').filter((each) => each.elementId === taken.elementId);
    expect(uses.map(({ start }) => start).sort((a, b) => a - b)).toEqual([6, 20]);
    for (const use of uses) expect([use.x + element.anchor.x, use.y + element.anchor.y]).toEqual([100, 90]);
    for (const entity of Object.values(taken.doc.entities))
      for (const { id } of referencesOf(entity)) expect(taken.doc.entities[id]).toBeDefined();
    expect(wouldChange(taken.doc, taken.elementId, clipOf(reworked, 4))).toMatchObject({ come: [], drawings: 0 });
    const before = entitiesOf(twice, 'layer').filter((each) => each.elementId === mine);
    for (const { id } of before) expect(taken.doc.entities[id]).toBeUndefined();
  });

  it('that is not wanted is not offered again', () => {
    expect(fromShelf(keepOlder(put.doc, mine, 4))).toEqual([{ elementId: mine, shelfId: keptId, revision: 4 }]);
  });
});

describe('what is looked for is found', () => {
  const torch = {
    ...({ name: 'Torch', kind: 'fire', time: 'cycle', length: 24, note: 'for the stairs' } as const),
    tags: ['wind', 'hand-held'],
    colours: ['#ff8a2b', '#fff0b8'],
  };
  const asks = (ask: object) => isFound(torch, { ...ASKED_NOTHING, ...ask });
  it.each([
    [{}, true],
    [{ words: 'torch' }, true],
    [{ words: 'WIND tor' }, true],
    [{ words: 'stairs fire' }, true],
    [{ words: 'torch rain' }, false],
    [{ kind: 'fire' }, true],
    [{ kind: 'smoke' }, false],
    [{ time: 'one-shot' }, false],
    [{ longest: 24 }, true],
    [{ longest: 23 }, false],
    [{ colour: '#ff9030' }, true],
    [{ colour: '#2040ff' }, false],
  ])('%j: %s', (ask, found) => {
    expect(asks(ask)).toBe(found);
  });
});
