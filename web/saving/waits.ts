/** Waits between tries that grow while nothing succeeds. */

const FIRST_MS = 300;
const MAX_MS = 10_000;

export class Waits {
  private tries = 0;

  /** How long to wait before the next try, ms. */
  next(): number {
    const wait = Math.min(MAX_MS, FIRST_MS * 2 ** this.tries);
    this.tries += 1;
    return wait;
  }

  /** Begins with short waits again: something has succeeded. */
  reset(): void {
    this.tries = 0;
  }
}
