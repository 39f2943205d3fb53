import {
  entitiesOf,
  find,
  type Drawing,
  type Fill,
  type Shape,
  type ShotDocument,
  type Tone,
} from '../document/index.ts';
import { boundsFingerprint, fingerprintOf, touchedOf } from '../derived/index.ts';
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import { isInside, pointWithin, polygonRing, ringPoints, translation } from '../geometry/index.ts';
import { transformed } from '../marks/index.ts';
import { changeMarks, layFills, layTone, movedAlong, newTone, staleFills, withFillLayer } from './index.ts';

const made = fixture(93);
const { newId, layerId, stroke, swatch } = made;

/** A cycle of two drawings with a filled box each, and tone on the fills. */
function painted(): { doc: ShotDocument; fillLayerId: string; toneLayerId: string } {
  let doc = cycleOf(made, 2, (i) => stroke(i * 10, 0, 40, 40));
  const filled = withFillLayer(doc, layerId, newId);
  doc = filled.doc;
  const plan = { layerId: filled.layerId, bounds: [layerId], gap: 0, under: null };
  const ring = polygonRing([
    [0, 0],
    [40, 0],
    [40, 40],
    [0, 40],
  ]);
  for (const frame of [0, 2])
    doc = layFills(
      doc,
      plan,
      frame,
      [{ rings: [ring], seed: { x: 20, y: 20 }, swatch }],
      boundsFingerprint(doc, plan, frame)!,
      newId,
    );
  const tone: Tone = newTone(layerOf(doc, filled.layerId), newId);
  const slots = Object.keys(layerOf(doc, filled.layerId).slots);
  doc = layTone(
    doc,
    tone,
    slots.map((slot) => ({ slot, print: 'old', shapes: { shade: [ring] } })),
    newId,
  );
  return { doc, fillLayerId: filled.layerId, toneLayerId: find(doc, 'tone', tone.id)!.layers.shade! };
}

const drawingsOf = (doc: ShotDocument, ...layers: string[]): Drawing[] =>
  layers.flatMap((id) => Object.values(layerOf(doc, id).slots).flatMap((slot) => find(doc, 'drawing', slot) ?? []));

const moved = (doc: ShotDocument, drawings: readonly Drawing[]): ShotDocument => {
  const sets = Object.fromEntries(drawings.map(({ id, order }) => [id, order]));
  const next = changeMarks(doc, sets, (mark) => transformed(mark, translation(200, 0)));
  return movedAlong(doc, next, new Set(Object.keys(sets)));
};

test('fills moved with their lines are as they were laid: not stale, not touched, their places inside them', () => {
  const { doc, fillLayerId } = painted();
  const next = moved(doc, drawingsOf(doc, layerId, fillLayerId));
  const elementId = layerOf(doc, layerId).elementId;
  expect(staleFills(doc, elementId)).toEqual([]);
  expect(staleFills(next, elementId)).toEqual([]);
  const [fill] = entitiesOf(next, 'fill') as [Fill];
  expect(touchedOf(next, fill)).toEqual([]);
  for (const [slot, { regions }] of Object.entries(fill.slots)) {
    const drawing = find(next, 'drawing', layerOf(next, fillLayerId).slots[slot])!;
    for (const { markId, x, y } of regions)
      expect(isInside(ringPoints((drawing.marks[markId] as Shape).rings[0]!, 4), { x, y })).toBe(true);
  }
});

test('a fill moved away from its lines counts as changed by hand', () => {
  const { doc, fillLayerId } = painted();
  const next = moved(doc, drawingsOf(doc, fillLayerId));
  expect(touchedOf(next, entitiesOf(next, 'fill')[0]!)).toHaveLength(2);
});

test('a fill that was stale before is stale after', () => {
  const { doc, fillLayerId } = painted();
  const [first] = drawingsOf(doc, layerId) as [Drawing];
  const bent = changeMarks(doc, { [first.id]: first.order }, (mark) => transformed(mark, translation(3, 0)));
  const elementId = layerOf(doc, layerId).elementId;
  expect(staleFills(bent, elementId)).toHaveLength(1);
  expect(staleFills(moved(bent, drawingsOf(bent, layerId, fillLayerId)), elementId)).toHaveLength(1);
});

test('tone that went with its body is as it was laid, and one that did not is not', () => {
  const { doc, fillLayerId, toneLayerId } = painted();
  const all = moved(doc, drawingsOf(doc, layerId, fillLayerId, toneLayerId));
  const [tone] = entitiesOf(all, 'tone') as [Tone];
  expect(touchedOf(all, tone)).toEqual([]);
  for (const [slot, print] of Object.entries(tone.laid[toneLayerId]!))
    expect(fingerprintOf(find(all, 'drawing', layerOf(all, toneLayerId).slots[slot])!)).toBe(print);
  const alone = moved(doc, drawingsOf(doc, toneLayerId));
  expect(touchedOf(alone, entitiesOf(alone, 'tone')[0]!).length).toBeGreaterThan(0);
});

test('a place within an area lies in it and in none of its holes', () => {
  const square = (left: number, top: number, side: number) =>
    polygonRing([
      [left, top],
      [left + side, top],
      [left + side, top + side],
      [left, top + side],
    ]);
  expect(pointWithin([square(0, 0, 100), square(10, 10, 80)])!.x).toBeCloseTo(5, 1);
  expect(pointWithin([])).toBeNull();
});
