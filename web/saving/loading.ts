/** Drawings come after the structure of a shot: those of the first frame first, others when they are needed. */
import { entitiesOf, readEntity, type Entity, type Id } from '@tallow/core/document';
import { request, Unreachable } from '../api/client.ts';
import { receive, useDocument } from '../shot/document.ts';
import type { Unsaved } from './unsaved.ts';
import { Waits } from './waits.ts';

const AT_ONCE = 16;

/** Reads a body of the server's. @throws naming the field that is wrong. */
export function decode(body: unknown): Entity {
  const read = readEntity(body);
  if ('ok' in read) return read.ok;
  throw new Error(
    `The server sent a body that cannot be read: ${read.problems[0]?.field} ${read.problems[0]?.message}`,
  );
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
      const bodies = await request<unknown[]>('GET', `/shots/${this.shotId}/drawings?ids=${wanted.join(',')}`);
      const arrived = new Map<Id, Entity | null>();
      for (const entity of bodies.map(decode)) {
        if (!useDocument.getState().missing.has(entity.id)) continue;
        this.unsaved.acknowledge(entity.id, entity);
        arrived.set(entity.id, entity);
      }
      receive(arrived);
    }
  }

  /** Fetches all that are missing, and goes on trying while the server is out of reach. */
  async loadAll(): Promise<void> {
    const { doc, missing } = useDocument.getState();
    if (!doc) return;
    const firstShown = entitiesOf(doc, 'layer').flatMap(({ slots }) => Object.values(slots).slice(0, 1));
    const order = [...new Set([...firstShown, ...missing])];
    const waits = new Waits();
    while (!this.stopped) {
      try {
        await this.load(order);
        return;
      } catch (error) {
        if (!(error instanceof Unreachable)) throw error;
        await new Promise((done) => setTimeout(done, waits.next()));
      }
    }
  }
}
