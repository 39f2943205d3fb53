/** What gradients, recolourings, finishes, fills and tones must be. */
import { z } from 'zod';
import { id, name, place, share, uniqueIds } from './fields.ts';
import { FINISH_KINDS, FINISHES, GRADIENT_FORMS, GRADIENT_RUNS, type FinishKind } from './look-types.ts';
import { seed } from './mark-check.ts';
import { TONE_KEYS } from './paint-types.ts';
import { value } from './time-check.ts';

const unit = z.strictObject({ x: z.number().min(-10).max(10), y: z.number().min(-10).max(10) });

export const gradient = z.strictObject({
  form: z.enum(GRADIENT_FORMS),
  run: z.enum(GRADIENT_RUNS),
  from: unit,
  to: unit,
  stops: z
    .array(z.strictObject({ at: share, swatch: id }))
    .min(2, 'must have two stops at least')
    .max(12)
    .refine((stops) => stops.every((stop, i) => i === 0 || stop.at >= stops[i - 1]!.at), 'must rise'),
});

export const recolour = z.strictObject({ id, name, map: z.record(id, id) });

const numbersOf = (kind: FinishKind) =>
  z.strictObject(
    Object.fromEntries(
      FINISHES[kind].fields.map((field) => [field.key, value(z.number().min(field.least).max(field.most))]),
    ),
  );
const choicesOf = (kind: FinishKind) =>
  z.strictObject(Object.fromEntries(FINISHES[kind].choices.map((choice) => [choice.key, z.enum(choice.options)])));

const finishOf = (kind: FinishKind) =>
  z.strictObject({
    id,
    kind: z.literal(kind),
    on: z.boolean(),
    numbers: numbersOf(kind),
    choices: choicesOf(kind),
    swatch: FINISHES[kind].colour === 'own' ? id : id.nullable(),
    seed,
  });
const [first, ...others] = FINISH_KINDS.map(finishOf);
export const finishes = z.array(z.discriminatedUnion('kind', [first!, ...others])).max(40);

const print = z.string().max(64);

export const fill = z.strictObject({
  kind: z.literal('fill'),
  id,
  elementId: id,
  layerId: id,
  bounds: uniqueIds,
  gap: z.number().min(0).max(200),
  under: z.number().min(0).max(400).nullable(),
  slots: z.record(
    id,
    z.strictObject({
      hangsOn: print,
      regions: z.array(z.strictObject({ markId: id, x: place, y: place, swatch: id, print })).max(20_000),
    }),
  ),
});

const toneKey = z.enum(TONE_KEYS);
export const tone = z.strictObject({
  kind: z.literal('tone'),
  id,
  elementId: id,
  bodyId: id,
  details: uniqueIds,
  depth: z.number().min(2).max(2000),
  shade: share,
  light: share,
  steps: z.union([z.literal(1), z.literal(2)]),
  rim: z.number().min(0).max(400),
  layers: z.partialRecord(toneKey, id),
  swatches: z.partialRecord(toneKey, id),
  laid: z.record(id, z.record(id, print)),
  hangsOn: z.record(id, print),
});
