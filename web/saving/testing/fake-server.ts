/** A server in memory, for tests of what talks to it: the same answers for opening, saving and asking what changed. */
import { encodeEntity, type Entity, type EntityKind, type Id, type ShotDocument } from '@tallow/core/document';

interface Row {
  readonly kind: EntityKind | string;
  readonly revision: number;
  /** Null when it is deleted. */
  readonly body: Record<string, unknown> | null;
}

interface SaveBody {
  readonly saveId: Id;
  readonly baseRevision: number;
  readonly epoch?: string;
  readonly puts: readonly { id: Id; kind: string; body: Record<string, unknown>; restore?: boolean }[];
  readonly deletes: readonly Id[];
}

interface Answer {
  readonly status: number;
  readonly body: unknown;
}

const problem = (status: number, title: string, more: object = {}): Answer => ({ status, body: { title, ...more } });

export class FakeServer {
  epoch = 'first';
  revision = 1;
  /** Whether it can be reached. */
  up = true;
  /** Whether drawings that are asked for wait until they are let go. */
  holds = false;
  private held: (() => void)[] = [];
  /** How often it was asked while it could not be reached. */
  missed = 0;
  /** How many answers to saves are lost on their way, the saves done. */
  losesAnswers = 0;
  /** Says why a body is refused, or null. */
  refuses: (id: Id) => string | null = () => null;
  /** The saves it was asked for. */
  readonly asked: SaveBody[] = [];
  /** Drawings in the order in which they were fetched. */
  readonly fetched: Id[] = [];
  readonly rows = new Map<Id, Row>();
  private readonly saves = new Map<Id, Answer>();

  constructor(
    private readonly shotId: Id,
    doc: ShotDocument,
  ) {
    for (const entity of Object.values(doc.entities)) this.rows.set(entity.id, this.rowOf(entity));
    globalThis.fetch = async (path, options) => {
      await Promise.resolve();
      if (this.holds && (path as string).includes('/drawings?')) await new Promise<void>((go) => this.held.push(go));
      if (!this.up) {
        this.missed += 1;
        throw new TypeError('fetch failed');
      }
      const { status, body } = this.answer(options?.method ?? 'GET', path as string, options?.body as string);
      return new Response(JSON.stringify(body), { status });
    };
  }

  /** How many requests for drawings are held. */
  get holding(): number {
    return this.held.length;
  }

  /** Lets drawings go that were asked for, or answers that the server cannot be reached. */
  letGo(): void {
    this.holds = false;
    for (const go of this.held) go();
    this.held = [];
  }

  /** Somebody else saves something; null deletes. */
  put(id: Id, entity: Entity | null): void {
    this.revision += 1;
    const row = this.rows.get(id);
    this.rows.set(id, entity ? this.rowOf(entity) : { kind: row!.kind, revision: this.revision, body: null });
  }

  bodyOf(id: Id): Record<string, unknown> | null | undefined {
    return this.rows.get(id)?.body;
  }

  private rowOf(entity: Entity): Row {
    const body = JSON.parse(JSON.stringify(encodeEntity(entity))) as Record<string, unknown>;
    return { kind: entity.kind, revision: this.revision, body };
  }

  private answer(method: string, path: string, text: string): Answer {
    const url = new URL(path, 'http://server');
    const [, , , what] = url.pathname.slice(1).split('/');
    if (method === 'POST' && what === 'saves') return this.save(JSON.parse(text) as SaveBody);
    if (what === 'changes') return this.changes(Number(url.searchParams.get('since')));
    if (what === 'drawings') {
      const ids = url.searchParams.get('ids')!.split(',');
      this.fetched.push(...ids);
      return { status: 200, body: ids.flatMap((id) => this.rows.get(id)?.body ?? []) };
    }
    const there = [...this.rows].flatMap(([id, { kind, body }]) => (body ? [{ id, kind, body }] : []));
    return {
      status: 200,
      body: {
        production: 'Test',
        epoch: this.epoch,
        revision: this.revision,
        entities: there.filter(({ kind }) => kind !== 'drawing').map(({ body }) => body),
        drawings: there.filter(({ kind }) => kind === 'drawing').map(({ id }) => id),
      },
    };
  }

  private changes(since: number): Answer {
    const changes = [...this.rows]
      .filter(([, { revision }]) => revision > since)
      .map(([id, { kind, revision, body }]) => ({ id, kind, revision, body }));
    return { status: 200, body: { epoch: this.epoch, revision: this.revision, changes, next: null } };
  }

  private save(save: SaveBody): Answer {
    this.asked.push(save);
    const known = this.saves.get(save.saveId);
    if (known) return known;
    if (save.epoch !== undefined && save.epoch !== this.epoch)
      return problem(409, 'The database is another one', { epoch: this.epoch });
    const named = [...save.puts.map(({ id }) => id), ...save.deletes];
    const conflicts = named.filter((id) => (this.rows.get(id)?.revision ?? 0) > save.baseRevision);
    if (conflicts.length > 0) return problem(409, 'Others have changed it', { conflicts });
    const bad = save.puts.flatMap(({ id }, i) => {
      const message = this.refuses(id);
      return message ? [{ field: `puts.${i}.body`, message }] : [];
    });
    if (bad.length > 0) return problem(400, bad[0]!.message, { errors: bad });
    const before = this.revision;
    this.revision += 1;
    for (const { id, kind, body } of save.puts) this.rows.set(id, { kind, revision: this.revision, body });
    for (const id of save.deletes)
      this.rows.set(id, { kind: this.rows.get(id)?.kind ?? '', revision: this.revision, body: null });
    const answer = { status: 200, body: { epoch: this.epoch, revision: this.revision, before } };
    this.saves.set(save.saveId, answer);
    if (this.losesAnswers === 0) return answer;
    this.losesAnswers -= 1;
    throw new TypeError(`the answer of ${this.shotId} was lost`);
  }
}
