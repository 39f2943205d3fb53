import { randomId } from '@tallow/core/document';
import { changeStretch, keepVariant, wholeScope } from '@tallow/core/edit';
import { heldAlong } from '@tallow/core/timing';
import { cycleOf, fixture } from '../../core/fixture.ts';
import { currentOf } from '../selection/current.ts';
import { programOf, type Playing } from './program.ts';

const made = fixture(12);
const three = cycleOf(made, 3, (i) => made.stroke(i, 0, i, 9));
const plain: Playing = { turn: 0, range: null, playsSelected: false, pingPong: false, inTurn: false };
const nowOf = (doc = three) => currentOf(doc, { elementId: made.elementId, layerId: made.layerId })!;
const frames = (playing: Partial<Playing>, doc = three, selected: Parameters<typeof programOf>[2] = null) =>
  programOf(nowOf(doc), { ...plain, ...playing }, selected).map(({ frame, variant }) =>
    variant ? `${frame}'` : frame,
  );

test('all turns of the element, one after another', () => {
  const all = programOf(nowOf(), plain, null);
  expect(all).toHaveLength(72);
  expect(all[7]).toMatchObject({ shotFrame: 7, frame: 1, turn: 1 });
});

test('a range, what is picked, to and fro', () => {
  expect(frames({ range: { from: 1, length: 3 } })).toEqual([1, 2, 3]);
  expect(frames({ range: { from: 5, length: 2 } })).toEqual([5, 0]);
  const selected = { layerId: made.layerId, first: 1, count: 1 };
  expect(frames({ playsSelected: true }, three, selected)).toEqual([2, 3]);
  expect(frames({ range: { from: 0, length: 4 }, pingPong: true })).toEqual([0, 1, 2, 3, 2, 1]);
});

test('variants in turn, each for a turn of its own length', () => {
  const kept = keepVariant(three, made.elementId, wholeScope(three, made.elementId), randomId);
  const stretch = { layerIds: [made.layerId], from: 0, length: 6 };
  const tried = changeStretch(kept, stretch, (runs) => heldAlong(runs, [1]), randomId).doc;
  expect(frames({ inTurn: true }, tried)).toEqual(["0'", "1'", "2'", "2'", "2'", "2'", 0, 1, 2]);
});
