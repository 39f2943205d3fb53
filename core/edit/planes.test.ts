import fc from 'fast-check';
import { cycleOf, fixture } from '../fixture.ts';
import { DEPTH_LIMITS, entitiesOf, find, findAll, shotOf, type ShotDocument } from '../document/index.ts';
import { depthScale, focalOf, planeOf } from '../assembly/index.ts';
import { seededIds } from '../geometry/index.ts';
import { elementLength, momentOn } from '../timing/index.ts';
import { addPlane, copyIntoDepth, movePlane, setPlane, setPlaneDepth, whyNotIntoDepth } from './index.ts';
import { movedBy, movePlaces } from './place-moves.ts';

const made = fixture(40);
const { elementId } = made;
const base = cycleOf(made, 6, (i) => made.stroke(i, 0, i, 9));
const use = entitiesOf(base, 'placement').find((each) => each.elementId === elementId)!;

/** The shot with its plane and three behind it at depths. */
function deep(depths: readonly number[], doc: ShotDocument = base): ShotDocument {
  const newId = seededIds(4);
  return depths.reduce((next, depth, i) => {
    const added = addPlane(next, `Plane ${i}`, null, newId);
    return setPlaneDepth(added.doc, added.planeId, depth);
  }, doc);
}
const depthsOf = (doc: ShotDocument) => findAll(doc, 'plane', shotOf(doc).planes).map(({ depth }) => depth);

test('planes stand in the order of their depths, whichever is moved, and stay within the limits', () => {
  const depth = fc.integer({ min: -20_000, max: 200_000 });
  fc.assert(
    fc.property(
      fc.array(depth, { minLength: 1, maxLength: 6 }),
      fc.nat(),
      fc.constantFrom(-1, 1),
      (depths, which, by) => {
        const doc = deep(depths);
        const { planes } = shotOf(doc);
        const moved = movePlane(doc, planes[which % planes.length]!, by as -1 | 1);
        for (const each of [doc, moved]) {
          const found = depthsOf(each);
          expect(found).toEqual(found.toSorted((a, b) => a - b));
          expect(new Set(shotOf(each).planes)).toEqual(new Set(planes));
          for (const d of found) {
            expect(d).toBeGreaterThanOrEqual(DEPTH_LIMITS.min);
            expect(d).toBeLessThanOrEqual(DEPTH_LIMITS.max);
          }
        }
      },
    ),
  );
});

test('what stands on a locked plane is not moved', () => {
  const plane = planeOf(base, use.id)!;
  const locked = setPlane(base, plane.id, { locked: true });
  expect(movePlaces(locked, [use.id], 0, movedBy(5, 5))).toBe(locked);
});

test('copies into depth: one on each plane farther, slower as they are seen smaller, never in step', () => {
  const doc = deep([400, 900, 2400]);
  const { doc: copied, copies } = copyIntoDepth(doc, use.id, seededIds(8));
  expect(copies).toHaveLength(3);
  const all = [use.id, ...copies].map((id) => find(copied, 'placement', id)!);
  const focal = focalOf(shotOf(doc));
  const element = find(copied, 'element', elementId)!;
  const turn = elementLength(copied, element);
  all.forEach(({ id, speed }) => {
    // Speeds are of twelfths.
    expect(Math.abs(speed.over / speed.of - depthScale(focal, planeOf(copied, id)!.depth))).toBeLessThan(1 / 12);
  });
  expect(new Set(all.map((each) => momentOn(each, element, turn, 0)!.frame)).size).toBe(4);
  expect(whyNotIntoDepth(copied, copies.at(-1)!)).toContain('farther');
});
