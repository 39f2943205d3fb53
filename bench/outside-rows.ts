/** What the server answers to others while 200 broken and hostile files come in. */
import { createCanvas } from '@napi-rs/canvas';
import { seededRandom } from '@tallow/core/geometry';
import { MADE_RATE, MADE_SOUNDS, wavOf } from '@tallow/core/sound';
import { zipSync } from 'fflate';
import { damaged } from '../server/test/damage.ts';
import { against, median, type Row } from './measure.ts';
import { ended, PORT, started } from './programs.ts';

const GOAL_MS = 200;
const ASKED_EVERY_MS = 100;
/** Sent side by side. */
const LANES = 4;

interface Upload {
  readonly path: string;
  readonly content: Uint8Array;
  /** What may be answered: 201 too where damage can leave a whole file, and for a job, which fails in words of its own. */
  readonly expected: readonly number[];
}

/** Pictures, sounds, drawings as text, archives and saves: 200 in all, none of them as it should be. */
function corpus(): Upload[] {
  const random = seededRandom(2026);
  const canvas = createCanvas(640, 400);
  const context = canvas.getContext('2d');
  for (let i = 0; i < 60; i++) {
    context.fillStyle = `hsl(${i * 30} 80% 50%)`;
    context.fillRect((i * 53) % 600, (i * 31) % 360, 40, 60);
  }
  const pictures = [canvas.toBuffer('image/png'), canvas.toBuffer('image/jpeg'), canvas.toBuffer('image/webp')];
  const sound = Buffer.from(wavOf(MADE_SOUNDS.strike.make(1), MADE_RATE).buffer);
  const text = (words: string): Uint8Array => Buffer.from(words);
  const svg = (attributes: string, inside: string): Uint8Array =>
    text(`<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inside}</svg>`);
  const slow = '<filter id="f">' + '<feGaussianBlur stdDeviation="400"/>'.repeat(40) + '</filter>';
  const [png, wav, drawing, zip] = ['/assets?name=a.png', '/sounds?name=a.wav', '/assets?name=a.svg', '/archives/in'];
  const kinds: ((nth: number) => Upload)[] = [
    (n) => ({ path: png, content: damaged(pictures[n % 3]!, random, n), expected: [201, 413, 422] }),
    (n) => ({ path: png, content: damaged(pictures[(n + 1) % 3]!, random, n + 1), expected: [201, 413, 422] }),
    (n) => ({ path: wav, content: damaged(sound, random, n), expected: [201, 422] }),
    (n) => ({
      path: drawing,
      content: svg(`width="${n + 1}000" height="30000"`, '<rect width="9" height="9"/>'),
      // Beyond 64 million pixels by what it says, below by what drawing it takes here.
      expected: n < 2 ? [201, 422] : [413],
    }),
    (n) => ({
      path: drawing,
      // Two of them take their whole 10 s.
      content:
        n < 2
          ? svg('width="7000" height="7000"', `${slow}<rect width="7000" height="7000" filter="url(#f)"/>`)
          : svg('width="9" height="9"', '<g>'.repeat(n * 1000)),
      expected: [422],
    }),
    (n) => ({ path: zip, content: zipSync({ 'manifest.json': new Uint8Array(n * 1_000_000) }), expected: [201] }),
    (n) => ({ path: zip, content: text('PK'.repeat((n + 1) * 1000)), expected: [201] }),
    (n) => ({
      path: '/productions',
      content: text('['.repeat((n + 1) * 1000) + ']'.repeat((n + 1) * 1000)),
      expected: [413, 422],
    }),
  ];
  return Array.from({ length: 200 }, (_, i) => kinds[i % kinds.length]!(Math.floor(i / kinds.length)));
}

export async function outsideRows(): Promise<Row[]> {
  const all = corpus();
  const server = await started('server.js');
  const address = `http://127.0.0.1:${PORT}/api`;
  const answers: number[] = [];
  let over = false;
  const asking = (async () => {
    while (!over) {
      const began = performance.now();
      await fetch(`${address}/health`);
      answers.push(performance.now() - began);
      await new Promise((next) => setTimeout(next, ASKED_EVERY_MS));
    }
  })();
  const met: Record<number, number> = {};
  const lane = async (first: number): Promise<void> => {
    for (let i = first; i < all.length; i += LANES) {
      const { path, content, expected } = all[i]!;
      const type = path === '/productions' ? 'application/json' : 'application/octet-stream';
      const headers = { 'content-type': type };
      const { status } = await fetch(`${address}${path}`, { method: 'POST', headers, body: new Uint8Array(content) });
      if (!expected.includes(status)) throw new Error(`upload ${i}, ${path}: ${status}, not ${expected.join(' or ')}`);
      met[status] = (met[status] ?? 0) + 1;
    }
  };
  await Promise.all(Array.from({ length: LANES }, (_, i) => lane(i)));
  over = true;
  await asking;
  await ended(server);
  const told = Object.entries(met).map(([status, count]) => `${count}x ${status}`);
  const slowest = against('slowest other answer while 200 hostile files come in', Math.max(...answers), GOAL_MS);
  return [
    {
      ...slowest,
      measured: `${slowest.measured}, usually ${median(answers).toPrecision(2)} ms, of ${answers.length} (${told.join(', ')})`,
    },
  ];
}
