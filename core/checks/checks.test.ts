import fc from 'fast-check';
import { find, newShotDocument, shotOf, type Shape, type ShotDocument, entitiesOf } from '../document/index.ts';
import { addMark, copyDrawing, newDrawing } from '../edit/index.ts';
import { seededIds, polygonRing } from '../geometry/index.ts';
import { elementLength, timedLayers } from '../timing/index.ts';
import { coverOf, factsOf, findingsOf, seamRatio, stepSizes, bestJoins, seamReport, type Cover } from './index.ts';

const SIDE = 40;
/** A bar two cells wide and ten high that stands at a column. */
const bar = (at: number): Cover =>
  coverOf(
    Uint8Array.from({ length: SIDE * SIDE }, (_, i) => {
      const [x, y] = [i % SIDE, Math.floor(i / SIDE)];
      return x >= at && x < at + 2 && y >= 10 && y < 20 ? 255 : 0;
    }),
  );

describe('steps', () => {
  test('of equal length are all usual, whichever way they go', () => {
    for (const size of stepSizes([0, 3, 6, 3].map(bar), true)) expect(size).toBeCloseTo(1, 6);
  });
  test('grow with the way gone, also where drawings do not touch', () => {
    const [a, b, c] = stepSizes([0, 5, 15, 35].map(bar), false);
    expect(a!).toBeLessThan(b!);
    expect(b!).toBeLessThan(c!);
  });
  test('a jump at the seam stands out, and an open element has no seam', () => {
    expect(seamRatio(stepSizes([0, 4, 8, 12, 16].map(bar), true))!).toBeGreaterThan(2);
    expect(seamRatio(stepSizes([0, 4, 8, 4].map(bar), true))!).toBeLessThan(1.2);
    expect(stepSizes([0, 4, 8, 12].map(bar), false)).toHaveLength(3);
  });
  test('a regular sway has no jump, wherever it is cut; one drawing left out of it is one', () => {
    const sway = Array.from({ length: 12 }, (_, i) => Math.round(20 + 18 * Math.cos((i / 12) * 2 * Math.PI)));
    for (let cut = 0; cut < 12; cut++) {
      const turned = [...sway.slice(cut), ...sway.slice(0, cut)];
      expect(seamRatio(stepSizes(turned.map(bar), true))!).toBeLessThan(1.8);
    }
    // Cut in its fast part, with three drawings missing there.
    expect(seamRatio(stepSizes([...sway.slice(4), ...sway.slice(0, 1)].map(bar), true))!).toBeGreaterThan(1.8);
  });
  test('nothing drawn, or nothing moving, is no jump', () => {
    expect(stepSizes([bar(0), bar(0)], true)).toEqual([0, 0]);
    expect(seamRatio([1, 1])).toBeNull();
  });
  test('do not depend on which drawing is called the first', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(37), { minLength: 3, maxLength: 9 }), fc.nat(8), (places, by) => {
        const turn = <T>(list: T[]) => list.map((_, i) => list[(i + by) % list.length]!);
        const steps = stepSizes(places.map(bar), true);
        stepSizes(turn(places).map(bar), true).forEach((size, i) => {
          expect(size).toBeCloseTo(turn(steps)[i]!, 9);
        });
      }),
      { numRuns: 30 },
    );
  });
});

describe('findings', () => {
  const newId = seededIds(8);
  const base = newShotDocument(
    newId(),
    { name: 'T', width: 100, height: 100, rate: 24, length: 24, background: null },
    newId,
  );
  const element = entitiesOf(base, 'element')[0]!;
  const layer = element.layers[0]!;
  const square = (x: number): Shape => ({
    kind: 'shape',
    id: newId(),
    swatch: shotOf(base).swatches[0]!,
    rule: 'nonzero',
    opacity: 1,
    rings: [
      polygonRing([
        [x, 0],
        [x + 9, 0],
        [x + 9, 9],
      ]),
    ],
  });
  const seen = { left: -50, top: -50, right: 50, bottom: 50 };
  const told = (doc: ShotDocument, wraps = true) =>
    findingsOf(timedLayers(doc, element)[0]!, elementLength(doc, element), wraps, seen, (id) => {
      const drawing = find(doc, 'drawing', id);
      return drawing && factsOf(drawing);
    }).map((f) => f.text);
  const first = addMark(base, layer, 0, square(0), newId);

  test('an empty drawing, and one left twice', () => {
    const empty = newDrawing(first, layer, 0, newId).doc;
    expect(told(empty)).toEqual(['Drawing 2 of Line is empty']);
    expect(told(copyDrawing(first, layer, 0, newId).doc, false)).toEqual([
      'Drawing 1 of Line is the same as drawing 2',
    ]);
  });
  test('a first drawing copied to the end is found across the seam only', () => {
    let doc = newDrawing(first, layer, 0, newId).doc;
    doc = addMark(doc, layer, 2, square(5), newId);
    doc = newDrawing(doc, layer, 2, newId).doc;
    doc = addMark(doc, layer, 4, { ...square(0) }, newId);
    expect(told(doc)).toEqual(['Drawing 3 of Line is the same as drawing 1']);
    expect(told(doc, false)).toEqual([]);
  });
  test('marks out of sight', () => {
    const out = addMark(first, layer, 0, square(200), newId);
    expect(told(out)).toEqual(['Drawing 1 of Line has a mark wholly outside the frame']);
    expect(told(addMark(base, layer, 0, square(90), newId))).toEqual([
      'Drawing 1 of Line lies wholly outside the frame',
    ]);
  });
});

/** Coverage of a square of 10 cells with its corner at a place, on a grid of 60. */
function square(x: number, y: number): Cover {
  const mask = new Uint8Array(3600);
  for (let row = 0; row < 10; row++) mask.fill(255, (y + row) * 60 + x, (y + row) * 60 + x + 10);
  return coverOf(mask);
}

test('the seam of a cycle is told against its other steps, in px and area', () => {
  const { seam, usual, ratio, steps } = seamReport(
    [0, 3, 6, 9, 12, 40].map((x) => square(x, 5)),
    4,
  );
  expect(steps).toHaveLength(6);
  expect(seam.distance).toBeGreaterThan(100);
  expect(usual.distance).toBeLessThan(40);
  expect(ratio).toBeGreaterThan(3);
  expect(seam.area).toBe(0);
});

test('a cycle is best cut where its last drawing leads on to its first as to any other', () => {
  const round = [0, 1, 2, 3, 4, 5].map((i) =>
    square(Math.round(20 + 12 * Math.cos((i * Math.PI) / 3)), Math.round(25 + 12 * Math.sin((i * Math.PI) / 3))),
  );
  const flown = [...round, square(48, 2), square(2, 48)];
  expect(bestJoins(flown, 4, 4, 1)[0]).toMatchObject({ first: 0, last: 5 });
  expect(bestJoins(flown, 4, 4, 9, [1, 4])).toHaveLength(1);
});
