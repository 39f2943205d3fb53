/** Adopting what closed tabs left unsaved: found, merged in by the saver, and taken out once the server has it. */
import type { Id } from '@tallow/core/document';
import type { Pending } from '@tallow/core/edit';
import { request } from '../api/client.ts';
import { forgetOrphan, keepOrphan, takeOrphans, type Orphan } from './orphans.ts';
import { sendBatch } from './sending.ts';

export class Adoption {
  /** Held, and still to be merged in. */
  private readonly waiting: Orphan[] = [];
  /** Merged in; their records go once the server has all up to an edit of this tab. */
  private readonly following: { readonly orphan: Orphan; readonly seq: number }[] = [];
  private over = false;

  constructor(
    private readonly shotId: Id,
    private readonly tab: Id,
  ) {}

  /** The next one to be merged in. */
  get next(): Orphan | undefined {
    return this.waiting[0];
  }

  /** Takes hold of what is there. @returns whether anything was. */
  async find(): Promise<boolean> {
    const held = [...this.waiting, ...this.following.map(({ orphan }) => orphan)];
    const own = new Set([this.tab, ...held.map(({ tab }) => tab)]);
    const found = await takeOrphans(this.shotId, own).catch((): Orphan[] => []);
    this.waiting.push(...found);
    if (this.over) this.release();
    return !this.over && found.length > 0;
  }

  /** The store has been opened anew: what was in it of those that wait may be gone, and is held here alone. */
  keepAgain(): Promise<void> {
    this.keeping = this.keeping.then(async () => {
      try {
        for (const orphan of [...this.waiting]) await keepOrphan(this.shotId, orphan);
      } catch {
        // It is lost again, and will be opened again.
      }
    });
    return this.keeping;
  }
  private keeping: Promise<void> = Promise.resolve();

  /** What of an orphan the server does not have. @throws Unreachable */
  async openOf({ tab, batch, pending }: Orphan): Promise<Pending[]> {
    // Whether its last save arrived is settled first, under its own saveId.
    const outcome = batch && (await sendBatch(this.shotId, tab, batch, () => undefined));
    const { seq } = await request<{ seq: number }>('GET', `/shots/${this.shotId}/tabs/${tab}`);
    const arrived = new Map((outcome?.kind === 'saved' ? batch!.bodies : []).map(({ id, entity }) => [id, entity]));
    return pending
      .filter((each) => each.seq === undefined || each.seq > seq)
      .map((each) => (arrived.has(each.id) ? { ...each, base: arrived.get(each.id) ?? null } : each));
  }

  /** The next one has been merged in. @param seq the tab's edit that it came in with. */
  merged(seq: number): void {
    const orphan = this.waiting.shift();
    if (orphan) this.following.push({ orphan, seq });
  }

  /** Takes out the records of those the server has. @param savedSeq the tab's edit up to which it has everything. */
  settle(savedSeq: number): void {
    for (let i = this.following.length - 1; i >= 0; i--) {
      const { orphan, seq } = this.following[i]!;
      if (seq > savedSeq) continue;
      this.following.splice(i, 1);
      // Not while it is being put back.
      this.keeping
        .then(() => forgetOrphan(this.shotId, orphan))
        .catch(() => {
          orphan.release();
        });
    }
  }

  /** Lets go of all; what was not taken out is adopted by whoever comes next. */
  release(): void {
    this.over = true;
    for (const orphan of this.waiting.splice(0)) orphan.release();
    for (const { orphan } of this.following.splice(0)) orphan.release();
  }
}
