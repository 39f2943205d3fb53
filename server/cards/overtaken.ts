/**
 * A loop is given up when its shot goes on: it would be of an earlier revision, and making one takes a core, which the one who
 * draws on the same machine would have. Low priority alone does not see to that where systems share time out by session.
 */
import type { Id } from '@tallow/core/document';
import type { Knex } from 'knex';

/** How often the shot is looked at, ms. */
const LOOK_MS = 1000;

/** What is being drawn has changed since: it will be asked for again once it has rested. */
export class Overtaken extends Error {}

/**
 * What is asked before each frame of a loop.
 * @param shot whose loop it is, at a revision.
 * @throws Overtaken when that shot has gone on.
 */
export function notOvertaken(
  database: Knex,
  { id, revision }: { readonly id: Id; readonly revision: number },
): () => Promise<void> {
  let looked = 0;
  return async () => {
    if (Date.now() - looked < LOOK_MS) return;
    looked = Date.now();
    const now = await database<{ id: Id; revision: number }>('shots').where({ id }).first('revision');
    if (now?.revision !== revision) throw new Overtaken();
  };
}
