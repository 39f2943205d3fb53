/** Frames drawn by one painter and by two side by side. */
import { wrap } from 'comlink';
import { shotOf, type ShotDocument } from '@tallow/core/document';
import type { Painter } from '../../web/workers/painter.ts';
import type { Wanted } from '../../web/workers/paint.ts';
import { shotWith } from '../documents.ts';
import { median } from '../measure.ts';

const FRAMES = 12;
const ROUNDS = 3;

/** A painter that knows a document, and is sent what it asks for. */
export function painterOf(doc: ShotDocument) {
  const worker = new Worker(new URL('../../web/workers/painter.ts', import.meta.url), { type: 'module' });
  const painter = wrap<Painter>(worker);
  worker.addEventListener('message', ({ data }: MessageEvent<Partial<Wanted>>) => {
    const wanted = data.wanted ?? [];
    void painter.update(
      wanted.map((id) => ({ id, entity: doc.entities[id] ?? 'later', grew: false, asked: true }) as const),
    );
  });
  const known = Object.values(doc.entities).filter(({ kind }) => kind !== 'drawing');
  void painter.update(known.map((entity) => ({ id: entity.id, entity, grew: false })));
  return painter;
}

/** ms for the frames of a shot of ten layers, by two painters and by one. */
export async function paintersRow(): Promise<[number, number]> {
  const doc = shotWith(FRAMES, 10, 24);
  const { width, height } = shotOf(doc);
  const painters = [painterOf(doc), painterOf(doc)];
  const options = { guides: true, alone: null, without: [], dimBut: null, looks: 'all', backdrop: null } as const;
  let round = 0;
  const drawn = async (count: number): Promise<number> => {
    // Each time a little smaller, so that nothing is known from the time before.
    round += 1;
    const scale = 1 - round / 400;
    const began = performance.now();
    let next = 0;
    await Promise.all(
      painters.slice(0, count).map(async (painter) => {
        for (let frame = next++; frame < FRAMES; frame = next++) {
          const bitmap = await painter.frame(width, height, [scale, 0, 0, scale, 0, 0], frame * 2, '#232323', options);
          bitmap.close();
        }
      }),
    );
    return performance.now() - began;
  };
  await drawn(2);
  const times: [number[], number[]] = [[], []];
  for (let i = 0; i < ROUNDS; i++) {
    times[0].push(await drawn(2));
    times[1].push(await drawn(1));
  }
  return [median(times[0]), median(times[1])];
}
