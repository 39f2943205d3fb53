import type { Id } from '@tallow/core/document';
import { Injectable } from '@nestjs/common';

/** A page that shows a shot asks every 2.5 s what has changed; after so long without it is shut or hidden, ms. */
const OPEN_MS = 8000;

/** Which shots are open somewhere, as far as pages ask for them. */
@Injectable()
export class OpenShots {
  private readonly seen = new Map<Id, number>();

  /** A page has asked for something of a shot that it shows. */
  see(shotId: Id): void {
    this.seen.set(shotId, Date.now());
  }

  /** The shots that are open now. */
  now(): Id[] {
    const since = Date.now() - OPEN_MS;
    for (const [id, at] of this.seen) if (at < since) this.seen.delete(id);
    return [...this.seen.keys()];
  }
}
