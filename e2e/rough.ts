/** A rough to clean up, or to step through. */
import { expect } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { address } from './desk.ts';

/** A rough of so many drawings on 2s on the shot's layer, put there over the API: a wave in each. @param samples of each wave. @param version of the pencil. */
export async function makeRough(shot: string, drawings: number, samples = 30, version = 2): Promise<void> {
  const at = address();
  interface Body {
    id: string;
    kind: string;
  }
  const { entities, revision } = (await (await fetch(`${at}/api/shots/${shot}`)).json()) as {
    entities: Body[];
    revision: number;
  };
  const of = (kind: string) => entities.find((each) => each.kind === kind)!;
  const [layer, list, swatch] = [of('layer'), of('runlist'), of('swatch')];
  const column = (count: number, value: (i: number) => number) =>
    Buffer.from(Float32Array.from({ length: count }, (_, i) => value(i)).buffer).toString('base64');
  const made = Array.from({ length: drawings }, (_, d) => {
    const id = randomUUID();
    const stroke = {
      kind: 'stroke',
      id: randomUUID(),
      swatch: swatch.id,
      brush: { kind: 'pencil', version, width: 8, opacity: 1, pressure: true },
      seed: d,
      samples: {
        x: column(samples, (i) => -120 + (i * 240) / samples),
        y: column(samples, (i) => 30 * Math.sin((i * 6) / samples + d / 3)),
        pressure: column(samples, () => 0.6),
        altitude: column(samples, () => 1.2),
        azimuth: column(samples, () => 0),
      },
    };
    return { kind: 'drawing', id, marks: { [stroke.id]: stroke }, order: [stroke.id] };
  });
  const slots = made.map(({ id }) => [randomUUID(), id] as const);
  const puts = [
    ...made,
    { ...layer, name: 'Rough', role: 'rough', slots: Object.fromEntries(slots) },
    { ...list, runs: slots.map(([slot]) => ({ id: randomUUID(), slot, length: 2 })) },
  ].map((body) => ({ id: body.id, kind: body.kind, body }));
  const answer = await fetch(`${at}/api/shots/${shot}/saves`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ saveId: randomUUID(), baseRevision: revision, puts, deletes: [] }),
  });
  expect(answer.status).toBeLessThan(300);
}
