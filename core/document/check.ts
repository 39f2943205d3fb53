/**
 * The way of bodies into and out of JSON. Browser, server and demo all read bodies here, so nothing enters a document
 * that the rules of its kind do not allow.
 */
import { descriptorOf, entityKinds, KINDS, type Entity, type EntityKind } from './kinds/index.ts';
import type { Kind } from './kinds/kind.ts';

export { isAsset, isId } from './fields.ts';
export { SAMPLE_LIMIT } from './mark-check.ts';

/** One thing wrong with a body: the field as a path from the body's root, and what to do about it. */
export interface BodyProblem {
  readonly field: string;
  readonly message: string;
}

export type Read<T> = { readonly ok: T } | { readonly problems: readonly BodyProblem[] };

/** A stored body made one of its kind's present version, or the problem with the version it says it has. */
function upgraded(body: Record<string, unknown>, { version, upgrades = [] }: Kind<Entity>): Read<unknown> {
  const { bodyVersion = 1, ...rest } = body;
  if (typeof bodyVersion !== 'number' || !Number.isInteger(bodyVersion) || bodyVersion < 1 || bodyVersion > version)
    return { problems: [{ field: 'bodyVersion', message: `must be from 1 to ${version}, or left out for 1` }] };
  return { ok: upgrades.slice(bodyVersion - 1).reduce((now, upgrade) => upgrade(now), rest) };
}

/** Reads a body from JSON. Nothing of a body with a problem is taken. */
export function readEntity(body: unknown): Read<Entity> {
  const kind = (body as { kind?: unknown } | null)?.kind;
  if (typeof kind !== 'string' || !Object.hasOwn(KINDS, kind)) {
    return { problems: [{ field: 'kind', message: `must be one of ${entityKinds().join(', ')}` }] };
  }
  const descriptor = KINDS[kind as EntityKind] as unknown as Kind<Entity>;
  const now = upgraded(body as Record<string, unknown>, descriptor);
  if ('problems' in now) return now;
  const result = descriptor.schema.safeParse(now.ok);
  if (result.success) return { ok: result.data };
  return {
    problems: result.error.issues.map((issue) => ({ field: issue.path.join('.') || 'body', message: issue.message })),
  };
}

/** The body of an entity in JSON. `readEntity` gives it back exactly. */
export function encodeEntity(entity: Entity): Record<string, unknown> {
  const { encode, version } = descriptorOf(entity);
  const body = encode?.(entity) ?? { ...entity };
  return version > 1 ? { ...body, bodyVersion: version } : body;
}
