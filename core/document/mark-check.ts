/** What marks must be, and their way into JSON. */
import { z } from 'zod';
import { encodeColumn } from './columns.ts';
import { column, FAR, id, name, fraction } from './fields.ts';
import { BRUSH_KINDS, LAYS, SHAPE_RULES, type Mark, type Samples } from './mark-types.ts';

/** Samples in one drawing. */
export const SAMPLE_LIMIT = 1_000_000;

/** Samples whose columns lie one after another in one block of memory: each block costs some 250 bytes besides what is in it. */
function inOneBlock({ x, y, pressure, altitude, azimuth }: Samples): Samples {
  const count = x.length;
  const block = new Float32Array(5 * count);
  [x, y, pressure, altitude, azimuth].forEach((column, i) => {
    block.set(column, i * count);
  });
  const nth = (i: number): Float32Array => block.subarray(i * count, (i + 1) * count);
  return { x: nth(0), y: nth(1), pressure: nth(2), altitude: nth(3), azimuth: nth(4) };
}

const samples = () =>
  z
    .strictObject({ x: column, y: column, pressure: column, altitude: column, azimuth: column })
    .refine((s) => s.x.length > 0, 'must hold at least one sample')
    .refine(
      (s) => [s.y, s.pressure, s.altitude, s.azimuth].every((c) => c.length === s.x.length),
      'must have columns of equal length',
    )
    .refine((s) => [s.x, s.y].every((c) => c.every((v) => Math.abs(v) <= FAR)), `must lie within ${FAR} px`)
    .refine((s) => s.pressure.every((v) => v >= 0 && v <= 1), 'must have pressures from 0 to 1')
    .transform(inOneBlock);
const brush = () =>
  z.strictObject({
    kind: z.enum(BRUSH_KINDS),
    version: z.int().min(1).max(99).optional(),
    width: z.number().min(0.1).max(2000),
    opacity: fraction,
    pressure: z.boolean(),
    flow: z.number().min(0.01).max(1).optional(),
    taper: z.tuple([z.number().min(0).max(10_000), z.number().min(0).max(10_000)]).optional(),
    tilt: fraction.optional(),
  });
export const ring = column
  .refine((r) => r.length >= 12 && r.length % 6 === 0, 'must hold six numbers per node, of two nodes at least')
  .refine((r) => r.every((v) => Math.abs(v) <= FAR), `must lie within ${FAR} px`);
export const seed = z.int().min(0).max(0xffffffff);
/** What a mark must be; put together when the first drawing is read, as kinds are. */
export const mark = z.lazy(() => {
  const [lays, piece] = [z.enum(LAYS).optional(), name.optional()];
  const drawn = { brush: brush(), seed, samples: samples() };
  return z.discriminatedUnion('kind', [
    z.strictObject({
      kind: z.literal('stroke'),
      id,
      swatch: id,
      ...drawn,
      lays,
      unseen: z.literal(true).optional(),
      piece,
    }),
    z.strictObject({ kind: z.literal('rub'), id, ...drawn }),
    z.strictObject({
      kind: z.literal('shape'),
      id,
      swatch: id,
      rings: z.array(ring).min(1).max(5000),
      // Bodies from before shapes had a rule and an opacity are read as what they were.
      rule: z.enum(SHAPE_RULES).default('evenodd'),
      opacity: fraction.default(1),
      lays,
      piece,
    }),
  ]);
});

/** A mark in JSON: its columns are text. */
export function encodeMark(mark: Mark): unknown {
  if (mark.kind === 'shape') return { ...mark, rings: mark.rings.map(encodeColumn) };
  const { x, y, pressure, altitude, azimuth } = mark.samples;
  const columns = { x, y, pressure, altitude, azimuth };
  return {
    ...mark,
    samples: Object.fromEntries(Object.entries(columns).map(([key, value]) => [key, encodeColumn(value)])),
  };
}
