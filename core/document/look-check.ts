/** What gradients, recolourings and looks must be, and what of looks points elsewhere or changes over time. */
import { z } from 'zod';
import { id, name, fraction } from './fields.ts';
import { each, type IdMap, type Pointer } from './kinds/kind.ts';
import { LOOKS, lookKinds, type LookKind } from '../looks/index.ts';
import { GRADIENT_FORMS, GRADIENT_RUNS, type AppliedLook } from './look-types.ts';
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
      .array(z.strictObject({ at: fraction, swatch: id }))
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

const appliedOf = (kind: LookKind) =>
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
const known = new Map<LookKind, z.ZodType<AppliedLook>>();
function schemaFor(kind: LookKind): z.ZodType<AppliedLook> {
  const schema = known.get(kind) ?? appliedOf(kind);
  known.set(kind, schema);
  return schema;
}

const appliedLook = () =>
  z.looseObject({ kind: z.string() }).transform((body, context): AppliedLook => {
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
export const finishes = z.lazy(() => z.array(appliedLook()).max(40));

const SWATCH: Pointer = { field: 'finishes', to: 'swatch', bond: 'needs', use: 'look' };

/** Looks with the swatches they have for their own put through a map. */
export const lookIds = (all: readonly AppliedLook[], of: IdMap): readonly AppliedLook[] =>
  each(all, (look) => {
    if (look.swatch === null) return look;
    const swatch = of(look.swatch, SWATCH) ?? look.swatch;
    return swatch === look.swatch ? look : { ...look, swatch };
  });

/** Looks with each of their numbers over time changed. */
export const lookValues = (all: readonly AppliedLook[], change: (value: Value) => Value): readonly AppliedLook[] =>
  all.map((look) => ({
    ...look,
    numbers: Object.fromEntries(Object.entries(look.numbers).map(([key, number]) => [key, change(number)])),
  }));
