/** Of a sequence behind the shot few pictures are in memory, whatever its length. */
import { newShotDocument, putEntities, shotOf, type Plate, type ShotDocument } from '@tallow/core/document';
import { seededIds } from '@tallow/core/geometry';
import { createCanvas } from '@napi-rs/canvas';
import { everyKind } from '../../core/testing/every-kind.ts';
import { entitiesOf } from '@tallow/core/document';
import { FramePictures } from '../assets/frame-pictures.ts';

const newId = seededIds(5);
const SIDE = 32;
const BYTES = SIDE * SIDE * 4;
const png = createCanvas(SIDE, SIDE).toBuffer('image/png');
const hash = (n: number) => String(n).padStart(64, '0');

/** A shot with a sequence of so many pictures behind it, and a still before that. */
function withSequence(length: number): { doc: ShotDocument; sequence: Plate } {
  const doc = newShotDocument(newId(), { name: 'S', width: 64, height: 36, rate: 24, length, background: null }, newId);
  const like = entitiesOf(everyKind(seededIds(6)), 'plate')[0]!;
  const plate = (assets: string[]): Plate => ({
    ...{
      ...like,
      id: newId(),
      assets,
      width: SIDE,
      height: SIDE,
      visible: true,
      beside: false,
      guide: false,
      cut: null,
    },
    span: { from: 0, length },
  });
  const sequence = plate(Array.from({ length }, (_, n) => hash(n + 1)));
  const still = plate([hash(0)]);
  return {
    doc: putEntities(doc, sequence, still, { ...shotOf(doc), plates: [sequence.id, still.id] }),
    sequence,
  };
}

test('each frame has its own pictures at hand, one after the other and back, and each is decoded once while it is kept', async () => {
  const asked: string[] = [];
  const { doc } = withSequence(60);
  const pictures = new FramePictures(doc, (sha256) => Promise.resolve((asked.push(sha256), png)), 10 * BYTES);
  let max = 0;
  for (const frame of [...Array(60).keys(), 59, 58, 0]) {
    await pictures.at(frame);
    expect(pictures.picture(hash(frame + 1))).not.toBeNull();
    expect(pictures.picture(hash(0))).not.toBeNull();
    max = Math.max(max, Array.from({ length: 61 }, (_, n) => pictures.picture(hash(n))).filter(Boolean).length);
  }
  expect(max).toBe(2);
  expect(asked.filter((sha256) => sha256 === hash(0))).toHaveLength(1);
  // 60 there, 59 and 58 kept, the first gone meanwhile and fetched again.
  expect(asked.filter((sha256) => sha256 !== hash(0))).toHaveLength(61);
});

test('what a frame shows stays at hand, however little is kept; what is not there is left out', async () => {
  const { doc } = withSequence(4);
  const pictures = new FramePictures(doc, (sha256) => Promise.resolve(sha256 === hash(3) ? null : png), 0);
  await pictures.at(1);
  expect([0, 1, 2, 3].map((n) => pictures.picture(hash(n)) !== null)).toEqual([true, false, true, false]);
  await pictures.at(2);
  expect([0, 1, 2, 3].map((n) => pictures.picture(hash(n)) !== null)).toEqual([true, false, false, false]);
});

test('of a sequence that hides by all it has passed over, all that has passed is at hand', async () => {
  const { doc, sequence } = withSequence(6);
  const placement = entitiesOf(doc, 'placement')[0]!;
  const cut = { by: sequence.id, within: false, passed: true };
  const pictures = new FramePictures(putEntities(doc, { ...placement, cut }), () => Promise.resolve(png));
  await pictures.at(3);
  expect([1, 2, 3, 4, 5].map((n) => pictures.picture(hash(n)) !== null)).toEqual([true, true, true, true, false]);
});
