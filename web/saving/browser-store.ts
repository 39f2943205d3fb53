/**
 * This browser's database for unsaved work. It can go away at any time (a full disk, cleared site data, a private
 * window): then it is opened again with growing waits, and whoever keeps something in it writes it anew.
 */
import type { Id } from '@tallow/core/document';
import type { Pending } from '@tallow/core/edit';
import { deleteDB, openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { noteLost, rinseIfLost } from './rinse.ts';
import { Waits } from './waits.ts';

/** An edit as it is kept. Records of earlier versions have no seq. */
export interface Kept extends Pending {
  /** The tab's edit that made it what it is, counted from 1. */
  readonly seq?: number;
}

/** A save that is on its way, so that it can be repeated under its saveId. */
export interface KeptBatch {
  readonly saveId: Id;
  readonly baseRevision: number;
  readonly epoch: string;
  /** The tab's highest edit in it, or null when it holds only some of what was to be saved. */
  readonly seq: number | null;
  readonly bodies: readonly Pick<Pending, 'id' | 'entity'>[];
  /** Ids that are brought back from being deleted. */
  readonly restored: readonly Id[];
  /** Ids that are pointed at and come later. */
  readonly held: readonly Id[];
}

export interface Schema extends DBSchema {
  pending: { key: [shot: Id, tab: Id, id: Id]; value: Kept };
  batches: { key: [shot: Id, tab: Id]; value: KeptBatch };
}

type Database = IDBPDatabase<Schema>;

const NAME = 'tallow';
const STORES = ['pending', 'batches'] as const;

/** The keys of all that one tab keeps of a shot. */
export const rangeOf = (shotId: Id, tab: Id): IDBKeyRange =>
  IDBKeyRange.bound([shotId, tab, ''], [shotId, tab, '\uffff']);

class BrowserStore {
  private database: Database | null = null;
  private opening: Promise<void> | null = null;
  private readonly waits = new Waits();
  private readonly listeners = new Set<() => void>();
  /** Why nothing can be kept here now, or null. */
  trouble: string | null = null;

  /** Tells when the store has been opened, again or for the first time, and when it was lost. */
  onChange(listener: () => void): () => void {
    this.listeners.add(listener);
    this.open();
    return () => this.listeners.delete(listener);
  }

  get isOpen(): boolean {
    return this.database !== null;
  }

  /** Done when opening has succeeded or failed once. */
  async tried(): Promise<void> {
    this.open();
    await this.opening;
  }

  /** Works with the database. @throws whatever went wrong; the store is then taken as lost and opened again. */
  async run<T>(work: (database: Database) => Promise<T>): Promise<T> {
    if (!this.database) {
      this.open();
      throw new Error(this.trouble ?? 'it is not open yet');
    }
    try {
      return await work(this.database);
    } catch (error) {
      this.lose(error);
      throw error;
    }
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }

  private open(): void {
    this.opening ??= this.tryOpening();
  }

  private async tryOpening(): Promise<void> {
    try {
      await rinseIfLost();
      const database = await openDB<Schema>(NAME, 1, {
        upgrade(db) {
          for (const name of STORES) db.createObjectStore(name);
        },
        terminated: () => {
          this.lose(new Error('the browser has closed it'));
        },
      });
      if (!STORES.every((name) => database.objectStoreNames.contains(name))) {
        // Somebody else made it, empty: what is not there can hold nothing.
        database.close();
        await deleteDB(NAME);
        throw new Error('it was not as it should be');
      }
      this.database = database;
      this.trouble = null;
      this.tell();
    } catch (error) {
      this.lose(error);
    }
  }

  private lose(error: unknown): void {
    const { database } = this;
    this.database = null;
    noteLost();
    this.trouble = (error instanceof Error ? error.message : String(error)).replace(/\.$/, '');
    try {
      database?.close();
    } catch {
      // It is gone already.
    }
    this.tell();
    setTimeout(() => {
      this.opening = this.tryOpening();
    }, this.waits.next());
  }

  /** Something was written: the next loss is met with short waits again. */
  wrote(): void {
    this.waits.reset();
  }
}

export const browserStore = new BrowserStore();
