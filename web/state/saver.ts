/**
 * Keeps the open shot: loads it, sends what changed, takes in what others changed, and tells how far
 * it is saved. An edit is in the outbox before it goes to the server and leaves it when the server has answered.
 */
import {
  encodeEntity,
  mergeEntity,
  randomId,
  readEntity,
  shotOf,
  type Drawing,
  type Entity,
  type Id,
  type ShotDocument,
} from '@tallow/core/document';
import { keepBoth, rescueDrawing } from '@tallow/core/edit';
import { Refused, request, Unreachable } from '../api/client.ts';
import type { Change, Changes, ShotStructure } from '../api/types.ts';
import { edit, onChange, openDocument, receive, say, useDocument } from './document.ts';
import { Outbox, type Batch, type Pending } from './outbox.ts';

const POLL_MS = 2500;
const RETRY_MS = 700;
const LOAD_AT_ONCE = 16;

function decode(body: unknown): Entity {
  const read = readEntity(body);
  if ('ok' in read) return read.ok;
  throw new Error(
    `The server sent a body that cannot be read: ${read.problems[0]?.field} ${read.problems[0]?.message}`,
  );
}

export class Saver {
  private readonly acknowledged = new Map<Id, Entity>();
  private readonly deletedThere = new Set<Id>();
  private revision = 0;
  private batch: { sent: Batch; bodies: Map<Id, Entity | null> } | null = null;
  private outboxReady: Promise<void> = Promise.resolve();
  private refused: string | null = null;
  private running = false;
  private closed = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly channel: BroadcastChannel;
  private readonly unlisten: () => void;

  private constructor(
    private readonly shotId: Id,
    private readonly outbox: Outbox,
  ) {
    this.channel = new BroadcastChannel(`tallow-shot-${shotId}`);
    this.channel.onmessage = () => void this.poll();
    this.unlisten = onChange((ids, by) => {
      if (by === 'user') this.keep(ids);
    });
    this.timer = setTimeout(() => void this.poll(), POLL_MS);
    addEventListener('online', this.wake);
  }

  /** Opens a shot: its structure at once, drawings near the first frame next, then the rest. */
  static async open(shotId: Id): Promise<Saver> {
    const outbox = await Outbox.open(shotId);
    try {
      return await Saver.load(shotId, outbox);
    } catch (error) {
      // What was adopted meanwhile is there for the next try.
      outbox.release();
      throw error;
    }
  }

  private static async load(shotId: Id, outbox: Outbox): Promise<Saver> {
    const orphans: Pending[][] = [];
    await outbox.adopt(async (pending, batch) => {
      // Whether the orphan's last save arrived is settled first, under its own saveId.
      if (batch) {
        await request('POST', `/shots/${shotId}/saves`, batch).catch((error: unknown) => {
          if (!(error instanceof Refused)) throw error;
        });
      }
      await outbox.write(pending);
      orphans.push(pending);
    });
    const structure = await request<ShotStructure>('GET', `/shots/${shotId}`);
    const saver = new Saver(shotId, outbox);
    const entities = structure.entities.map(decode);
    for (const entity of entities) saver.acknowledged.set(entity.id, entity);
    saver.revision = structure.revision;
    const doc: ShotDocument = { shotId, entities: Object.fromEntries(entities.map((e) => [e.id, e])) };
    shotOf(doc);
    openDocument(doc, structure.production, structure.drawings);
    void saver.loadAll(orphans);
    return saver;
  }

  /** Ends saving here. What is not saved stays in the outbox, and whoever opens the shot next adopts it. */
  async close(): Promise<void> {
    this.closed = true;
    clearTimeout(this.timer);
    removeEventListener('online', this.wake);
    this.channel.close();
    this.unlisten();
    await this.outboxReady;
    this.outbox.release();
  }

  /** Fetches drawings that are not here yet. */
  async load(ids: readonly Id[]): Promise<void> {
    for (let i = 0; i < ids.length; i += LOAD_AT_ONCE) {
      const { missing } = useDocument.getState();
      const wanted = ids.slice(i, i + LOAD_AT_ONCE).filter((id) => missing.has(id));
      if (wanted.length === 0 || this.closed) continue;
      const bodies = await request<unknown[]>('GET', `/shots/${this.shotId}/drawings?ids=${wanted.join(',')}`);
      const arrived = new Map<Id, Entity | null>();
      for (const entity of bodies.map(decode)) {
        if (!useDocument.getState().missing.has(entity.id)) continue;
        this.acknowledged.set(entity.id, entity);
        arrived.set(entity.id, entity);
      }
      receive(arrived);
    }
  }

  private async loadAll(orphans: readonly Pending[][]): Promise<void> {
    const { doc, missing } = useDocument.getState();
    if (!doc) return;
    const firstShown = Object.values(doc.entities).flatMap((e) =>
      e.kind === 'layer' ? Object.values(e.slots).slice(0, 1) : [],
    );
    const order = [...new Set([...firstShown, ...missing])];
    while (!this.closed) {
      try {
        await this.load(order);
        break;
      } catch (error) {
        if (!(error instanceof Unreachable)) throw error;
        await new Promise((done) => setTimeout(done, RETRY_MS));
      }
    }
    for (const pending of orphans) this.adopt(pending);
  }

  /** Puts what a closed tab left unsaved into the document, merged with what the server has. */
  private adopt(pending: readonly Pending[]): void {
    const settled = pending.filter(({ id, entity }) => {
      const here = this.acknowledged.get(id);
      return entity
        ? here !== undefined && JSON.stringify(encodeEntity(here)) === JSON.stringify(encodeEntity(entity))
        : !here;
    });
    const open = pending.filter((each) => !settled.includes(each));
    void this.outbox.write(
      [],
      settled.map(({ id }) => id),
    );
    if (open.length === 0) return;
    // What was deleted elsewhere meanwhile has to be brought back in so many words.
    for (const { id, entity, base } of open)
      if (entity && base && !this.acknowledged.has(id)) this.deletedThere.add(id);
    edit('work of a closed tab', (doc) => {
      const entities = { ...doc.entities };
      for (const { id, entity, base } of open) {
        const here = entities[id];
        if (!entity) Reflect.deleteProperty(entities, id);
        else if (here && base) entities[id] = mergeEntity(base, entity, here, randomId).merged;
        else entities[id] = entity;
      }
      return { ...doc, entities };
    });
    this.rescue();
  }

  private readonly wake = (): void => {
    void this.flush();
  };

  /** Ids whose body differs from what the server acknowledged. */
  private dirty(): Id[] {
    const entities = useDocument.getState().doc?.entities ?? {};
    const changed = Object.keys(entities).filter((id) => entities[id] !== this.acknowledged.get(id));
    const deleted = [...this.acknowledged.keys()].filter((id) => !(id in entities));
    return [...changed, ...deleted];
  }

  /** Puts edits into the outbox, then sends them. */
  private keep(ids: readonly Id[]): void {
    const entities = useDocument.getState().doc?.entities ?? {};
    const pending = ids.map((id): Pending => ({
      id,
      entity: entities[id] ?? null,
      base: this.acknowledged.get(id) ?? null,
    }));
    this.refused = null;
    if (useDocument.getState().saving.state === 'saved') useDocument.setState({ saving: { state: 'saving' } });
    this.outboxReady = this.outboxReady
      .then(() => this.outbox.write(pending))
      .catch((error: unknown) => {
        say(
          `This browser cannot keep unsaved work: ${error instanceof Error ? error.message : String(error)}. Keep this page open until everything is saved.`,
        );
      });
    void this.flush();
  }

  private nextBatch(): NonNullable<Saver['batch']> | null {
    const { doc } = useDocument.getState();
    const ids = this.dirty();
    if (!doc || ids.length === 0) return null;
    const bodies = new Map(ids.map((id) => [id, doc.entities[id] ?? null]));
    const puts = [...bodies.values()].flatMap((entity) => (entity ? [this.putOf(entity)] : []));
    const deletes = ids.filter((id) => bodies.get(id) === null);
    return { sent: { saveId: randomId(), baseRevision: this.revision, puts, deletes }, bodies };
  }

  private putOf(entity: Entity): unknown {
    const { id, kind } = entity;
    const restore = this.deletedThere.has(id) ? { restore: true } : {};
    const source = entity.kind === 'drawing' && !this.acknowledged.has(id) ? this.sourceOf(entity) : undefined;
    return source ? { id, kind, copyOf: source, ...restore } : { id, kind, body: encodeEntity(entity), ...restore };
  }

  /** The acknowledged drawing that this one is an untouched copy of: marks are shared until one is changed. */
  private sourceOf(copy: Drawing): Id | undefined {
    for (const [id, entity] of this.acknowledged) {
      if (
        entity.kind === 'drawing' &&
        entity.marks === copy.marks &&
        entity.order === copy.order &&
        copy.order.length > 0
      )
        return id;
    }
    return undefined;
  }

  /** Sends what is not acknowledged, one save at a time, until everything is or something stands in the way. */
  private async flush(): Promise<void> {
    if (this.running || this.closed) return;
    this.running = true;
    try {
      while (!this.closed && this.refused === null) {
        this.batch ??= this.nextBatch();
        if (this.batch) {
          await this.outboxReady;
          await this.outbox.setBatch(this.batch.sent);
          await this.send(this.batch);
          continue;
        }
        await this.outbox.setBatch(null);
        // An edit may have come while that was written down.
        if (this.dirty().length > 0) continue;
        useDocument.setState({ saving: { state: 'saved' } });
        break;
      }
    } catch (error) {
      if (this.closed) return;
      const why = error instanceof Unreachable ? error.message : String(error);
      useDocument.setState({
        saving: { state: 'unsaved', why: `${why}. Your work is kept in this browser; saving goes on by itself.` },
      });
      setTimeout(this.wake, RETRY_MS);
    } finally {
      this.running = false;
    }
  }

  private async send({ sent, bodies }: NonNullable<Saver['batch']>): Promise<void> {
    try {
      const answer = await request<Changes>('POST', `/shots/${this.shotId}/saves`, sent);
      this.batch = null;
      for (const [id, entity] of bodies) {
        if (entity) this.acknowledged.set(id, entity);
        else this.acknowledged.delete(id);
        if (entity) this.deletedThere.delete(id);
        else this.deletedThere.add(id);
      }
      this.takeIn(answer);
      const still = new Set(this.dirty());
      await this.outbox.write(
        [],
        [...bodies.keys()].filter((id) => !still.has(id)),
      );
      if (!this.closed) this.channel.postMessage('saved');
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      this.batch = null;
      if (error.status === 409) {
        this.takeIn(error.problem as unknown as Changes);
        return;
      }
      this.refused = error.message;
      useDocument.setState({
        saving: { state: 'unsaved', why: `${error.message} Your work is kept in this browser.` },
      });
    }
  }

  /** Takes in what others changed, merging it with what is not saved here. */
  private takeIn({ revision, changes }: Changes): void {
    const { doc } = useDocument.getState();
    this.revision = Math.max(this.revision, revision);
    if (!doc || this.closed) return;
    const arrived = new Map<Id, Entity | null>();
    const clashing: { mine: Entity; fields: readonly string[] }[] = [];
    for (const change of changes) {
      const base = this.acknowledged.get(change.id);
      const mine = doc.entities[change.id];
      const theirs = this.noteTheirs(change);
      if (mine === base) arrived.set(change.id, theirs);
      else if (mine && theirs) {
        const { merged, clashes } = mergeEntity(base ?? mine, mine, theirs, randomId);
        arrived.set(change.id, merged);
        if (clashes.length > 0) clashing.push({ mine, fields: clashes });
      }
    }
    receive(arrived);
    for (const { mine, fields } of clashing) {
      let notice = '';
      edit('keeping both', (now) => {
        const kept = keepBoth(now, mine, fields, randomId);
        notice = kept.notice;
        return kept.doc;
      });
      say(notice);
    }
    this.rescue();
  }

  private noteTheirs(change: Change): Entity | null {
    const theirs = change.body === null ? null : decode(change.body);
    if (theirs) {
      this.acknowledged.set(change.id, theirs);
      this.deletedThere.delete(change.id);
    } else {
      this.acknowledged.delete(change.id);
      this.deletedThere.add(change.id);
    }
    return theirs;
  }

  /** A drawing deleted elsewhere while it was drawn on here gets a layer of its own. */
  private rescue(): void {
    const { doc } = useDocument.getState();
    const lost = [...this.deletedThere].flatMap((id) => {
      const entity = doc?.entities[id];
      return entity?.kind === 'drawing' && entity.order.length > 0 ? [entity] : [];
    });
    for (const drawing of lost) edit('keeping a drawing', (now) => rescueDrawing(now, drawing, randomId));
  }

  /** Asks for what others changed, now and then and whenever another tab has saved. */
  private async poll(): Promise<void> {
    clearTimeout(this.timer);
    if (this.closed) return;
    try {
      if (document.visibilityState === 'visible' && !this.running) {
        const since = this.revision;
        const answer = await request<Changes>('GET', `/shots/${this.shotId}/changes?since=${since}`);
        // A save that ran meanwhile has brought these already.
        if (!this.running && this.revision === since && answer.revision > since) {
          this.takeIn(answer);
          void this.flush();
        }
      }
    } catch (error) {
      if (!(error instanceof Unreachable)) throw error;
    } finally {
      clearTimeout(this.timer);
      if (!this.closed) this.timer = setTimeout(() => void this.poll(), POLL_MS);
    }
  }
}
