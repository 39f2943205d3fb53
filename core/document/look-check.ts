/** What gradients, recolourings and finishes must be, and what of finishes points elsewhere or changes over time. */
import { z } from 'zod';
import { id, name, share } from './fields.ts';
import { each, type IdMap, type Pointer } from './kinds/kind.ts';
import { LOOKS, lookKinds, type LookKind } from '../looks/index.ts';
import { GRADIENT_FORMS, GRADIENT_RUNS, type Finish } from './look-types.ts';
import { seed } from './mark-check.ts';
import { value } from './value-check.ts';
import type { Value } from './value.ts';

const unit = () => z.strictObject({ x: z.number().min(-10).max(10), y: z.number().min(-10).max(10) });

export const gradient = z.lazy(() =>
  z.strictObject({
    form: z.enum(GRADIENT_FORMS),
    run: z.enum(GRADIENT_RUNS),
    from: unit(),
    to: unit(),
    stops: z
      .array(z.strictObject({ at: share, swatch: id }))
      .min(2, 'must have two stops at least')
      .max(12)
      .refine((stops) => stops.every((stop, i) => i === 0 || stop.at >= stops[i - 1]!.at), 'must rise'),
  }),
);

export const recolour = z.lazy(() => z.strictObject({ id, name, map: z.record(id, id) }));

const numbersOf = (kind: LookKind) =>
  z.strictObject(
    Object.fromEntries(LOOKS[kind].fields.map((field) => [field.key, value(z.number().min(field.min).max(field.max))])),
  );

const choicesOf = (kind: LookKind) =>
  z.strictObject(Object.fromEntries(LOOKS[kind].choices.map((choice) => [choice.key, z.enum(choice.options)])));

const finishOf = (kind: LookKind) =>
  z.strictObject({
    id,
    kind: z.literal(kind),
    on: z.boolean(),
    numbers: numbersOf(kind),
    choices: choicesOf(kind),
    swatch: LOOKS[kind].colour === 'own' ? id : id.nullable(),
    seed,
  });
/** Worked out when the first of its kind is read. */
const known = new Map<LookKind, z.ZodType<Finish>>();
function schemaFor(kind: LookKind): z.ZodType<Finish> {
  const schema = known.get(kind) ?? finishOf(kind);
  known.set(kind, schema);
  return schema;
}

const finish = () =>
  z.looseObject({ kind: z.string() }).transform((body, context): Finish => {
    const kind = lookKinds().find((each) => each === body.kind);
    if (!kind) {
      context.addIssue({ code: 'custom', path: ['kind'], message: `must be one of ${lookKinds().join(', ')}` });
      return z.NEVER;
    }
    const result = schemaFor(kind).safeParse(body);
    if (result.success) return result.data;
    for (const { path, message } of result.error.issues) context.addIssue({ code: 'custom', path, message });
    return z.NEVER;
  });
export const finishes = z.lazy(() => z.array(finish()).max(40));

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
