/**
 * Keeps the open shot: loads it, keeps and sends what changed, takes in what others changed, and tells how far it is
 * saved. This browser's store and the server are two safeties that do not wait for each other: either alone keeps the
 * work. All exchange with the server is one thing after the other, in `exchange`.
 */
import { randomId, same, shotOf, type Entity, type Id, type ShotDocument } from '@tallow/core/document';
import { adoptPending, heal, takeIn, type Pending, type TakenIn, type Theirs } from '@tallow/core/edit';
import { request } from '../api/client.ts';
import type { ChangesPage, ShotStructure } from '../api/types.ts';
import { pictureFirst } from '../picture/open-engine.ts';
import { asides } from '../shot/aside.ts';
import { editAround, onChange, openDocument, receive, say, useDocument } from '../shot/document.ts';
import { Adoption } from './adoption.ts';
import { browserStore, type Kept, type KeptBatch } from './browser-store.ts';
import { Exchange } from './exchange.ts';
import { holdTab, type Orphan } from './orphans.ts';
import { FarDrawings, roomAtHand } from './far-drawings.ts';
import { Landing } from './landing.ts';
import { decode, decodeAll, Loading } from './loading.ts';
import { Outbox } from './outbox.ts';
import { savingOf } from './says.ts';
import { sendBatch } from './sending.ts';
import { Unsaved } from './unsaved.ts';

const POLL_MS = 2500;
/**
 * How often a tab that is gone is looked for, ms: its lock may be let go of a moment after it. Until somebody has taken
 * hold of what it left, this browser's store alone has it.
 */
const ORPHANS_MS = 2000;
/** Longest wait of a save for this browser's store, and of leaving a shot for it, ms. */
const STORE_MS = 250;
const LEAVE_MS = 2000;
/** Longest a save waits for the picture of what it holds, ms. */
const PICTURE_MS = 300;

/** The server's database is another than the one this page has worked with. */
class Restored extends Error {}

const theirsOf = ({ id, body }: ChangesPage['changes'][number]): Theirs => ({
  id,
  entity: body === null ? null : decode(body),
});

export class Saver {
  private readonly unsaved = new Unsaved();
  private readonly outbox: Outbox;
  private readonly adoption: Adoption;
  private readonly loading: Loading;
  private readonly landing: Landing;
  private readonly far: FarDrawings;
  private epoch = '';
  private batch: KeptBatch | null = null;
  private wantsPull = false;
  /** Whether the shot has been left: nothing that is done from now on is this shot's. */
  private left = false;
  private closed = false;
  private readonly exchange = new Exchange(
    () => this.nextStep(),
    (error) => this.mend(error),
    () => {
      // Anything else than a server out of reach is a fault of this page: the shot is asked for anew as well.
      this.pullSoon();
    },
    () => {
      this.tell();
    },
  );
  private readonly polling: ReturnType<typeof setInterval>;
  private readonly looking: ReturnType<typeof setInterval>;
  private readonly channel: BroadcastChannel;
  private readonly unlisten: (() => void)[];

  private constructor(
    private readonly shotId: Id,
    private readonly tab: Id,
    private readonly releaseTab: () => void,
  ) {
    this.adoption = new Adoption(shotId, tab);
    this.loading = new Loading(shotId, this.unsaved);
    this.far = new FarDrawings(
      (id) => this.unsaved.isOpen(id),
      roomAtHand((navigator as { deviceMemory?: number }).deviceMemory),
    );
    asides.whenLost = ({ id }) => this.loading.marksAgain(id);
    this.landing = new Landing(
      (ids) => this.load(ids),
      () => {
        this.tell();
      },
    );
    this.outbox = new Outbox(
      shotId,
      tab,
      {
        pendingOf: (id) => this.unsaved.pendingOf(id),
        dirty: () => this.unsaved.dirty(),
        batch: () => this.batch,
        seq: () => this.unsaved.seq,
      },
      () => {
        this.tell();
      },
    );
    this.channel = new BroadcastChannel(`tallow-shot-${shotId}`);
    this.channel.onmessage = () => {
      this.pullSoon();
    };
    const onOnline = (): void => {
      this.tryNow();
    };
    addEventListener('online', onOnline);
    this.unlisten = [
      onChange((ids, by) => {
        if (by !== 'server') this.keep(ids);
      }),
      browserStore.onChange(() => {
        if (!browserStore.isOpen) return;
        // With what was in it the lock may have gone.
        void holdTab(this.tab);
        void this.adoption.keepAgain().then(() => this.findOrphans());
      }),
      () => {
        removeEventListener('online', onOnline);
      },
    ];
    this.polling = setInterval(() => {
      if (document.visibilityState === 'visible' && this.exchange.trouble === null) this.pullSoon();
    }, POLL_MS);
    this.looking = setInterval(() => void this.findOrphans(), ORPHANS_MS);
  }

  /** Opens a shot: its structure at once, drawings near the first frame next, then the rest. */
  static async open(shotId: Id): Promise<Saver> {
    const structure = await request<ShotStructure>('GET', `/shots/${shotId}`);
    const tab = randomId();
    const saver = new Saver(shotId, tab, await holdTab(tab));
    try {
      saver.show(structure, await decodeAll(structure.entities));
    } catch (error) {
      await saver.close();
      throw error;
    }
    void saver.loading.loadAll();
    void browserStore.tried().then(() => saver.findOrphans());
    return saver;
  }

  /** Shows what the server has. */
  private show(structure: ShotStructure, entities: readonly Entity[]): void {
    const doc: ShotDocument = { shotId: this.shotId, entities: Object.fromEntries(entities.map((e) => [e.id, e])) };
    shotOf(doc);
    this.epoch = structure.epoch;
    this.unsaved.begin(structure.revision, entities);
    const missing = structure.drawings.filter((id) => !doc.entities[id]);
    openDocument(doc, structure.production, missing);
    const { doc: healed, told } = heal(doc);
    editAround(() => healed);
    if (told.length > 0) say(told.join(' '));
    this.tell();
  }

  /** Ends saving here. What is not saved stays in the outbox, and whoever opens the shot next adopts it. */
  async close(): Promise<void> {
    this.left = true;
    this.landing.stop();
    for (const unlisten of this.unlisten) unlisten();
    if (this.unsaved.waiting > 0) await this.outbox.whenHeld(this.unsaved.seq, LEAVE_MS);
    this.closed = true;
    this.loading.stop();
    this.far.stop();
    this.exchange.end();
    clearInterval(this.polling);
    clearInterval(this.looking);
    this.channel.close();
    this.outbox.close();
    this.adoption.release();
    this.releaseTab();
  }

  /** Fetches drawings that are not here yet. */
  load(ids: readonly Id[]): Promise<void> {
    return this.loading.load(ids);
  }

  /** Does something to a drawing once it is here: until then the header says that only this page has it. */
  land(drawingId: Id, put: () => void): Promise<void> {
    return this.landing.land(drawingId, put);
  }

  /** Takes hold of what closed tabs left here; the exchange adopts it. */
  private async findOrphans(): Promise<void> {
    if (await this.adoption.find()) this.wake();
  }

  /** Puts what a closed tab left unsaved into the document, merged with what the server has. */
  private async adopt(orphan: Orphan): Promise<void> {
    const open = await this.adoption.openOf(orphan);
    await this.pull();
    await this.take(open);
    this.adoption.merged(this.unsaved.seq);
    // When all of it has arrived already, nothing is to be sent for it.
    this.adoption.settle(this.unsaved.savedSeq);
  }

  /** Takes work from elsewhere into the document. */
  async take(pending: readonly Pending[]): Promise<void> {
    await this.load(pending.map(({ id }) => id));
    const doc = this.doc();
    if (!doc) throw new Error('the shot has been left');
    const result = adoptPending(doc, this.unsaved.known, pending);
    for (const id of result.acknowledged.gone) this.unsaved.noteGone(id);
    editAround(() => result.keep?.(result.doc) ?? result.doc);
    for (const notice of result.notices) say(notice);
  }

  /** Keeps what changed: in the outbox and, beside that, on the server. */
  private keep(ids: readonly Id[]): void {
    this.unsaved.changed(ids, useDocument.getState().doc?.entities ?? {}, this.batch);
    this.outbox.touch(ids);
    this.tell();
    this.wake();
  }

  /** Tries again at once. */
  tryNow(): void {
    this.exchange.forgetWaits();
    this.unsaved.forgive();
    this.pullSoon();
  }

  private pullSoon(): void {
    this.wantsPull = true;
    this.wake();
  }

  private wake(): void {
    this.exchange.wake();
  }

  /** What is exchanged with the server next: a save, what others changed, what a closed tab left. */
  private nextStep(): (() => Promise<void>) | null {
    const orphan = this.adoption.next;
    this.batch ??= this.unsaved.nextBatch(this.epoch);
    const { batch } = this;
    if (batch) return () => this.send(batch);
    if (this.wantsPull) return () => this.pull();
    return orphan ? () => this.adopt(orphan) : null;
  }

  private async mend(error: unknown): Promise<boolean> {
    if (!(error instanceof Restored)) return false;
    await this.reload();
    return true;
  }

  private async send(batch: KeptBatch): Promise<void> {
    this.outbox.touch([]);
    await this.outbox.whenHeld(batch.seq ?? this.unsaved.seq, STORE_MS);
    // Writing a drawing as text is work of the main thread: what was drawn is seen before it is sent.
    await pictureFirst(PICTURE_MS);
    // Left meanwhile: sent now, it would arrive after whoever opens the shot next has begun.
    if (this.closed) return;
    const outcome = await sendBatch(this.shotId, this.tab, batch, (id) => this.unsaved.sourceOf(id));
    this.batch = null;
    if (outcome.kind === 'restored') throw new Restored();
    if (outcome.kind === 'newer') {
      await this.pull();
      return;
    }
    if (outcome.kind === 'refused') {
      this.unsaved.refused(batch, outcome.ids, outcome.why);
      this.outbox.touch([]);
      return;
    }
    const { saved } = outcome;
    const behind = saved.before > this.unsaved.known.revision;
    this.unsaved.accepted(batch);
    this.outbox.touch(batch.bodies.map(({ id }) => id));
    if (behind) await this.pull(saved.before);
    this.unsaved.reached(saved.revision);
    this.adoption.settle(this.unsaved.savedSeq);
    if (!this.closed) this.channel.postMessage('saved');
  }

  /** Takes in what others changed, merging it with what is not saved here. @param upTo a revision, or all there is. */
  private async pull(upTo?: number): Promise<void> {
    this.wantsPull = false;
    const since = this.unsaved.known.revision;
    const changes: Theirs[] = [];
    let revision = upTo;
    let after = '';
    for (;;) {
      const query = `since=${since}${revision === undefined ? '' : `&upTo=${revision}`}${after && `&after=${after}`}`;
      const page = await request<ChangesPage>('GET', `/shots/${this.shotId}/changes?${query}`);
      if (page.epoch !== this.epoch || page.revision < since) throw new Restored();
      ({ revision } = page);
      changes.push(...page.changes.map(theirsOf));
      if (page.next === null) break;
      after = page.next;
    }
    const doc = this.doc();
    if (!doc) return;
    if (changes.length === 0) {
      this.unsaved.reached(revision);
      return;
    }
    // All of it is worked out first; only then is anything changed here.
    this.commit(takeIn(doc, this.unsaved.known, changes, revision));
    this.adoption.settle(this.unsaved.savedSeq);
  }

  private commit({ doc, ids, acknowledged, keep, notices }: TakenIn): void {
    this.unsaved.take(acknowledged);
    receive(new Map(ids.map((id) => [id, doc.entities[id] ?? null])));
    this.unsaved.changed(ids, doc.entities);
    this.outbox.touch(ids);
    if (keep) editAround(keep);
    for (const notice of notices) say(notice);
  }

  /** Loads the shot anew from a database that is another than before, and merges what was not saved into it. */
  private async reload(): Promise<void> {
    const structure = await request<ShotStructure>('GET', `/shots/${this.shotId}`);
    const entities = await decodeAll(structure.entities);
    // All that is waited for comes first, what is drawn meanwhile included: what fails has changed nothing, and from
    // here to the merging nothing more can be drawn.
    const unmet = new Set(structure.drawings);
    const next = (): Id[] => this.unsaved.pending().flatMap(({ id }) => (unmet.delete(id) ? [id] : []));
    for (let ids = next(); ids.length > 0; ids = next()) entities.push(...(await this.loading.fetchAll(ids)));
    const pending = this.unsaved.pending();
    this.batch = null;
    this.show(structure, entities);
    this.outbox.touch(pending.map(({ id }) => id));
    void this.loading.loadAll();
    await this.take(pending);
    say('The server’s database was put back from a copy. What was not saved yet has been put in again.');
  }

  /** The open document, while it is this shot's. */
  private doc(): ShotDocument | null {
    const { doc } = useDocument.getState();
    return doc?.shotId === this.shotId && !this.left ? doc : null;
  }

  /** Everything that is not on the server, as it is now. */
  pending(): Kept[] {
    return this.unsaved.pending();
  }

  /** Whether there is work that neither the server nor this browser's store has. */
  get onlyInMemory(): boolean {
    return this.landing.count > 0 || (this.unsaved.waiting > 0 && this.outbox.held < this.unsaved.seq);
  }

  /** Works out what the header says from what the page, this browser and the server have. */
  private tell(): void {
    if (this.closed) return;
    const next = savingOf(
      this.unsaved,
      this.landing.count,
      this.exchange.trouble,
      this.outbox.trouble,
      this.onlyInMemory,
    );
    if (!same(useDocument.getState().saving, next)) useDocument.setState({ saving: next });
  }
}
