/** What was drawn on drawings that have not come yet: only this page has it until they do. */
import type { Id } from '@tallow/core/document';
import { Unreachable } from '../api/client.ts';
import { useDocument } from '../shot/document.ts';
import { Waits } from './waits.ts';

export class Landing {
  /** How many things wait for their drawing. */
  count = 0;
  private stopped = false;

  /** @param load fetches drawings. @param changed is called when the count has changed. */
  constructor(
    private readonly load: (ids: readonly Id[]) => Promise<void>,
    private readonly changed: () => void,
  ) {}

  /** Does something to a drawing once it is here, however long the server is out of reach. */
  async land(drawingId: Id, put: () => void): Promise<void> {
    this.add(1);
    const waits = new Waits();
    const isMissing = (): boolean => useDocument.getState().missing.has(drawingId);
    try {
      while (!this.stopped && isMissing()) {
        try {
          await this.load([drawingId]);
        } catch (error) {
          if (!(error instanceof Unreachable)) throw error;
        }
        if (!this.stopped && isMissing()) await new Promise((next) => setTimeout(next, waits.next()));
      }
      if (!this.stopped) put();
    } finally {
      this.add(-1);
    }
  }

  /** The shot has been left: what still waits is given up. */
  stop(): void {
    this.stopped = true;
  }

  private add(more: 1 | -1): void {
    this.count += more;
    this.changed();
  }
}
