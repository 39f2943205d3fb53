/** A long export whose worker is killed time and again: it comes about all the same, whole, each frame as it is drawn. */
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, test } from '@playwright/test';
import {
  encodeEntity,
  newShotDocument,
  randomId,
  readEntity,
  type Entity,
  type Layer,
  type ShotDocument,
} from '@tallow/core/document';
import { addMark, holdFor } from '@tallow/core/edit';
import { discRing, seededRandom } from '@tallow/core/geometry';
import { unzipSync } from 'fflate';
import { makeShot } from '../desk.ts';
import { World } from './world.ts';

/** Enough for two kills on the way; `TALLOW_FAULTS_FRAMES=500` for a long look. */
const FRAMES = Number(process.env['TALLOW_FAULTS_FRAMES'] ?? 160);
const KILLS = 2;
const [WIDTH, HEIGHT] = [640, 360];

async function send<T>(world: World, method: string, path: string, body?: unknown): Promise<T> {
  const answer = await fetch(`${world.address}/api${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body === undefined ? null : JSON.stringify(body),
  });
  expect(answer.status).toBeLessThan(300);
  return (await answer.json()) as T;
}

/** A disc that crosses the picture: every frame is another. */
async function movingDisc(world: World): Promise<string> {
  const shot = await makeShot(world.address, { width: WIDTH, height: HEIGHT, length: FRAMES });
  const { entities } = await send<{ entities: unknown[]; revision: number }>(world, 'GET', `/shots/${shot}`);
  const read = entities.flatMap((body): Entity[] => {
    const each = readEntity(body);
    return 'ok' in each ? [each.ok] : [];
  });
  const empty = newShotDocument(
    shot,
    { name: '', width: 8, height: 8, rate: 24, length: 1, background: null },
    randomId,
  );
  const before: ShotDocument = { ...empty, entities: Object.fromEntries(read.map((each) => [each.id, each])) };
  const layer = read.find((each): each is Layer => each.kind === 'layer')!;
  const { swatches } = read.find((each) => each.kind === 'shot')!;
  const disc = { kind: 'shape', id: randomId(), rule: 'nonzero', opacity: 1, swatch: swatches[0]! } as const;
  let doc = addMark(before, layer.id, 0, { ...disc, rings: [discRing(0, 0, 40)] }, randomId);
  doc = holdFor(doc, layer.id, 0, FRAMES).doc;
  const ends = [0, FRAMES - 1].map((frame) => ({ frame, value: (frame - FRAMES / 2) / 2, ease: 'straight' as const }));
  const held = doc.entities[layer.id] as Layer;
  const moved = { ...held, shift: { ...held.shift, x: { keys: ends } } };
  const puts = Object.values({ ...doc.entities, [layer.id]: moved } as Record<string, Entity>)
    .filter((each) => before.entities[each.id] !== each)
    .map((each) => ({ id: each.id, kind: each.kind, body: encodeEntity(each) }));
  await send(world, 'POST', `/shots/${shot}/saves`, { saveId: randomId(), baseRevision: 1, puts, deletes: [] });
  return shot;
}

test(`${FRAMES} frames come out whole though their worker is killed ${KILLS} times`, async () => {
  test.setTimeout(400_000);
  const world = await World.start();
  try {
    const shot = await movingDisc(world);
    const random = seededRandom(31);
    const asked = await send<{ id: string }>(world, 'POST', `/shots/${shot}/exports`, { background: true });
    const info = async () =>
      (
        await send<{ id: string; state: string; done: number; trouble: string | null }[]>(
          world,
          'GET',
          `/shots/${shot}/exports`,
        )
      ).find(({ id }) => id === asked.id)!;
    let killed = 0;
    for (; killed < KILLS; killed++) {
      const at = Math.floor(10 + random() * 0.5 * FRAMES);
      await expect(async () => {
        const { state, done } = await info();
        expect(state === 'running' && done >= at).toBe(true);
      }).toPass({ intervals: [20], timeout: 90_000 });
      expect(world.kill('worker')).toBe(true);
      // It is noticed by its silence, and begun anew.
      await expect.poll(async () => (await info()).done, { timeout: 90_000, intervals: [100] }).toBeLessThan(at);
    }
    await expect.poll(async () => (await info()).state, { timeout: 120_000 }).toBe('done');
    expect((await info()).trouble).toBeNull();
    const file = await fetch(`${world.address}/api/exports/${asked.id}/file`);
    const files = unzipSync(new Uint8Array(await file.arrayBuffer()));
    const frames = Object.keys(files)
      .filter((name) => name.endsWith('.png'))
      .sort();
    expect(frames).toHaveLength(FRAMES);
    // The disc goes on by half a px a frame.
    const middles: number[] = [];
    for (const frame of [0, 0.25, 0.5, 0.75, 1].map((share) => Math.round(share * (FRAMES - 1)))) {
      const image = await loadImage(Buffer.from(files[frames[frame]!]!));
      const context = createCanvas(WIDTH, HEIGHT).getContext('2d');
      context.drawImage(image, 0, 0);
      const { data } = context.getImageData(0, HEIGHT / 2, WIDTH, 1);
      const ground = data[0]!;
      const own = Array.from({ length: WIDTH }, (_, x) => x).filter((x) => Math.abs(data[x * 4]! - ground) > 40);
      middles.push((own[0]! + own.at(-1)!) / 2 - frame / 2);
    }
    expect(Math.max(...middles) - Math.min(...middles)).toBeLessThan(3);
  } finally {
    await world.stop();
  }
});
