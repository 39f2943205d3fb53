/** Settings that stand on the shelf beside effects: a kind is a file here and a line below. */
import type { z } from 'zod';
import { brush } from './brush.ts';
import { holds } from './holds.ts';
import type { KeptKind } from './kept-kind.ts';
import { palette } from './palette.ts';
import { preset } from './preset.ts';

export const KEPT_KINDS = { brush, preset, palette, holds } as const;
export type KeptKindName = keyof typeof KEPT_KINDS;
export const keptKinds = Object.keys(KEPT_KINDS) as KeptKindName[];

/** What is kept of a kind. */
export type KeptWhat<K extends KeptKindName> = z.infer<(typeof KEPT_KINDS)[K]['schema']>;

/** Settings under a name. */
export interface KeptThing<K extends KeptKindName = KeptKindName> {
  readonly id: string;
  readonly kind: K;
  readonly name: string;
  readonly what: KeptWhat<K>;
}

/** Reads settings from outside. @returns them with what they are for, or which field is wrong and why. */
export function readKept(
  kind: KeptKindName,
  what: unknown,
): { readonly ok: { readonly what: KeptWhat<KeptKindName>; readonly of: string } } | { readonly wrong: string } {
  const own = KEPT_KINDS[kind] as unknown as KeptKind<KeptWhat<KeptKindName>>;
  const read = own.schema.safeParse(what);
  if (read.success) return { ok: { what: read.data, of: own.of(read.data) } };
  const [issue] = read.error.issues;
  return { wrong: `${['what', ...(issue?.path ?? [])].join('.')} ${issue?.message ?? 'cannot be read'}` };
}
