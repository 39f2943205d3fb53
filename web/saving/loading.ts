/** Drawings come after the structure of a shot: those around the playhead first, others when they are needed. */
import { readEntity, type Drawing, type Entity, type Id } from '@tallow/core/document';
import { takeRoom } from '@tallow/core/render';
import { drawingsOn } from '@tallow/core/assembly';
import { drawingsNear } from '@tallow/core/timing';
import { request, Unreachable } from '../api/client.ts';
import { current, shotFrameOf } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { receive, useDocument } from '../shot/document.ts';
import { pictureFirst } from '../picture/open-engine.ts';
import { whenIdle } from '../workers/idle.ts';
import { readApart } from '../workers/reader-client.ts';
import type { Unsaved } from './unsaved.ts';
import { Waits } from './waits.ts';

const AT_ONCE = 8;
/** Drawings nearest to the playhead that are shown as soon as they come. */
const NEAR = 24;
/** Bodies are read for so many ms at a time: the pen, steps and playing come in between. */
const SLICE_MS = 8;

/** Drawings that nobody looks at are put into the document so many at a time: each time the page is drawn anew. */
const TOGETHER = 48;

/** ms after which loading goes on where something always wants the main thread. */
const LATEST_MS = 400;

/** Reads a body of the server's. @throws naming the field that is wrong. */
export const decode = (body: unknown): Entity => taken(readEntity(body));

function taken(read: ReturnType<typeof readEntity>): Entity {
  if ('ok' in read) return read.ok;
  throw new Error(
    `The server sent a body that cannot be read: ${read.problems[0]?.field} ${read.problems[0]?.message}`,
  );
}

/** Reads bodies of the server's, a slice of time after another. @throws naming the field that is wrong. */
export async function decodeAll(bodies: readonly unknown[]): Promise<Entity[]> {
  const read: Entity[] = [];
  let began = performance.now();
  for (const body of bodies) {
    read.push(decode(body));
    if (performance.now() - began < SLICE_MS) continue;
    await whenIdle(LATEST_MS);
    began = performance.now();
  }
  return read;
}

export class Loading {
  private stopped = false;

  constructor(
    private readonly shotId: Id,
    private readonly unsaved: Pick<Unsaved, 'acknowledge'>,
  ) {}

  stop(): void {
    this.stopped = true;
  }

  /** Fetches drawings that are not here yet. @throws Unreachable */
  async load(ids: readonly Id[]): Promise<void> {
    for (let i = 0; i < ids.length; i += AT_ONCE) {
      const { missing } = useDocument.getState();
      const wanted = ids.slice(i, i + AT_ONCE).filter((id) => missing.has(id));
      if (wanted.length === 0 || this.stopped) continue;
      this.putIn(await this.fetched(wanted));
    }
  }

  /** Fetches drawings that are still to be put into the document. @throws Unreachable */
  async fetchAll(ids: readonly Id[]): Promise<Entity[]> {
    const read: Entity[] = [];
    for (let i = 0; i < ids.length; i += AT_ONCE) read.push(...(await this.fetched(ids.slice(i, i + AT_ONCE))));
    return read;
  }

  /**
   * The marks of a drawing that this browser has lost, from the server; goes on trying while that is out of reach: painters
   * and the page wait for them. @throws where the server has none, or the shot has been left
   */
  async marksAgain(id: Id): Promise<Drawing['marks']> {
    const waits = new Waits();
    while (!this.stopped) {
      try {
        const [drawing] = await this.fetched([id]);
        if (drawing?.kind === 'drawing') return drawing.marks;
        throw new Error('A drawing is neither here nor on the server any more');
      } catch (error) {
        if (!(error instanceof Unreachable)) throw error;
        await new Promise((done) => setTimeout(done, waits.next()));
      }
    }
    throw new Error('The shot has been left');
  }

  /** @param canWait whether nobody looks at any of them. */
  private async fetched(ids: readonly Id[], canWait = false): Promise<Entity[]> {
    const bodies = await request<unknown[]>('GET', `/shots/${this.shotId}/drawings?ids=${ids.join(',')}`);
    const apart = await readApart(bodies, canWait);
    if (!apart) return decodeAll(bodies);
    // Taking over what the worker sent is a task by itself: drawing the page anew comes in the next.
    const read = apart.map(({ read: body, room }) => {
      const entity = taken(body);
      if (entity.kind === 'drawing' && room) takeRoom(entity, room);
      return entity;
    });
    await whenIdle(LATEST_MS);
    return read;
  }

  private putIn(read: readonly Entity[]): void {
    // Somebody else may have changed some meanwhile, or the shot has been left.
    const arrived = read.filter(({ id }) => useDocument.getState().missing.has(id));
    if (this.stopped || arrived.length === 0) return;
    for (const entity of arrived) this.unsaved.acknowledge(entity.id, entity);
    receive(new Map(arrived.map((entity) => [entity.id, entity])));
  }

  /** Fetches all that are missing, those around the playhead first, and goes on trying while the server is out of reach. */
  async loadAll(): Promise<void> {
    const waits = new Waits();
    // What the server does not give is asked for once.
    const asked = new Set<Id>();
    let ready: Entity[] = [];
    // The page that the shot has just been put into is drawn in this task: finding out what comes first is another.
    await new Promise((done) => setTimeout(done));
    for (let next = this.nextOf(asked); next.length > 0 && !this.stopped; next = this.nextOf(asked)) {
      try {
        const read = await this.fetched(next, !this.anySeen(next));
        for (const id of next) asked.add(id);
        ready.push(...read);
        if (ready.length < TOGETHER && !this.anySeen(ready.map(({ id }) => id))) {
          await pictureFirst(LATEST_MS);
          continue;
        }
        this.putIn(ready);
        ready = [];
        // The page and its picture come before what is not seen yet.
        await whenIdle(LATEST_MS);
        await pictureFirst();
      } catch (error) {
        if (!(error instanceof Unreachable)) throw error;
        this.putIn(ready);
        ready = [];
        await new Promise((done) => setTimeout(done, waits.next()));
      }
    }
    this.putIn(ready);
  }

  /** Whether the picture shows any of some drawings, or would after a few steps. */
  private anySeen(ids: readonly Id[]): boolean {
    const now = current();
    if (!now) return true;
    const { frame, turn } = selection();
    const seen = new Set([
      ...drawingsOn(now.doc, shotFrameOf(now, frame, turn)),
      ...drawingsNear(now, frame).slice(0, NEAR),
    ]);
    return ids.some((id) => seen.has(id));
  }

  /** What is fetched next: what the picture shows now, then what lies nearest to the playhead of the element that is worked on. */
  private nextOf(asked: ReadonlySet<Id>): Id[] {
    const { missing } = useDocument.getState();
    const now = current();
    const { frame, turn } = selection();
    const seen = now ? drawingsOn(now.doc, shotFrameOf(now, frame, turn)) : [];
    const near = now ? drawingsNear(now, frame) : [];
    return [...new Set([...seen, ...near, ...missing])]
      .filter((id) => missing.has(id) && !asked.has(id))
      .slice(0, AT_ONCE);
  }
}
