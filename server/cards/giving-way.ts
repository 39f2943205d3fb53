/**
 * Loops give way to hands: making one takes a core, which the one who draws on the same machine would have. Low priority alone
 * does not see to that where systems share time out by session.
 */
import type { Id } from '@tallow/core/document';
import type { Knex } from 'knex';
import { setTimeout as rest } from 'node:timers/promises';

/** A shot that has changed within so many seconds is being worked on. */
const WORKED_ON_SECONDS = 5;
/** How often that is looked at, ms. */
const LOOK_MS = 1000;
/** A loop waits for so long in all at most, ms: where several work all day, cards change too. */
const MAX_WAIT_MS = 30_000;

/** What is being drawn has changed since: it will be asked for again once it has rested. */
export class Overtaken extends Error {}

/**
 * What is asked before each frame of a loop: it waits while any shot is being worked on.
 * @param shot whose loop it is, at a revision.
 * @throws Overtaken when that shot has gone on.
 */
export function givingWay(
  database: Knex,
  shot: { readonly id: Id; readonly revision: number },
  pause: (ms: number) => Promise<unknown> = rest,
): () => Promise<void> {
  let looked = 0;
  let waited = 0;
  const isWorkedOn = async (): Promise<boolean> => {
    looked = Date.now();
    const now = await database<{ id: Id; revision: number }>('shots').where({ id: shot.id }).first();
    if (now?.revision !== shot.revision) throw new Overtaken();
    const lately = `updated_at > now() - interval '${WORKED_ON_SECONDS} seconds'`;
    return (await database('shots').whereRaw(lately).first('id')) !== undefined;
  };
  return async () => {
    if (Date.now() - looked < LOOK_MS) return;
    while ((await isWorkedOn()) && waited < MAX_WAIT_MS) {
      await pause(LOOK_MS);
      waited += LOOK_MS;
    }
  };
}
