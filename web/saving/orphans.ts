/**
 * What closed tabs left unsaved. Whoever adopts it holds the closed tab's lock for as long as it takes: the records
 * stay where they are until the server has acknowledged them, so an adoption that is cut short is simply made again.
 */
import { readEntity, type Id } from '@tallow/core/document';
import { browserStore, rangeOf, type Kept, type KeptBatch } from './browser-store.ts';

const lockName = (tab: Id): string => `tallow-tab-${tab}`;

/** Holds the lock of a tab. @returns how to let go, or null if somebody else holds it. */
async function holdLock(tab: Id): Promise<(() => void) | null> {
  return new Promise((held) => {
    void navigator.locks.request(lockName(tab), { ifAvailable: true }, (lock) => {
      if (!lock) {
        held(null);
        return undefined;
      }
      return new Promise<void>((release) => {
        held(release);
      });
    });
  });
}

/** Holds a new tab's own lock until it is released or the page is gone. */
export async function holdTab(tab: Id): Promise<() => void> {
  return (await holdLock(tab)) ?? (() => undefined);
}

export interface Orphan {
  readonly tab: Id;
  readonly pending: readonly Kept[];
  readonly batch: KeptBatch | null;
  /** Lets go of it; the records stay. */
  readonly release: () => void;
}

/** A save as earlier versions kept it. */
interface OlderBatch {
  readonly saveId: Id;
  readonly baseRevision: number;
  readonly puts: readonly { id: Id; body?: unknown; restore?: boolean }[];
  readonly deletes: readonly Id[];
}

function readBatch(kept: KeptBatch | OlderBatch | undefined): KeptBatch | null {
  if (!kept) return null;
  if ('bodies' in kept) return kept;
  const bodies = kept.puts.flatMap(({ id, body }) => {
    const read = body === undefined ? null : readEntity(body);
    return read && 'ok' in read ? [{ id, entity: read.ok }] : [];
  });
  return {
    saveId: kept.saveId,
    baseRevision: kept.baseRevision,
    epoch: '',
    seq: null,
    bodies: [...bodies, ...kept.deletes.map((id) => ({ id, entity: null }))],
    restored: kept.puts.flatMap(({ id, restore }) => (restore ? [id] : [])),
    held: [],
  };
}

/** Takes hold of what tabs that are gone left behind for a shot. */
export async function takeOrphans(shotId: Id, not: ReadonlySet<Id>): Promise<Orphan[]> {
  const keys = await browserStore.run(async (database) => [
    ...(await database.getAllKeys('pending')),
    ...(await database.getAllKeys('batches')),
  ]);
  const tabs = new Set(keys.filter(([shot, tab]) => shot === shotId && !not.has(tab)).map(([, tab]) => tab));
  const orphans: Orphan[] = [];
  for (const tab of tabs) {
    const release = await holdLock(tab);
    if (!release) continue;
    try {
      const [pending, batch] = await browserStore.run((database) =>
        Promise.all([database.getAll('pending', rangeOf(shotId, tab)), database.get('batches', [shotId, tab])]),
      );
      orphans.push({ tab, pending, batch: readBatch(batch), release });
    } catch (error) {
      release();
      for (const orphan of orphans) orphan.release();
      throw error;
    }
  }
  return orphans;
}

/** Puts the records of a closed tab back, where the store was lost and has them no more. */
export async function keepOrphan(shotId: Id, { tab, pending, batch }: Orphan): Promise<void> {
  await browserStore.run(async (database) => {
    const tx = database.transaction(['pending', 'batches'], 'readwrite', { durability: 'strict' });
    const [kept, batches] = [tx.objectStore('pending'), tx.objectStore('batches')];
    for (const each of pending)
      if (!(await kept.getKey([shotId, tab, each.id]))) void kept.put(each, [shotId, tab, each.id]);
    if (batch && !(await batches.getKey([shotId, tab]))) void batches.put(batch, [shotId, tab]);
    await tx.done;
  });
}

/**
 * Takes out the records of a closed tab that were adopted: the server has acknowledged what came of them. Newer ones
 * stay: the tab may be alive after all, for clearing a site's data takes the locks of its open tabs with it.
 */
export async function forgetOrphan(shotId: Id, { tab, pending, batch, release }: Orphan): Promise<void> {
  await browserStore.run(async (database) => {
    const tx = database.transaction(['pending', 'batches'], 'readwrite', { durability: 'strict' });
    const [kept, batches] = [tx.objectStore('pending'), tx.objectStore('batches')];
    for (const { id, seq } of pending) {
      const now = await kept.get([shotId, tab, id]);
      if (now?.seq === seq) void kept.delete([shotId, tab, id]);
    }
    if ((await batches.get([shotId, tab]))?.saveId === batch?.saveId) void batches.delete([shotId, tab]);
    await tx.done;
  });
  release();
}
