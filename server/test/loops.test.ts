/** When the loop of a card is made: once a shot has rested, later where somebody has it open; and when it is given up. */
import { randomId, type Id } from '@tallow/core/document';
import { LoopsService } from '../cards/loops.service.ts';
import { notOvertaken, Overtaken } from '../cards/overtaken.ts';
import type { QueueService } from '../queue/queue.service.ts';
import { OpenShots } from '../shots/open-shots.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
const production = randomId();
beforeAll(async () => {
  server = await startServer();
  await server.send('POST', '/productions', { id: production, name: 'P' });
});
afterAll(() => server.stop());
const clock = Date.now;
afterEach(() => {
  Date.now = clock;
});

/** A shot that was changed last so many seconds ago. */
async function changed(secondsAgo: number): Promise<Id> {
  const id = randomId();
  const size = { width: 64, height: 64, rate: 24, length: 2, background: null };
  await server.send('POST', '/shots', { id, productionId: production, name: 'S', ...size });
  await server
    .database('shots')
    .where({ id })
    .update({ updated_at: server.database.raw(`now() - interval '${secondsAgo} seconds'`) });
  return id;
}

test('a shot that is shut is due 4 s after its last change, one that is open 30 s after it', async () => {
  const open = new OpenShots();
  const loops = new LoopsService(server.database, {} as QueueService, open);
  await changed(1);
  const [rested, drawnOn, left] = [await changed(10), await changed(12), await changed(40)];
  open.see(drawnOn);
  open.see(left);
  expect(await loops.due()).toEqual([rested, left]);
  // Its page is shut, or hidden: nothing of it was asked for 10 s.
  Date.now = () => clock() + 10_000;
  expect(await loops.due()).toEqual([rested, drawnOn, left]);
});

test('a loop that is being made is given up when its own shot has gone on, and not when another has', async () => {
  const id = await changed(60);
  const { revision } = (await server.database<{ id: Id; revision: number }>('shots').where({ id }).first())!;
  const [as, before] = [revision, revision - 1].map((each) => notOvertaken(server.database, { id, revision: each }));
  await changed(0);
  await expect(as!()).resolves.toBeUndefined();
  await expect(before!()).rejects.toBeInstanceOf(Overtaken);
});
