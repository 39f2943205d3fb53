/**
 * The outbox: the latest body of everything that the server has not acknowledged, kept in this browser with strict
 * durability under the tab it was made in.
 */
import type { Id } from '@tallow/core/document';
import { asides } from '../shot/aside.ts';
import { nextTask } from '../workers/idle.ts';
import { browserStore, rangeOf, type Kept, type KeptBatch } from './browser-store.ts';

/** When something touched could not be written for longer than that, the store is taken as not answering, ms. */
const LATE_MS = 500;

/** What is to be kept: asked for when it is written, so that only the latest is. */
export interface OutboxSource {
  /** What is not acknowledged of an id, or null when nothing is. */
  pendingOf(id: Id): Kept | null;
  /** Everything that is not acknowledged. */
  dirty(): Iterable<Id>;
  /** The save that is on its way. */
  batch(): KeptBatch | null;
  /** The tab's highest edit so far. */
  seq(): number;
}

export class Outbox {
  private readonly touched = new Set<Id>();
  private writing = false;
  private late: string | null = null;
  /** When the first thing was touched that no write has begun with yet; null when there is nothing to be written. */
  private since: number | null = null;
  /** Runs out when the store has not answered for too long, whether it is open or on its way to be. */
  private patience: ReturnType<typeof setTimeout> | undefined;
  private readonly unlisten: () => void;
  private wasOpen = browserStore.isOpen;
  /** Whether records of before a loss may still be there, older than what the server has. */
  private anew = false;
  /** The highest of the tab's edits up to which all that is not acknowledged is kept here; -1 for none. */
  held = -1;

  constructor(
    private readonly shotId: Id,
    private readonly tab: Id,
    private readonly unsaved: OutboxSource,
    private readonly changed: () => void,
  ) {
    this.unlisten = browserStore.onChange(() => {
      this.storeChanged();
    });
  }

  /** Why work is not kept here now, or null. */
  get trouble(): string | null {
    return browserStore.trouble ?? this.late;
  }

  /** Has ids written as they now are, or taken out where nothing of them is unsaved, and the save on its way. */
  touch(ids: Iterable<Id>): void {
    for (const id of ids) this.touched.add(id);
    this.since ??= performance.now();
    this.tellIfLate(this.since);
    void this.write();
  }

  /** Says that the store does not answer when something touched at a time is not kept in time. */
  private tellIfLate(since: number): void {
    this.patience ??= setTimeout(
      () => {
        this.late = 'it does not answer';
        this.tell();
      },
      since + LATE_MS - performance.now(),
    );
  }

  /** Done when all up to an edit is kept, or after so many ms without. */
  async whenHeld(seq: number, max: number): Promise<void> {
    const end = performance.now() + max;
    while (this.held < seq || this.since !== null) {
      const left = end - performance.now();
      if (left <= 0) return;
      await new Promise<void>((done) => {
        const timer = setTimeout(done, Math.ceil(left));
        this.waiting.push(() => {
          clearTimeout(timer);
          done();
        });
      });
    }
  }
  private waiting: (() => void)[] = [];

  close(): void {
    clearTimeout(this.patience);
    this.unlisten();
  }

  private tell(): void {
    const { waiting } = this;
    this.waiting = [];
    for (const done of waiting) done();
    this.changed();
  }

  /** The store has kept what there was; what has come since is waited for from when it came. */
  private answered(): void {
    clearTimeout(this.patience);
    this.patience = undefined;
    this.late = null;
    if (this.since !== null) this.tellIfLate(this.since);
    this.tell();
  }

  private storeChanged(): void {
    const isOpen = browserStore.isOpen;
    if (isOpen && !this.wasOpen) {
      // What was in it may be gone: all that is not acknowledged is written anew.
      this.anew = true;
      this.touch(this.unsaved.dirty());
    } else if (!isOpen) {
      this.held = -1;
      this.tell();
    }
    this.wasOpen = isOpen;
  }

  private async write(): Promise<void> {
    if (this.writing || !browserStore.isOpen) return;
    this.writing = true;
    try {
      while (this.since !== null) {
        // What is kept is copied, which takes its time: the task that shows a stroke is not held up by it.
        await nextTask();
        const ids = [...this.touched];
        this.touched.clear();
        this.since = null;
        const seq = this.unsaved.seq();
        const records = ids.map((id) => [id, this.unsaved.pendingOf(id)] as const);
        const batch = this.unsaved.batch();
        // What something was before may lie aside, and is written with it.
        const before = records.flatMap(([, kept]) => (kept?.base?.kind === 'drawing' ? [kept.base] : []));
        if (before.some((drawing) => asides.isAside(drawing))) await asides.toHand(before);
        const { anew } = this;
        await browserStore.run(async (database) => {
          const tx = database.transaction(['pending', 'batches'], 'readwrite', { durability: 'strict' });
          const [pending, batches] = [tx.objectStore('pending'), tx.objectStore('batches')];
          // Each request's own failure is the transaction's too, which is what is waited for.
          const asked: Promise<unknown>[] = [tx.done];
          if (anew) asked.push(pending.delete(rangeOf(this.shotId, this.tab)));
          const puts = records.map(([id, kept]) =>
            kept ? pending.put(kept, [this.shotId, this.tab, id]) : pending.delete([this.shotId, this.tab, id]),
          );
          asked.push(
            ...puts,
            batch ? batches.put(batch, [this.shotId, this.tab]) : batches.delete([this.shotId, this.tab]),
          );
          // Not when the answers are in, but now: a page that is shut in this moment has handed all of it over.
          tx.commit();
          await Promise.all(asked);
        });
        browserStore.wrote();
        this.anew = false;
        this.held = seq;
        this.answered();
      }
    } catch {
      // The store is opened again by itself; then all of it is written.
    } finally {
      this.writing = false;
    }
    if (this.since !== null && browserStore.isOpen) void this.write();
  }
}
