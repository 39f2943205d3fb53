/** Work that is not saved yet as a file: what was changed, and what it was changed from, so that it can be merged in later. */
import { z } from 'zod';
import { encodeEntity, isId, readEntity, type Entity, type Id } from '../document/index.ts';
import type { Pending } from '../edit/index.ts';

const FORMAT = 'tallow-unsaved-work';

/** Work of one shot. */
export interface UnsavedWork {
  readonly shotId: Id;
  readonly shotName: string;
  readonly pending: readonly Pending[];
}

const id = z.custom<Id>(isId, 'must be a UUID in lower case');
const schema = z.object({
  format: z.literal(FORMAT, 'This file is none of unsaved work.'),
  version: z.literal(1, 'This file is of a later version.'),
  shotId: id,
  shotName: z.string(),
  things: z.array(z.object({ id, body: z.unknown(), base: z.unknown() })).min(1, 'There is nothing in it.'),
});

/** The text of a file. @param made when, as an ISO date. */
export function unsavedText({ shotId, shotName, pending }: UnsavedWork, made: string): string {
  const things = pending.map(({ id: each, entity, base }) => ({
    id: each,
    body: entity && encodeEntity(entity),
    base: base && encodeEntity(base),
  }));
  return JSON.stringify({ format: FORMAT, version: 1, shotId, shotName, made, things });
}

/** Reads such a file, or says what is wrong with it. Nothing of a file with a fault is taken. */
export function readUnsaved(text: string): { ok: UnsavedWork } | { problem: string } {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { problem: 'This file is none of unsaved work.' };
  }
  const read = schema.safeParse(json);
  if (!read.success) {
    const [issue] = read.error.issues;
    return { problem: issue?.path.length ? `${issue.path.join('.')}: ${issue.message}` : (issue?.message ?? '') };
  }
  const pending: Pending[] = [];
  for (const [i, thing] of read.data.things.entries()) {
    const bodies: (Entity | null)[] = [];
    for (const field of ['body', 'base'] as const) {
      const body = thing[field] ?? null;
      const found = body === null ? { ok: null } : readEntity(body);
      if ('problems' in found)
        return { problem: `things.${i}.${field}.${found.problems[0]?.field} ${found.problems[0]?.message}` };
      if (found.ok && found.ok.id !== thing.id) return { problem: `things.${i}.${field} is of another id.` };
      bodies.push(found.ok);
    }
    pending.push({ id: thing.id, entity: bodies[0]!, base: bodies[1]! });
  }
  return { ok: { shotId: read.data.shotId, shotName: read.data.shotName, pending } };
}
