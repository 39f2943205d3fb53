import fc from 'fast-check';
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import { entitiesOf, find, shotOf, type ShotDocument } from '../document/index.ts';
import { addElement, copyPlacement, placeElement, setKey, setPlacements, setShot, setValue } from '../edit/index.ts';
import { drawingsOn } from '../assembly/index.ts';
import { frameKey, drawListOf, type DrawItem } from './index.ts';

const made = fixture(77);
const { newId, elementId } = made;
const base = setShot(
  cycleOf(made, 4, (i) => made.stroke(i, 0, i, 9)),
  { length: 40 },
);
const use = entitiesOf(base, 'placement').find((each) => each.elementId === elementId)!;
const copied = copyPlacement(base, use.id, { x: 200, y: 90 }, newId);
const cutId = copied.placementId!;
/** One use cut by the other, which goes from left to right. */
function cutBy(passed: boolean, within = true): ShotDocument {
  const cut = setPlacements(copied.doc, [cutId], { cut: { by: use.id, within, passed } });
  const keyed = setKey(cut, use.id, 'x', 0, null, 'straight');
  return setValue(setKey(keyed, use.id, 'x', 30, null, 'straight'), use.id, 'x', 30, 300);
}
const matteOn = (doc: ShotDocument, frame: number): readonly DrawItem[] =>
  drawListOf(doc, frame, { guides: false })
    .find(({ place }) => place === cutId)!
    .wholes.flatMap(({ matte }) => matte?.items ?? []);
const places = (items: readonly DrawItem[]): string[] =>
  items.map(({ drawing, matrix }) => `${drawing.id}@${matrix.join()}`);

test('what has passed only ever grows, and is the same from whichever frame one comes', () => {
  const doc = cutBy(true);
  fc.assert(
    fc.property(fc.integer({ min: use.start, max: 39 }), fc.integer({ min: use.start, max: 39 }), (a, b) => {
      const [early, late] = [Math.min(a, b), Math.max(a, b)];
      // Asked in either order.
      const second = places(matteOn(doc, late));
      const first = places(matteOn(doc, early));
      for (const place of first) expect(second).toContain(place);
      expect(places(matteOn(doc, late))).toEqual(second);
      expect(new Set(second).size).toBe(second.length);
    }),
  );
});

test('on the frame it is what it is there, seen or hidden itself', () => {
  const doc = cutBy(false);
  expect(matteOn(doc, 9)).toHaveLength(1);
  const hidden = setPlacements(doc, [use.id], { visible: false });
  expect(places(matteOn(hidden, 9))).toEqual(places(matteOn(doc, 9)));
  expect(drawingsOn(hidden, 9)).toEqual(expect.arrayContaining(matteOn(hidden, 9).map(({ drawing }) => drawing.id)));
});

test('frames of different mattes have different keys; what cuts and is gone cuts nothing', () => {
  const keyOn = (doc: ShotDocument) => frameKey(drawListOf(doc, 12, { guides: false }));
  expect(keyOn(cutBy(true))).not.toBe(keyOn(cutBy(true, false)));
  expect(keyOn(cutBy(true))).not.toBe(keyOn(cutBy(false)));
  const gone = setPlacements(copied.doc, [cutId], { cut: { by: newId(), within: true, passed: false } });
  expect(matteOn(gone, 12)).toEqual([]);
  expect(find(gone, 'placement', cutId)!.cut).not.toBeNull();
  expect(shotOf(gone).planes).toHaveLength(1);
});

test('what lies in a thing that cuts is asked for as well, on whichever frame', () => {
  const outer = addElement(copied.doc, 'Around', 0, newId);
  const holder = find(outer.doc, 'element', outer.elementId)!;
  const around = entitiesOf(outer.doc, 'placement').find((each) => each.elementId === outer.elementId)!;
  const nested = placeElement(outer.doc, elementId, { holderId: holder.id }, { start: 30, x: 0, y: 0 }, newId);
  const cut = setPlacements(nested.doc, [cutId], { cut: { by: around.id, within: true, passed: true } });
  const all = Object.values(layerOf(cut, made.layerId).slots);
  expect(drawingsOn(cut, 0)).toEqual(expect.arrayContaining(all));
});
