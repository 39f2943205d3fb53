import { cycleOf, fixture, layerOf } from '../fixture.ts';
import { outlineOf } from '../derived/index.ts';
import { find, putEntities, type Drawing, type Id, type ShotDocument } from '../document/index.ts';
import {
  addLayer,
  addMark,
  gapAt,
  newTone,
  setLayer,
  tieLayer,
  tiedBetweens,
  tonedBetween,
  layFills,
} from './index.ts';

const made = fixture(71);
const { layerId, elementId, newId, stroke, swatch } = made;
const lines = cycleOf(made, 3, (i) => stroke(i * 30, 0, i * 30 + 20, 10));

/** The lines with a layer tied to them, drawn on some of their frames by some means. */
function tiedWith(draw: (doc: ShotDocument, layerId: Id, frame: number) => ShotDocument, frames = [0, 2]) {
  const added = addLayer(lines, elementId, 'Under', 'body', layerId, newId);
  let doc = tieLayer(added.doc, added.layerId, layerId);
  for (const frame of frames) doc = draw(doc, added.layerId, frame);
  return { doc, tied: added.layerId };
}
const byHand = (doc: ShotDocument, id: Id, frame: number) =>
  addMark(doc, id, frame, stroke(frame, 5, frame + 9, 5), newId);
const square = (x: number) => Float32Array.of(x, 0, 0, 0, 0, 0, x + 9, 0, 0, 0, 0, 0, x + 9, 9, 0, 0, 0, 0);
const byFill = (doc: ShotDocument, id: Id, frame: number) =>
  layFills(
    doc,
    { layerId: id, bounds: [layerId], gap: 6, under: null },
    frame,
    [{ rings: [square(frame * 15)], seed: { x: frame * 15 + 3, y: 4 }, swatch }],
    'lines',
    newId,
  );
const gapOf = (doc: ShotDocument) => gapAt(doc, layerId, 0)!;

describe('layers that get in-betweens with the one they are tied to', () => {
  it('are those drawn on both sides: by their drawings, or filled where all of them is filled', () => {
    const drawn = tiedWith(byHand);
    expect(tiedBetweens(drawn.doc, gapOf(drawn.doc))).toEqual([{ layerId: drawn.tied, by: 'drawings' }]);
    const filled = tiedWith(byFill);
    expect(tiedBetweens(filled.doc, gapOf(filled.doc))).toEqual([{ layerId: filled.tied, by: 'fills' }]);
    // A stroke beside the fills cannot be filled again.
    const both = byHand(filled.doc, filled.tied, 2);
    expect(tiedBetweens(both, gapOf(both))).toEqual([{ layerId: filled.tied, by: 'drawings' }]);
  });

  it('are none that are bare on one side, locked, not tied, or laid by tone', () => {
    const oneSide = tiedWith(byHand, [0]);
    expect(tiedBetweens(oneSide.doc, gapOf(oneSide.doc))).toEqual([]);
    const { doc, tied } = tiedWith(byHand);
    expect(tiedBetweens(setLayer(doc, tied, { locked: true }), gapOf(doc))).toEqual([]);
    const apart = putEntities(doc, { ...layerOf(doc, tied), runListId: newId() });
    expect(tiedBetweens(apart, gapOf(doc))).toEqual([]);
    const tone = { ...newTone(layerOf(doc, layerId), newId), layers: { shade: tied } };
    expect(tiedBetweens(putEntities(doc, tone), gapOf(doc))).toEqual([]);
  });

  it('have their tone cut where it lies on both sides', () => {
    const { doc, tied } = tiedWith(byFill);
    const gap = gapOf(doc);
    const at = (slot: Id): Drawing => find(doc, 'drawing', layerOf(doc, tied).slots[slot])!;
    const print = outlineOf(at(gap.from).marks[at(gap.from).order[0]!]!);
    const tone = { ...newTone(layerOf(doc, tied), newId), hangsOn: { [gap.from]: print, [gap.to]: print } };
    const slot = newId();
    const wait = (toned: typeof tone) =>
      find(tonedBetween(putEntities(doc, toned), new Set([tied]), gap, [slot]), 'tone', tone.id)!.hangsOn;
    expect(wait(tone)).toEqual({ [gap.from]: print, [gap.to]: print, [slot]: '' });
    expect(wait({ ...tone, hangsOn: { [gap.from]: print } })).toEqual({ [gap.from]: print });
    expect(wait({ ...tone, everywhere: true })).not.toHaveProperty(slot);
  });
});
