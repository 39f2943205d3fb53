/**
 * The outbox: edits that the server has not acknowledged, kept in this browser with strict
 * durability. Each tab has its own; what a closed tab left behind is adopted by the next one.
 */
import type { Entity, Id } from '@tallow/core/document';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** The latest body of one entity that is not acknowledged; null stands for deleted, a null base for new. */
export interface Pending {
  readonly id: Id;
  readonly entity: Entity | null;
  /** The last acknowledged body it was made from. */
  readonly base: Entity | null;
}

/** A save as it was sent, so that it can be repeated with the same saveId. */
export interface Batch {
  readonly saveId: Id;
  readonly baseRevision: number;
  readonly puts: readonly unknown[];
  readonly deletes: readonly Id[];
}

interface Schema extends DBSchema {
  pending: { key: [Id, Id, Id]; value: Pending };
  batches: { key: [Id, Id]; value: Batch };
}

const lockName = (tab: Id): string => `tallow-tab-${tab}`;
const strict = { durability: 'strict' } as const;

export class Outbox {
  private constructor(
    private readonly database: IDBPDatabase<Schema>,
    private readonly shotId: Id,
    private readonly tab: Id,
    /** Gives up the tab's lock: what is left may be adopted from now on. */
    readonly release: () => void,
  ) {}

  /** Opens an outbox for a shot and holds its lock until it is released or the page is gone. */
  static async open(shotId: Id): Promise<Outbox> {
    const database = await openDB<Schema>('tallow', 1, {
      upgrade(db) {
        db.createObjectStore('pending');
        db.createObjectStore('batches');
      },
    });
    const tab = crypto.randomUUID();
    const release = await new Promise<() => void>((held) => {
      void navigator.locks.request(lockName(tab), () => new Promise<void>(held));
    });
    return new Outbox(database, shotId, tab, release);
  }

  /** Keeps the given edits and takes out those whose ids are settled. Done when it is on disk. */
  async write(pending: readonly Pending[], settled: readonly Id[] = []): Promise<void> {
    if (pending.length === 0 && settled.length === 0) return;
    const tx = this.database.transaction('pending', 'readwrite', strict);
    for (const each of pending) void tx.store.put(each, [this.shotId, this.tab, each.id]);
    for (const id of settled) void tx.store.delete([this.shotId, this.tab, id]);
    await tx.done;
  }

  /** Notes the save that is on its way, or that none is. */
  async setBatch(batch: Batch | null): Promise<void> {
    const tx = this.database.transaction('batches', 'readwrite', strict);
    if (batch) void tx.store.put(batch, [this.shotId, this.tab]);
    else void tx.store.delete([this.shotId, this.tab]);
    await tx.done;
  }

  /**
   * Hands over what tabs that are gone left behind for this shot, one tab at a time. Their records
   * are deleted only after `take` is done.
   */
  async adopt(take: (pending: Pending[], batch: Batch | undefined) => Promise<void>): Promise<void> {
    const keys = await this.database.getAllKeys('pending');
    const batchKeys = await this.database.getAllKeys('batches');
    const tabs = new Set(
      [...keys, ...batchKeys].filter(([shot, tab]) => shot === this.shotId && tab !== this.tab).map(([, tab]) => tab),
    );
    for (const tab of tabs) {
      await navigator.locks.request(lockName(tab), { ifAvailable: true }, async (lock) => {
        if (!lock) return;
        const range = IDBKeyRange.bound([this.shotId, tab, ''], [this.shotId, tab, '\uffff']);
        await take(
          await this.database.getAll('pending', range),
          await this.database.get('batches', [this.shotId, tab]),
        );
        const tx = this.database.transaction(['pending', 'batches'], 'readwrite', strict);
        void tx.objectStore('pending').delete(range);
        void tx.objectStore('batches').delete([this.shotId, tab]);
        await tx.done;
      });
    }
  }
}
