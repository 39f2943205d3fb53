/** Footage: taken in by content, taken apart whole or not at all, refused in words. */
import { loadImage } from '@napi-rs/canvas';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seededRandom } from '@tallow/core/geometry';
import { takeApart } from '../footage/footage-job.ts';
import type { FootageRow } from '../footage/footage.service.ts';
import { damaged, damagedCount } from './damage.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
const folder = mkdtempSync(join(tmpdir(), 'tallow-films-'));
beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

const SIZE = '64x48';
/** A film of a second: every frame of another shade of grey. */
function film(name: string, ...options: string[]): Buffer {
  const path = join(folder, name);
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `color=black:s=${SIZE}:r=24:d=1,geq=lum='16+N*8':cb=128:cr=128`],
    ...options,
    path,
  ]);
  return readFileSync(path);
}
const take = async (content: Buffer, name: string, rate = '24'): Promise<FootageRow> => {
  const answer = await fetch(`${server.address}/api/footage?name=${name}&rate=${rate}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: new Uint8Array(content),
  });
  const row = (await answer.json()) as FootageRow;
  if (answer.status !== 201) return row;
  await takeApart(server.database, row.id);
  return (await (await fetch(`${server.address}/api/footage/${row.id}`)).json()) as FootageRow;
};
const assets = async (): Promise<number> =>
  Number(((await server.database('assets').count('* as n').first()) as { n: string } | undefined)?.n);
/** How bright the middle of a kept picture is. */
async function shade(sha256: string): Promise<number> {
  const content = Buffer.from(await (await fetch(`${server.address}/api/assets/${sha256}`)).arrayBuffer());
  const { createCanvas } = await import('@napi-rs/canvas');
  const canvas = createCanvas(1, 1);
  canvas.getContext('2d').drawImage(await loadImage(content), -32, -24);
  return canvas.getContext('2d').getImageData(0, 0, 1, 1).data[0]!;
}

test.each([
  ['film.webm', ['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-cpu-used', '8']],
  ['film.mp4', ['-c:v', 'libx264', '-pix_fmt', 'yuv420p']],
  ['film.mov', ['-c:v', 'libx264', '-pix_fmt', 'yuv420p']],
  ['film.ogv', ['-c:v', 'libtheora', '-q:v', '9']],
])('%s comes in frame by frame, in order', async (name, options) => {
  const row = await take(film(name, ...options), name);
  expect(row).toMatchObject({ state: 'done', width: 64, height: 48, rate: 24, trouble: null });
  expect(row.assets).toHaveLength(24);
  const shades = await Promise.all([0, 6, 12, 18, 23].map((i) => shade(row.assets[i]!)));
  shades.slice(1).forEach((each, i) => expect(each).toBeGreaterThan(shades[i]! + 10));
});

test('at another rate each frame is the one nearest in time, and that is said', async () => {
  const slow = await take(film('film.mp4', '-c:v', 'libx264', '-pix_fmt', 'yuv420p'), 'film.mp4', '12');
  expect(slow.assets).toHaveLength(12);
  expect(slow.told).toBe('24 frames a second shown at 12: each frame is the one nearest in time');
  const own = await take(readFileSync(join(folder, 'film.mp4')), 'film.mp4', '');
  expect([own.rate, own.told]).toEqual([24, 'each of its frames, 24 a second']);
});

test('the same film again keeps no picture twice', async () => {
  const content = film('again.mp4', '-c:v', 'libx264', '-pix_fmt', 'yuv420p');
  await take(content, 'again.mp4');
  const before = await assets();
  expect((await take(content, 'again.mp4')).state).toBe('done');
  expect(await assets()).toBe(before);
});

test('what is see-through in a film stays so', async () => {
  const path = join(folder, 'clear.webm');
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `color=red@0.5:s=${SIZE}:r=12:d=0.5,format=yuva420p`],
    ...['-c:v', 'libvpx-vp9', '-pix_fmt', 'yuva420p', '-auto-alt-ref', '0', '-deadline', 'realtime', path],
  ]);
  const row = await take(readFileSync(path), 'clear.webm', '12');
  expect(row.state).toBe('done');
  const image = await loadImage(
    Buffer.from(await (await fetch(`${server.address}/api/assets/${row.assets[0]!}`)).arrayBuffer()),
  );
  const { createCanvas } = await import('@napi-rs/canvas');
  const canvas = createCanvas(64, 48);
  canvas.getContext('2d').drawImage(image, 0, 0);
  const alpha = canvas.getContext('2d').getImageData(32, 24, 1, 1).data[3]!;
  expect(alpha).toBeGreaterThan(90);
  expect(alpha).toBeLessThan(165);
});

describe('what is refused changes nothing', () => {
  const whole = () => film('whole.mp4', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-movflags', '+faststart');
  test.each([
    ['text', () => Buffer.from('no film at all'), 'broken or no video'],
    [
      'a playlist under another name',
      () => Buffer.from('#EXTM3U\n#EXTINF:1,\nfile:///etc/passwd\n'),
      'broken or no video',
    ],
    ['a film that is cut off', () => whole().subarray(0, Math.floor(whole().length * 0.6)), 'broken'],
    [
      'a picture',
      () => readFileSync(join(import.meta.dirname, '..', '..', 'docs', 'screenshots', 'desk.png')),
      'no video',
    ],
  ])('%s', async (_, content, said) => {
    const before = await assets();
    const row = await take(content(), 'film.mp4');
    expect(row).toMatchObject({ state: 'failed', assets: [] });
    expect(row.trouble).toContain(said);
    expect(await assets()).toBe(before);
  });

  test('nothing, and a rate no shot has', async () => {
    const send = (body: Uint8Array<ArrayBuffer>, query: string) =>
      fetch(`${server.address}/api/footage?${query}`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body,
      });
    expect((await send(new Uint8Array(), 'name=a.mp4')).status).toBe(422);
    expect((await send(new Uint8Array(4), 'rate=500')).status).toBe(422);
    const form = await fetch(`${server.address}/api/footage`, {
      method: 'POST',
      body: new URLSearchParams({ a: '1' }),
    });
    expect(form.status).toBe(422);
  });
});

test('stopped, it stays stopped, and its worker leaves it alone', async () => {
  const answer = await fetch(`${server.address}/api/footage?name=a.mp4&rate=24`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: new Uint8Array(film('stopped.mp4', '-c:v', 'libx264', '-pix_fmt', 'yuv420p')),
  });
  const { id } = (await answer.json()) as FootageRow;
  writeFileSync(join(folder, 'there'), '');
  await fetch(`${server.address}/api/footage/${id}/stop`, { method: 'POST' });
  await takeApart(server.database, id);
  expect(await (await fetch(`${server.address}/api/footage/${id}`)).json()).toMatchObject({
    state: 'stopped',
    assets: [],
  });
});

const DAMAGED = damagedCount(8);
test.each([
  ['mp4', ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-movflags', '+faststart']],
  ['webm', ['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-cpu-used', '8']],
  ['ogv', ['-c:v', 'libtheora', '-q:v', '9']],
])(
  'damaged %s: none breaks anything; what comes in is pictures of its size, and what does not keeps nothing',
  async (ending, options) => {
    const whole = film(`damage.${ending}`, ...options);
    const random = seededRandom(24);
    for (let i = 0; i < DAMAGED; i++) {
      const content = damaged(whole, random, i);
      if (content.length === 0) continue;
      const before = await assets();
      const row = await take(content, `bad.${ending}`);
      if (row.state === 'done') {
        expect(row.assets.length).toBeGreaterThan(0);
        expect((await assets()) - before).toBeLessThanOrEqual(new Set(row.assets).size);
        continue;
      }
      expect(row).toMatchObject({ state: 'failed', assets: [] });
      expect(row.trouble!.length).toBeGreaterThan(10);
      expect(row.trouble).not.toMatch(/unforeseen/);
      expect(await assets()).toBe(before);
    }
    expect((await take(whole, `whole.${ending}`)).state).toBe('done');
  },
  60_000 + DAMAGED * 2000,
);
