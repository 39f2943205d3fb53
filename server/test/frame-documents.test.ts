/** Documents for single frames: only what a frame shows is asked for, once, and a bad body is reported. */
import { encodeEntity, entitiesOf, type Id, type ShotDocument } from '@tallow/core/document';
import { drawListOf } from '@tallow/core/render';
import { cycleOf, fixture } from '../../core/fixture.ts';
import { FrameDocuments } from '../render/frame-documents.ts';

const made = fixture(81);
const doc = cycleOf(made, 6, (i) => made.stroke(i * 10, 0, i * 10 + 20, 9));
const outline: ShotDocument = {
  ...doc,
  entities: Object.fromEntries(Object.entries(doc.entities).filter(([, { kind }]) => kind !== 'drawing')),
};

test('each frame has what it shows, asked for once, and shows what the whole document shows', async () => {
  const asked: Id[] = [];
  const frames = new FrameDocuments(outline, (ids) => {
    asked.push(...ids);
    return Promise.resolve(ids.map((id) => encodeEntity(doc.entities[id]!)));
  });
  for (const frame of [0, 1, 2, 11, 12, 0]) {
    const at = await frames.at(frame);
    const [own, whole] = [at, doc].map((each) => drawListOf(each, frame, { guides: true }));
    expect(own!.map(({ drawing }) => drawing)).toEqual(whole!.map(({ drawing }) => drawing));
    expect(entitiesOf(at, 'drawing')).toHaveLength(1);
  }
  expect(asked).toHaveLength(3);
  expect(new Set(asked).size).toBe(3);
});

test('a body that cannot be read is told', async () => {
  const frames = new FrameDocuments(outline, ([id]) => Promise.resolve([{ kind: 'drawing', id, marks: 5, order: [] }]));
  await expect(frames.at(0)).rejects.toThrow(/cannot be read: marks/);
});
