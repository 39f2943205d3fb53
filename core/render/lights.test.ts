import fc from 'fast-check';
import { cycleOf, fixture } from '../fixture.ts';
import {
  constant,
  entitiesOf,
  find,
  putEntities,
  shotOf,
  type Light,
  type ShotDocument,
  type Shape,
} from '../document/index.ts';
import { addLightOf, addLightOn, addPlane, setFallsOn, setLight, setLightValue, setPlaneDepth } from '../edit/index.ts';
import { polygonRing } from '../geometry/index.ts';
import { elementLength } from '../timing/index.ts';
import { brightnessOf, smoothedAt } from './brightness.ts';
import { fallingOn, lightsOn, weakened } from './lights.ts';

const made = fixture(61);
const { newId, elementId } = made;
/** A square that grows from drawing to drawing and shrinks again. */
const square = (side: number): Shape => ({
  kind: 'shape',
  id: newId(),
  rings: [polygonRing([[0, 0], [side, 0], [side, side], [0, side]])], // prettier-ignore
  rule: 'nonzero',
  swatch: shotOf(made.base).swatches[0]!,
  opacity: 1,
});
const SIDES = [10, 20, 40, 20];
const base = cycleOf(made, SIDES.length, (i) => square(SIDES[i]!));
const use = entitiesOf(base, 'placement').find((each) => each.elementId === elementId)!;
const plane = find(base, 'plane', shotOf(base).planes[0])!;
const lit = addLightOf(base, use.id, newId);
const lightId = lit.lightId!;
const turn = elementLength(base, find(base, 'element', elementId)!);
const strengths = (doc: ShotDocument, frames: number): number[] =>
  Array.from({ length: frames }, (_, frame) => lightsOn(doc, use.start + frame)[0]?.strength ?? 0);

test('how bright a drawing is goes by area: against the largest of the cycle', () => {
  const element = find(base, 'element', elementId)!;
  const curve = brightnessOf(base, element, null, () => '#ffffff');
  const perDrawing = turn / SIDES.length;
  SIDES.forEach((side, i) => {
    expect(curve[i * perDrawing]).toBeCloseTo((side / 40) ** 2, 6);
  });
  expect(brightnessOf(putEntities(base), element, null, () => '#000000').every((v) => v === 0 || v <= 1)).toBe(true);
});

test('a light that follows what is drawn closes on a cycle, whatever it is smoothed over', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 20 }), fc.double({ min: 0, max: 1, noNaN: true }), (smooth, follows) => {
      const doc = setLight(lit.doc, lightId, { smooth, follows });
      const all = strengths(doc, 2 * turn);
      all.slice(0, turn).forEach((strength, i) => {
        expect(all[i + turn]).toBe(strength);
      });
      const curve = Array.from({ length: turn }, (_, i) => i / turn);
      // The same sum at the seam as anywhere: round it, the mean of a whole turn is the same.
      const mean = smoothedAt(curve, 0, turn * 3, turn);
      expect(smoothedAt(curve, 5, turn * 3, turn)).toBeCloseTo(mean, 1);
    }),
    { numRuns: 20 },
  );
});

test('it flickers with what is drawn: strongest on the largest drawing, less the more it is smoothed', () => {
  const sharp = strengths(setLight(lit.doc, lightId, { smooth: 0, follows: 1 }), turn);
  const soft = strengths(setLight(lit.doc, lightId, { smooth: 6, follows: 1 }), turn);
  const range = (all: number[]) => Math.max(...all) - Math.min(...all);
  expect(Math.max(...sharp)).toBeCloseTo(0.6, 6);
  expect(range(soft)).toBeLessThan(range(sharp));
  expect(new Set(strengths(setLight(lit.doc, lightId, { follows: 0 }), turn)).size).toBe(1);
});

test('light weakens with distance in depth, to half at its reach, and the same to both sides', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 5000, noNaN: true }),
      fc.double({ min: 0, max: 1e5, noNaN: true }),
      fc.double({ min: 1, max: 1e4, noNaN: true }),
      (reach, away, more) => {
        expect(weakened(reach, reach)).toBe(0.5);
        expect(weakened(away, reach)).toBe(weakened(-away, reach));
        expect(weakened(away + more, reach)).toBeLessThan(weakened(away, reach));
      },
    ),
  );
  const on = addLightOn(base, plane.id, { x: 10, y: 20 }, newId);
  const added = addPlane(on.doc, 'Front', null, newId);
  const far = setPlaneDepth(setLight(added.doc, on.lightId!, { reach: 300 }), added.planeId, -300);
  const [shining] = lightsOn(far, 0);
  const near = fallingOn([shining!], { kind: 'placement', id: use.id }, { id: added.planeId, depth: -300 });
  expect(near[0]!.strength).toBeCloseTo(0.3, 9);
});

test('it falls on all but what it shines from, or on the chosen things alone', () => {
  const [shining] = lightsOn(lit.doc, use.start);
  expect(fallingOn([shining!], { kind: 'placement', id: use.id }, plane)).toEqual([]);
  expect(fallingOn([shining!], { kind: 'placement', id: newId() }, plane)).toHaveLength(1);
  expect(fallingOn([shining!], { kind: 'plate', id: newId() }, null)).toHaveLength(1);
  const wall = newId();
  const chosen = setFallsOn(lit.doc, lightId, 'plates', wall, true, { planes: [], placements: [], plates: [] });
  const [only] = lightsOn(chosen, use.start);
  expect(fallingOn([only!], { kind: 'plate', id: wall }, null)).toHaveLength(1);
  expect(fallingOn([only!], { kind: 'plate', id: newId() }, null)).toEqual([]);
});

test('it follows the middle of what is drawn, or the anchor, with its own way off', () => {
  const at = (doc: ShotDocument, frame: number) => lightsOn(doc, use.start + frame)[0]!;
  const follow = setLight(lit.doc, lightId, { follows: 0 });
  const perDrawing = turn / SIDES.length;
  expect(at(follow, 0).x).toBeCloseTo(use.x + 5, 6);
  expect(at(follow, 2 * perDrawing).x).toBeCloseTo(use.x + 20, 6);
  const anchored = setLightValue(setLight(follow, lightId, { at: 'anchor' }), lightId, 'x', 0, 7);
  const element = find(base, 'element', elementId)!;
  expect(at(anchored, 0).x).toBeCloseTo(use.x + element.anchor.x + 7, 6);
  // Hidden, or its use not seen, it does not shine.
  expect(lightsOn(setLight(lit.doc, lightId, { visible: false }), use.start)).toEqual([]);
  expect(lightsOn(lit.doc, use.start - 1)).toEqual([]);
});

test('without lights a frame has none, and a light without strength is none', () => {
  expect(lightsOn(base, 0)).toEqual([]);
  const dark: Light = { ...find(lit.doc, 'light', lightId)!, strength: constant(0) };
  expect(lightsOn(putEntities(lit.doc, dark), use.start)).toEqual([]);
});
