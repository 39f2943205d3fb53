/** What is not on the server yet: which entities, up to which edit, and how they are put together to saves. */
import { randomId, type Entity, type Id } from '@tallow/core/document';
import type { Acknowledged } from '@tallow/core/edit';
import type { Kept, KeptBatch } from './browser-store.ts';

type Entities = Readonly<Record<Id, Entity>>;

/** Something the server refuses, as it was, and why. */
export interface Bad {
  readonly entity: Entity | null;
  readonly why: string;
}

export class Unsaved {
  private bodies = new Map<Id, Entity>();
  private gone = new Set<Id>();
  private revision = 0;
  /** Latest bodies of what is not acknowledged; null for deleted. */
  private readonly latest = new Map<Id, { entity: Entity | null; seq: number }>();
  /** Untouched copies share their marks with what they were copied from. */
  private readonly byMarks = new WeakMap<object, Id>();
  /** Groups of ids that are sent one after the other, while what cannot be saved is looked for. */
  private groups: (readonly Id[])[] = [];
  /** What the server refuses, until it is changed. */
  readonly bad = new Map<Id, Bad>();
  /** The highest edit so far, and the highest up to which the server has everything. */
  seq = 0;
  savedSeq = 0;

  /** Begins anew with what the server has. */
  begin(revision: number, entities: readonly Entity[]): void {
    this.revision = revision;
    this.bodies = new Map();
    this.gone = new Set();
    for (const entity of entities) this.acknowledge(entity.id, entity);
    this.latest.clear();
    this.bad.clear();
    this.groups = [];
  }

  get known(): Acknowledged {
    return { revision: this.revision, bodies: this.bodies, gone: this.gone };
  }

  /** Ids of what is not acknowledged. */
  dirty(): Iterable<Id> {
    return this.latest.keys();
  }

  /** Whether something is not acknowledged. */
  isOpen(id: Id): boolean {
    return this.latest.has(id);
  }

  /** How many things are not acknowledged. */
  get waiting(): number {
    return this.latest.size;
  }

  pendingOf(id: Id): Kept | null {
    const latest = this.latest.get(id);
    return latest ? { id, entity: latest.entity, base: this.bodies.get(id) ?? null, seq: latest.seq } : null;
  }

  pending(): Kept[] {
    return [...this.latest.keys()].flatMap((id) => this.pendingOf(id) ?? []);
  }

  /** The server has this body. */
  acknowledge(id: Id, entity: Entity | null): void {
    if (entity) {
      this.bodies.set(id, entity);
      this.gone.delete(id);
      if (entity.kind === 'drawing' && entity.order.length > 0) this.byMarks.set(entity.marks, id);
    } else {
      this.bodies.delete(id);
      this.gone.add(id);
    }
  }

  /** It has been deleted there: putting it again says so. */
  noteGone(id: Id): void {
    this.gone.add(id);
  }

  /**
   * One more edit, or merging, has changed these: works out which of them are not as the server has them.
   * @param sent the save that is on its way: what it holds counts as open until it is answered.
   */
  changed(ids: readonly Id[], entities: Entities, sent: KeptBatch | null = null): void {
    this.seq += 1;
    const under = new Set(sent?.bodies.map(({ id }) => id));
    for (const id of ids) {
      const entity = entities[id] ?? null;
      if (entity === (this.bodies.get(id) ?? null) && !under.has(id)) {
        this.latest.delete(id);
      } else if (this.latest.get(id)?.entity !== entity) {
        this.latest.set(id, { entity, seq: this.seq });
      }
      if (this.bad.get(id)?.entity !== entity) this.bad.delete(id);
    }
    if (this.latest.size === 0) this.savedSeq = this.seq;
  }

  /** What others made known. */
  take({ revision, bodies, gone }: Acknowledged): void {
    this.revision = revision;
    for (const [id, entity] of bodies) if (this.bodies.get(id) !== entity) this.acknowledge(id, entity);
    for (const id of this.bodies.keys()) if (!bodies.has(id)) this.bodies.delete(id);
    this.gone = new Set(gone);
  }

  reached(revision: number): void {
    this.revision = Math.max(this.revision, revision);
  }

  /** The next save: all that is not acknowledged but what is refused, or the next group while that is looked for. */
  nextBatch(epoch: string): KeptBatch | null {
    const isOpen = (id: Id) => this.latest.has(id) && !this.bad.has(id);
    const open = [...this.latest.keys()].filter(isOpen);
    this.groups = this.groups.map((ids) => ids.filter(isOpen)).filter((ids) => ids.length > 0);
    const ids = this.groups[0] ?? open;
    if (ids.length === 0) return null;
    const isAll = ids.length === this.latest.size;
    const own = new Set(ids);
    return {
      saveId: randomId(),
      baseRevision: this.revision,
      epoch,
      seq: isAll ? this.seq : null,
      bodies: ids.map((id) => ({ id, entity: this.latest.get(id)!.entity })),
      restored: ids.filter((id) => this.gone.has(id) && this.latest.get(id)!.entity !== null),
      held: isAll ? [] : [...this.latest.keys()].filter((id) => !own.has(id)),
    };
  }

  /** The acknowledged drawing that a new one is an untouched copy of. */
  sourceOf(id: Id): Id | undefined {
    const entity = this.latest.get(id)?.entity;
    if (entity?.kind !== 'drawing' || this.bodies.has(id)) return undefined;
    const source = this.byMarks.get(entity.marks);
    const body = source ? this.bodies.get(source) : undefined;
    return body?.kind === 'drawing' && body.marks === entity.marks && body.order === entity.order ? source : undefined;
  }

  /** A save is on the server. */
  accepted({ bodies, seq }: KeptBatch): void {
    for (const { id, entity } of bodies) {
      this.acknowledge(id, entity);
      // It may have been changed again while it was on its way.
      if (this.latest.get(id)?.entity === entity) this.latest.delete(id);
    }
    this.groups = this.groups.slice(1);
    if (this.latest.size === 0) this.savedSeq = this.seq;
    else if (seq !== null) this.savedSeq = Math.max(this.savedSeq, seq);
  }

  /** A save was refused: one thing alone is set aside; of several, the named ones are tried alone, or each half. */
  refused({ bodies }: KeptBatch, named: readonly Id[], why: string): void {
    const ids = bodies.map(({ id }) => id);
    const [only] = bodies;
    this.groups = this.groups.slice(1);
    if (ids.length === 1 && only) {
      this.bad.set(only.id, { entity: only.entity, why });
      return;
    }
    const rest = ids.filter((id) => !named.includes(id));
    const middle = Math.ceil(ids.length / 2);
    const parts =
      named.length > 0 && rest.length > 0
        ? [rest, ...named.map((id) => [id])]
        : [ids.slice(0, middle), ids.slice(middle)];
    this.groups.unshift(...parts);
  }

  /** Lets what was refused be tried again. */
  forgive(): void {
    this.bad.clear();
  }
}
