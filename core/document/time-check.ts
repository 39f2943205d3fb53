/** What run lists, values over time, variants, in-betweens and traced points must be. */
import { z } from 'zod';
import { frames, id, name, place, share, uniqueIds } from './fields.ts';
import { POSES, WAYS } from './time-types.ts';
import { EASES } from './value.ts';

const run = z.strictObject({ id, slot: id.nullable(), length: frames(1) });
export const runlist = z.strictObject({
  kind: z.literal('runlist'),
  id,
  elementId: id,
  runs: z
    .array(run)
    .max(20_000)
    .refine((runs) => new Set(runs.map((r) => r.id)).size === runs.length, 'must not name a run twice'),
  period: frames(1).nullable(),
  offset: frames(-100_000),
  // Bodies from before slots had poses and numbers are read as plain ones.
  poses: z.record(id, z.enum(POSES)).default({}),
  numbers: z.record(id, frames(1)).default({}),
});

const rising = (keys: readonly { frame: number }[]) =>
  keys.every((key, i) => i === 0 || key.frame > keys[i - 1]!.frame);

/** One number throughout, or numbers at rising frames. */
export const value = (number: z.ZodNumber) =>
  z.union(
    [
      z.strictObject({ constant: number }),
      z.strictObject({
        keys: z
          .array(z.strictObject({ frame: frames(0), value: number, ease: z.enum(EASES) }))
          .min(1)
          .max(5000)
          .refine(rising, 'must name frames in rising order, each once'),
      }),
    ],
    `must be {"constant": n}, or {"keys": [{"frame", "value", "ease"}]} with rising frames, and within its range`,
  );

export const shift = z.strictObject({
  x: value(place),
  y: value(place),
  scale: value(z.number().min(0.001).max(1000)),
  angle: value(z.number().min(-1000).max(1000)),
});

const slots = z.record(id, id);

export const variant = z.strictObject({
  kind: z.literal('variant'),
  id,
  elementId: id,
  name,
  scope: uniqueIds,
  held: z
    .strictObject({
      lists: z.array(runlist).max(1000),
      layers: z.array(z.strictObject({ layerId: id, runListId: id, slots })).max(1000),
    })
    .nullable(),
});

const tie = z
  .strictObject({ from: id.nullable(), to: id.nullable() })
  .refine((t) => t.from !== null || t.to !== null, 'must name a mark');

export const between = z
  .strictObject({
    kind: z.literal('between'),
    id,
    elementId: id,
    layerId: id,
    from: id,
    to: id,
    slots: uniqueIds.min(1).max(200),
    shares: z
      .array(share)
      .max(200)
      .refine((all) => all.every((each, i) => i === 0 || each >= all[i - 1]!), 'must rise'),
    way: z.enum(WAYS),
    pathId: id.nullable(),
    ties: z.array(tie).max(5000),
    laid: z.record(id, z.string().max(64)),
    hangsOn: z.tuple([z.string().max(64), z.string().max(64)]),
  })
  .refine((b) => b.shares.length === b.slots.length, { path: ['shares'], message: 'must be as many as slots' });

export const trace = z.strictObject({
  id,
  layerId: id,
  points: z.record(id, z.strictObject({ x: place, y: place, aim: z.boolean() })),
});
