/** What everything planned must be: paths, guides, starters, and what an element's own plan is made of. */
import { z } from 'zod';
import { column, eachOnce, FAR, frames, id, name, notTwice, place, share, size, within } from './fields.ts';
import { ring, seed } from './mark-check.ts';
import { EFFECTS, GUIDE_FORMS, MOVES, STAND_IN_FORMS } from './plan-types.ts';

export const base = z.strictObject({
  id,
  name,
  x: place,
  y: place,
  notes: z
    .array(z.strictObject({ id, move: z.enum(MOVES), from: frames(0), length: frames(1) }))
    .max(200)
    .refine(eachOnce, notTwice),
});
const standIn = z.strictObject({
  form: z.enum(STAND_IN_FORMS),
  shape: ring.nullable(),
  sizeStart: size,
  sizeEnd: size,
  aspect: z.number().min(0.05).max(1),
  turn: z.enum(['along', 'fixed']),
  angle: z.number().min(-100).max(100),
  stretch: share,
  opacityStart: share,
  opacityEnd: share,
});
const plain = z.string().regex(/^[a-z][a-zA-Z0-9]{0,31}$/, 'must be a short plain name');
const laid = z.strictObject({ drawingId: id, slot: id, print: z.string().max(64) });

/** Schemas of the kinds that are planned. */
export const planned = {
  path: z.strictObject({
    kind: z.literal('path'),
    id,
    elementId: id,
    name,
    nodes: ring,
    closed: z.boolean(),
    from: frames(0),
    ticks: within({ least: 2, most: 1000 }, 'ticks'),
    hold: within({ least: 1, most: 100 }, 'frames'),
    softStart: share,
    softEnd: share,
    slows: z
      .array(z.strictObject({ id, at: share, width: z.number().min(0.01).max(1), amount: share }))
      .max(100)
      .refine(eachOnce, notTwice),
    perspective: z.boolean(),
    placed: z.record(z.string().regex(/^(0|[1-9][0-9]{0,3})$/, 'must be the number of a tick'), share),
    standIn,
    visible: z.boolean(),
    locked: z.boolean(),
  }),
  guide: z.strictObject({
    kind: z.literal('guide'),
    id,
    elementId: id.nullable(),
    name,
    form: z.enum(GUIDE_FORMS),
    x: place,
    y: place,
    toX: place,
    toY: place,
    visible: z.boolean(),
    locked: z.boolean(),
    span: z.strictObject({ from: frames(0), length: frames(1) }).nullable(),
  }),
  starter: z.strictObject({
    kind: z.literal('starter'),
    id,
    elementId: id,
    effect: z.enum(EFFECTS),
    seed,
    x: place,
    y: place,
    settings: z.record(plain, place),
    line: column
      .refine((l) => l.length >= 4 && l.length % 2 === 0 && l.length <= 2000, 'must hold 2 to 1000 points')
      .refine((l) => l.every((v) => Math.abs(v) <= FAR), `must lie within ${FAR} px`)
      .nullable(),
    pathId: id.nullable(),
    from: frames(0),
    length: within({ least: 1, most: 2000 }, 'frames'),
    hold: within({ least: 1, most: 100 }, 'frames').nullable(),
    layers: z.record(plain, id),
    paints: z.record(plain, id),
    laid: z.record(plain, z.array(laid).max(2000)),
  }),
};
