/** What gradients, recolourings and finishes must be, and what of finishes points elsewhere or changes over time. */
import { z } from 'zod';
import { id, name, share } from './fields.ts';
import { each, type IdMap, type Pointer } from './kinds/kind.ts';
import { FINISH_KINDS, FINISHES, GRADIENT_FORMS, GRADIENT_RUNS, type Finish, type FinishKind } from './look-types.ts';
import { seed } from './mark-check.ts';
import { value } from './value-check.ts';
import type { Value } from './value.ts';

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

const SWATCH: Pointer = { field: 'finishes', to: 'swatch', bond: 'needs', use: 'look' };

/** Finishes with the swatches they have for their own put through a map. */
export const finishIds = (all: readonly Finish[], of: IdMap): readonly Finish[] =>
  each(all, (finish) => {
    if (finish.swatch === null) return finish;
    const swatch = of(finish.swatch, SWATCH) ?? finish.swatch;
    return swatch === finish.swatch ? finish : { ...finish, swatch };
  });

/** Finishes with each of their numbers over time changed. */
export const finishValues = (all: readonly Finish[], change: (value: Value) => Value): readonly Finish[] =>
  all.map((finish) => ({
    ...finish,
    numbers: Object.fromEntries(Object.entries(finish.numbers).map(([key, number]) => [key, change(number)])),
  }));
