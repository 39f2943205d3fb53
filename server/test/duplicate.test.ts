/** A large shot is copied while others are answered. */
import { encodeEntity, newShotDocument, putEntities, randomId, type Drawing, type Stroke } from '@tallow/core/document';
import { shotServices } from '../shots/services.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const [DRAWINGS, STROKES, SAMPLES] = [40, 60, 120];
/** Others that are answered meanwhile, at the least: one for every few drawings. Copied at one go there were two. */
const ANSWERS = DRAWINGS / 4;

function stroke(nth: number): Stroke {
  const column = (value: (i: number) => number) => Float32Array.from({ length: SAMPLES }, (_, i) => value(i));
  return {
    ...{ kind: 'stroke', id: randomId(), swatch: swatch!, seed: nth },
    brush: { kind: 'ink', width: 10, opacity: 1, pressure: true },
    samples: {
      x: column((i) => i * 3.7 + nth),
      y: column((i) => 60 * Math.sin(i / 9 + nth)),
      pressure: column((i) => 0.3 + 0.5 * Math.abs(Math.sin(i / 11))),
      altitude: column(() => 1),
      azimuth: column(() => 0),
    },
  };
}
const FORMAT = { name: 'Large', width: 640, height: 360, rate: 24, length: 24, background: null };
const empty = newShotDocument(randomId(), FORMAT, randomId);
const swatch = Object.values(empty.entities).find(({ kind }) => kind === 'swatch')?.id;

test('whoever else asks is answered while a large shot is duplicated, and the copy is whole', async () => {
  const production = randomId();
  await server.send('POST', '/productions', { id: production, name: 'P' });
  const drawings = Array.from({ length: DRAWINGS }, (): Drawing => {
    const marks = Array.from({ length: STROKES }, (_, n) => stroke(n));
    const order = marks.map(({ id }) => id);
    return { kind: 'drawing', id: randomId(), marks: Object.fromEntries(marks.map((m) => [m.id, m])), order };
  });
  const { shots } = shotServices(server.database);
  await shots.insert(putEntities(empty, ...drawings), production);

  const id = randomId();
  const copying = server.send('POST', `/shots/${empty.shotId}/duplicate`, { id });
  let isOver = false;
  void copying.then(() => (isOver = true));
  let answers = 0;
  while (!isOver) {
    expect((await server.send('GET', '/health')).status).toBe(200);
    answers += 1;
  }
  expect((await copying).status).toBe(201);
  expect(answers).toBeGreaterThan(ANSWERS);

  const { doc } = await shots.document(id);
  const copied = Object.values(doc.entities).filter((entity) => entity.kind === 'drawing');
  const shapes = (list: readonly Drawing[]) =>
    list.map(({ order, marks }) => JSON.stringify(order.map((mark) => (marks[mark] as Stroke).seed))).sort();
  expect(shapes(copied)).toEqual(shapes(drawings));
  expect(Object.keys(doc.entities).some((each) => each in empty.entities)).toBe(false);
  const samples = ({ order, marks }: Drawing) => encodeEntity({ ...drawings[0]!, order, marks });
  expect(JSON.stringify(samples(copied[0]!)).length).toBe(JSON.stringify(samples(drawings[0]!)).length);
}, 60_000);
