/** Half an hour of ordinary work on the server: whether its programs hold more and more memory. `SOAK=30` minutes. */
import { createCanvas } from '@napi-rs/canvas';
import { MADE_RATE, MADE_SOUNDS, wavOf } from '@tallow/core/sound';
import type { ChildProcess } from 'node:child_process';
import { openDatabase } from '../server/db/database.ts';
import { shotServices } from '../server/shots/services.ts';
import { newId, shotWith } from './documents.ts';
import { median, type Row } from './measure.ts';
import { ended, nowOf, PORT, started } from './programs.ts';

const MINUTES = Number(process.env['SOAK'] ?? 30);
/** What a program holds in the last third of the time, against the third before. */
const GOAL = 1.1;
const FORMATS = ['png', 'webm', 'gif', 'ora'];

/** Calls the server. @throws when it refuses. */
async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const isFile = body instanceof Uint8Array;
  const answer = await fetch(`http://127.0.0.1:${PORT}/api${path}`, {
    method,
    headers: { 'content-type': isFile ? 'application/octet-stream' : 'application/json' },
    body: body === undefined ? null : isFile ? new Uint8Array(body) : JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
  const text = await answer.text();
  return (text ? JSON.parse(text) : null) as T;
}

/** A picture that has not been sent before. */
function picture(nth: number): Uint8Array {
  const canvas = createCanvas(800, 450);
  const context = canvas.getContext('2d');
  for (let i = 0; i < 300; i++) {
    context.fillStyle = `hsl(${(i * 7 + nth * 13) % 360} 80% 50%)`;
    context.fillRect((i * 53 + nth) % 760, (i * 31) % 420, 40, 30);
  }
  return canvas.toBuffer('image/png');
}

async function finished(shotId: string): Promise<void> {
  for (;;) {
    const all = await call<{ state: string }[]>('GET', `/shots/${shotId}/exports`);
    if (all.every(({ state }) => state !== 'waiting' && state !== 'running')) return;
    await new Promise((next) => setTimeout(next, 500));
  }
}

export async function soakRows(): Promise<Row[]> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; use npm run bench');
  const programs: Readonly<Record<string, ChildProcess>> = {
    server: await started('server.js'),
    'worker for what is asked': await started('worker.js', 'asked'),
    'worker for cards': await started('worker.js', 'cards'),
  };
  const database = openDatabase(url);
  const production = newId();
  await database('productions').insert({ id: production, name: 'Soak' });
  const { shots } = shotServices(database);
  const sound = Buffer.from(wavOf(MADE_SOUNDS.strike.make(1), MADE_RATE).buffer);
  const held: Record<string, number[]> = Object.fromEntries(Object.keys(programs).map((name) => [name, []]));
  const began = performance.now();
  let rounds = 0;
  while (performance.now() - began < MINUTES * 60_000) {
    // A shot is made, looked at, kept, taken away in one of the formats, copied and deleted; files come in.
    const doc = shotWith(12, 3, 6, 24);
    await shots.insert(doc, production);
    await call('GET', `/shots/${doc.shotId}`);
    await call('POST', `/assets?name=${rounds}.png`, picture(rounds));
    await call('POST', `/sounds?name=${rounds}.wav`, sound);
    await call('POST', `/shots/${doc.shotId}/versions`, { id: newId(), name: `Round ${rounds}` });
    const format = FORMATS[rounds % FORMATS.length];
    await call('POST', `/shots/${doc.shotId}/exports`, { format, background: true });
    const copy = newId();
    await call('POST', `/shots/${doc.shotId}/duplicate`, { id: copy });
    await finished(doc.shotId);
    for (const id of [doc.shotId, copy]) await call('DELETE', `/shots/${id}`);
    for (const [name, { pid }] of Object.entries(programs)) held[name]!.push(nowOf(pid!));
    if (rounds % 20 === 0)
      console.error(
        `soak: ${Math.round((performance.now() - began) / 60_000)} min, ${rounds} rounds: ` +
          Object.entries(held)
            .map(([name, all]) => `${name} ${Math.round(all.at(-1)!)} MB`)
            .join(', '),
      );
    rounds += 1;
  }
  await database.destroy();
  for (const program of Object.values(programs)) await ended(program);
  return Object.entries(held).map(([name, all]) => {
    const third = Math.floor(all.length / 3);
    const [before, last] = [median(all.slice(third, 2 * third)), median(all.slice(2 * third))];
    return {
      what: `${name}, memory in the last third of ${MINUTES} minutes`,
      against: 'the third before',
      goal: GOAL,
      ratio: last / before,
      measured: `${Math.round(last)} MB, ${Math.round(before)} MB, ${rounds} rounds`,
    };
  });
}
