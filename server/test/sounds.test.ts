/** Sounds: taken in by content, kept whole as FLAC or not at all, refused in words. */
import { MADE_SOUNDS, MADE_RATE, wavOf } from '@tallow/core/sound';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seededRandom } from '@tallow/core/geometry';
import { damaged, damagedCount } from './damage.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
const folder = mkdtempSync(join(tmpdir(), 'tallow-sounds-'));
const made = Buffer.from(wavOf(MADE_SOUNDS.strike.make(1), MADE_RATE));
beforeAll(async () => {
  server = await startServer();
  writeFileSync(join(folder, 'made.wav'), made);
});
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** The made sound as another kind of file. */
function as(name: string, ...options: string[]): Buffer {
  const path = join(folder, name);
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', join(folder, 'made.wav'), ...options, path]);
  return readFileSync(path);
}
interface Answer {
  readonly status: number;
  readonly body: { readonly sha256?: string; readonly seconds?: number; readonly title?: string };
}
async function take(content: Buffer): Promise<Answer> {
  const answer = await fetch(`${server.address}/api/sounds`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: new Uint8Array(content),
  });
  return { status: answer.status, body: (await answer.json()) as Answer['body'] };
}
const kept = async (): Promise<number> =>
  Number(((await server.database('assets').count('* as n').first()) as { n: string } | undefined)?.n);
/** What is kept, decoded by ffmpeg: one channel of floats. */
async function samplesOf(sha256: string): Promise<Float32Array> {
  const answer = await fetch(`${server.address}/api/assets/${sha256}`);
  expect(answer.headers.get('content-type')).toContain('audio/flac');
  const path = join(folder, 'back.flac');
  writeFileSync(path, Buffer.from(await answer.arrayBuffer()));
  const raw = execFileSync('ffmpeg', ['-v', 'error', '-i', path, '-ac', '1', '-f', 'f32le', 'pipe:1'], {
    maxBuffer: 1 << 28,
  });
  return new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength));
}

test('a WAV comes in to the very sample', async () => {
  const { status, body } = await take(made);
  expect(status).toBe(201);
  expect(body.seconds).toBe(MADE_SOUNDS.strike.seconds);
  const back = await samplesOf(body.sha256!);
  const view = new DataView(made.buffer, made.byteOffset);
  expect(back.length).toBe(MADE_SOUNDS.strike.seconds * MADE_RATE);
  for (let i = 0; i < back.length; i += 997)
    expect(Math.round(back[i]! * 32_768)).toBe(view.getInt16(44 + 2 * i, true));
});

test.each([
  ['sound.ogg', ['-c:a', 'libvorbis']],
  ['sound.mp3', ['-c:a', 'libmp3lame']],
  ['sound.flac', ['-c:a', 'flac']],
  ['other.wav', ['-ar', '22050', '-ac', '2']],
])('%s comes in as long as it is, its strike where it is', async (name, options) => {
  const { status, body } = await take(as(name, ...options));
  expect([status, body.title]).toEqual([201, undefined]);
  expect(Math.abs(body.seconds! - MADE_SOUNDS.strike.seconds)).toBeLessThan(0.06);
  const back = await samplesOf(body.sha256!);
  const loudest = back.reduce((max, value, i) => (Math.abs(value) > Math.abs(back[max]!) ? i : max), 0);
  const was = MADE_SOUNDS.strike.make(1);
  const meant = was.reduce((max, value, i) => (Math.abs(value) > Math.abs(was[max]!) ? i : max), 0);
  expect(Math.abs(loudest - meant) / MADE_RATE).toBeLessThan(0.02);
});

test('the same sound again is kept once', async () => {
  await take(made);
  const before = await kept();
  expect((await take(made)).status).toBe(201);
  expect(await kept()).toBe(before);
});

const halved = (content: Buffer): Buffer => content.subarray(0, Math.floor(content.length / 2));
test.each([
  ['nothing', () => Buffer.alloc(0), /empty/],
  ['a text', () => Buffer.from('no sound at all, '.repeat(99)), /broken or no sound/],
  ['a playlist', () => Buffer.from('#EXTM3U\nfile:///etc/passwd\n'), /broken or no sound/],
  ['a picture', () => readFileSync(picture()), /broken or no sound/],
  ['a WAV that breaks off', () => halved(made), /breaks off|broken/],
  ['an OGG that breaks off', () => halved(as('half.ogg', '-c:a', 'libvorbis')), /breaks off|broken/],
  ['a FLAC that breaks off', () => halved(as('half.flac', '-c:a', 'flac')), /breaks off|broken/],
  ['an MP3 that breaks off', () => halved(as('half.mp3', '-c:a', 'libmp3lame')), /breaks off|broken/],
  ['a FLAC with its middle overwritten', () => overwritten(as('hurt.flac', '-c:a', 'flac')), /broken|breaks off/],
  ['eleven minutes', () => as('long.wav', '-af', 'apad', '-t', '660', '-ar', '8000'), /10 min 0 s is the most/],
])('%s is refused in words, and nothing is kept', async (_, content, words) => {
  const before = await kept();
  const { status, body } = await take(content());
  expect(status).toBe(422);
  expect(body.title).toMatch(words);
  expect(await kept()).toBe(before);
});

function picture(): string {
  const path = join(folder, 'p.png');
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'color=red:s=8x8', '-frames:v', '1', path]);
  return path;
}
function overwritten(content: Buffer): Buffer {
  const hurt = Buffer.from(content);
  hurt.fill(0x5a, Math.floor(hurt.length / 2), Math.floor(hurt.length / 2) + 2000);
  return hurt;
}

test('a film with no sound has none, and what is not sent as bytes is refused', async () => {
  const path = join(folder, 'still.ogv');
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    'color=red:s=64x48:d=1',
    '-c:v',
    'libtheora',
    path,
  ]);
  const { status, body } = await take(readFileSync(path));
  expect([status, body.title]).toEqual([422, 'There is no sound in this file.']);
  const answer = await fetch(`${server.address}/api/sounds`, { method: 'POST', body: '{}' });
  expect(answer.status).toBe(422);
});

/** Each is looked at by ffmpeg: 500 of each kind take five minutes, and are asked for by `TALLOW_DAMAGED`. */
const DAMAGED = damagedCount(12);
test.each([
  ['wav', []],
  ['ogg', ['-c:a', 'libvorbis']],
  ['mp3', ['-c:a', 'libmp3lame']],
  ['flac', ['-c:a', 'flac']],
])(
  'damaged %s: none breaks anything, and what is kept can be heard',
  async (ending, options) => {
    const whole = ending === 'wav' ? made : as(`damage.${ending}`, ...options);
    const random = seededRandom(22);
    const before = await kept();
    let came = 0;
    for (let i = 0; i < DAMAGED; i++) {
      const { status, body } = await take(damaged(whole, random, i));
      if (status === 201) {
        came += 1;
        expect(body.seconds).toBeGreaterThan(0);
        expect(body.seconds).toBeLessThanOrEqual(600);
        continue;
      }
      expect([413, 422]).toContain(status);
      expect(body.title!.length).toBeGreaterThan(10);
    }
    expect((await kept()) - before).toBeLessThanOrEqual(came);
    expect((await take(whole)).status).toBe(201);
  },
  60_000 + DAMAGED * 500,
);
