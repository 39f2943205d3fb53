/** Pictures made to hurt, and damaged ones: refused in words, nothing kept, and the server answers others meanwhile. */
import { createCanvas } from '@napi-rs/canvas';
import { seededRandom } from '@tallow/core/geometry';
import { execFileSync } from 'node:child_process';
import { damaged, damagedCount } from './damage.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const DAMAGED = damagedCount(60);
/** Sent side by side. */
const LANES = 3;
/** Other answers that come while a picture takes its 10 s; asked for every 50 ms. */
const ANSWERS = 20;

const canvas = createCanvas(48, 32);
const context = canvas.getContext('2d');
for (let i = 0; i < 12; i++) {
  context.fillStyle = `hsl(${i * 30} 80% 50%)`;
  context.fillRect(i * 4, (i * 7) % 20, 9, 14);
}
const WHOLE = {
  png: canvas.toBuffer('image/png'),
  jpg: canvas.toBuffer('image/jpeg'),
  webp: canvas.toBuffer('image/webp'),
  gif: execFileSync('ffmpeg', ['-v', 'error', '-f', 'image2pipe', '-i', '-', '-f', 'gif', '-'], {
    input: canvas.toBuffer('image/png'),
  }),
} as const;

const send = async (content: Buffer, name: string) => {
  const answer = await fetch(`${server.address}/api/assets?name=${name}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: new Uint8Array(content),
  });
  return {
    status: answer.status,
    json: (await answer.json()) as { sha256: string; width: number; height: number; title: string },
  };
};
const stored = async (): Promise<number> =>
  Number(((await server.database('assets').count('* as n').first()) as { n: string } | undefined)?.n);

/** Asks for the server's health all the time. @returns how to stop, with how often it answered. */
function watched(): () => Promise<number> {
  let [answers, over] = [0, false];
  const asking = (async () => {
    while (!over) {
      expect((await fetch(`${server.address}/api/health`)).status).toBe(200);
      answers += 1;
      await new Promise((next) => setTimeout(next, 50));
    }
  })();
  return async () => {
    over = true;
    await asking;
    return answers;
  };
}

test.each(Object.keys(WHOLE) as (keyof typeof WHOLE)[])(
  `${DAMAGED} damaged %s: none breaks anything, and what is kept can be drawn`,
  async (kind) => {
    expect((await send(WHOLE[kind], `whole.${kind}`)).status).toBe(201);
    const random = seededRandom(21);
    const all = Array.from({ length: DAMAGED }, (_, i) => damaged(WHOLE[kind], random, i)).filter(
      (content) => !content.equals(WHOLE[kind]),
    );
    const before = await stored();
    const kept = new Set<string>();
    let refused = 0;
    const lane = async (first: number): Promise<void> => {
      for (let i = first; i < all.length; i += LANES) {
        const { status, json } = await send(all[i]!, `bad.${kind}`);
        if (status === 201) {
          // What has no check of its own may be another picture than it was; a PNG has one.
          expect(kind).not.toBe('png');
          expect(json.width * json.height).toBeLessThanOrEqual(64_000_000);
          kept.add(json.sha256);
          continue;
        }
        refused += 1;
        expect([413, 422]).toContain(status);
        expect(json.title.length).toBeGreaterThan(10);
      }
    };
    await Promise.all(Array.from({ length: LANES }, (_, i) => lane(i)));
    // Damage behind the end of a picture can leave it the very same.
    expect((await stored()) - before).toBeLessThanOrEqual(kept.size);
    expect(refused).toBeGreaterThan(DAMAGED / 4);
  },
  180_000,
);

const svg = (attributes: string, inside = '<rect width="9" height="9"/>'): Buffer =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inside}</svg>`);

test('half the rows of a PNG, and a bad check of any of its parts, are told', async () => {
  const half = Buffer.from(WHOLE.png);
  // The last byte of the pixels: the check of their part no longer holds.
  half[half.indexOf('IDAT') + 20]! ^= 1;
  expect((await send(half, 'half.png')).json.title).toContain('broken');
});

test('a picture whose size one reader takes for small and another for huge is told by its true size', async () => {
  const answer = await send(svg('width="20000" height="20000" viewBox="0 0 4 4"'), 'huge.svg');
  expect([answer.status, answer.json.title]).toEqual([413, expect.stringContaining('400 million pixels')]);
  const units = await send(svg('width="500in" height="500in" viewBox="0 0 4 4"'), 'inches.svg');
  expect([413, 422]).toContain(units.status);
}, 60_000);

test('filters that take for ever are ended, and the next picture comes in', async () => {
  const blur = Array.from({ length: 60 }, () => '<feGaussianBlur stdDeviation="400"/><feMorphology radius="400"/>');
  const filter = `<filter id="f" x="-9" y="-9" width="20" height="20">${blur.join('')}</filter>`;
  const stop = watched();
  const answer = await send(
    svg('width="7000" height="7000"', `${filter}<rect width="7000" height="7000" filter="url(#f)"/>`),
    'slow.svg',
  );
  const answers = await stop();
  // Drawn in time or ended in words, never waited for.
  expect([201, 422]).toContain(answer.status);
  if (answer.status === 422) expect(answers).toBeGreaterThan(ANSWERS);
  expect((await send(WHOLE.png, 'next.png')).status).toBe(201);
}, 60_000);

test('an SVG in UTF-16 is read as it is meant', async () => {
  const text = `<?xml version="1.0" encoding="UTF-16"?><svg xmlns="http://www.w3.org/2000/svg" width="30" height="20"><rect width="30" height="20"/></svg>`;
  const little = Buffer.concat([Buffer.of(0xff, 0xfe), Buffer.from(text, 'utf16le')]);
  for (const content of [little, Buffer.from(little).swap16()]) {
    const { status, json } = await send(content, 'wide.svg');
    expect([status, json.width, json.height]).toEqual([201, 30, 20]);
  }
});
