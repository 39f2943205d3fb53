/** The fields that bodies are made of: ids, names, numbers with their ranges, columns of floats. */
import { z } from 'zod';
import { decodeColumn } from './columns.ts';
import { textProblem } from './text.ts';
import type { Id } from './id.ts';

// The page's policy forbids code made from text, which the library would otherwise try.
z.config({ jitless: true });

/** How far from the origin anything may lie, px. */
export const FAR = 1_000_000;

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
/** Whether a value is an id: a UUID in lower case. */
export const isId = (value: unknown): value is Id => typeof value === 'string' && UUID.test(value);

const SHA256 = /^[0-9a-f]{64}$/;
/** Whether a value names an asset: a SHA-256 in lower-case hex. */
export const isAsset = (value: unknown): value is string => typeof value === 'string' && SHA256.test(value);
export const asset = z.custom<string>(isAsset, 'must be a SHA-256 in lower-case hex');

export const id = z.custom<Id>(isId, 'must be a UUID in lower case');
export const name = z.custom<string>((value) => textProblem(value, 'name') === null, {
  error: (issue) => textProblem(issue.input, 'The name') ?? 'is no name',
});
export const colour = z.string().regex(/^#[0-9a-f]{6}$/, 'must be a colour such as #e4551b, in lower case');
export const within = (range: { min: number; max: number }, unit: string) =>
  z
    .int(`must be a whole number of ${unit}`)
    .min(range.min, `must be at least ${range.min} ${unit}`)
    .max(range.max, `must be at most ${range.max} ${unit}`);
export const frames = (min: number) => within({ min, max: 100_000 }, 'frames');
export const place = z.number().min(-FAR).max(FAR);
export const fraction = z.number().min(0, 'must be from 0 to 1').max(1, 'must be from 0 to 1');
export const uniqueIds = z
  .array(id)
  .max(20_000)
  .refine((ids) => new Set(ids).size === ids.length, 'must not name an id twice');

export const column = z.string().transform((text, context) => {
  const decoded = decodeColumn(text);
  if (decoded) return decoded;
  context.addIssue({ code: 'custom', message: 'must be base64 of finite little-endian 32-bit floats' });
  return z.NEVER;
});
export const spot = z.strictObject({ x: place, y: place });
export const size = z.number().min(1).max(8192);
export const eachOnce = (list: readonly { id: Id }[]) => new Set(list.map((each) => each.id)).size === list.length;
/** A fingerprint of what was laid or laid from. */
export const fingerprint = z.string().max(64);
export const notTwice = 'must not name an id twice';
