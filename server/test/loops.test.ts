/** When the loop of a card is made: once a shot has rested, later where somebody has it open, and not while anybody draws. */
import { randomId, type Id } from '@tallow/core/document';
import { LoopsService } from '../cards/loops.service.ts';
import { givingWay, Overtaken } from '../cards/giving-way.ts';
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

describe('a loop that is being made', () => {
  const rest = () =>
    server.database('shots').update({ updated_at: server.database.raw(`now() - interval '1 minute'`) });
  const revisionOf = async (id: Id): Promise<number> =>
    (await server.database<{ id: Id; revision: number }>('shots').where({ id }).first())!.revision;

  /** What is asked before each frame of a shot's loop, with what is done in place of waiting. */
  async function asked(pause: () => Promise<unknown>): Promise<() => Promise<void>> {
    const id = await changed(60);
    await rest();
    return givingWay(server.database, { id, revision: await revisionOf(id) }, pause);
  }

  test('waits while another shot is drawn on, and goes on when that rests', async () => {
    let waits = 0;
    const giveWay = await asked(async () => {
      waits += 1;
      if (waits === 3) await rest();
    });
    await changed(0);
    await giveWay();
    expect(waits).toBe(3);
  });

  test('waits for no longer than half a minute in all', async () => {
    let waits = 0;
    const giveWay = await asked(() => Promise.resolve((waits += 1)));
    await changed(0);
    await giveWay();
    expect(waits).toBe(30);
  });

  test('is given up when its own shot has gone on', async () => {
    const id = await changed(60);
    await rest();
    const giveWay = givingWay(server.database, { id, revision: (await revisionOf(id)) - 1 });
    await expect(giveWay()).rejects.toBeInstanceOf(Overtaken);
  });
});
