/** One thing after another with the server, until nothing is left; where something stands in the way, again after a wait that grows. */
import { Waits } from './waits.ts';

export class Exchange {
  /** Why the server cannot be reached, or does not do what is asked of it; null while it does. */
  trouble: string | null = null;
  private running = false;
  private ended = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly waits = new Waits();

  /**
   * @param next what is to be done next, or null when nothing is.
   * @param mend puts right what an error says, where that can be done. @returns whether it was; then all goes on at once.
   * @param again called after a wait, to go on.
   * @param changed called when it has finished, or stopped.
   */
  constructor(
    private readonly next: () => (() => Promise<void>) | null,
    private readonly mend: (error: unknown) => Promise<boolean>,
    private readonly again: () => void,
    private readonly changed: () => void,
  ) {}

  /** Goes on now, if it does not already. */
  wake(): void {
    clearTimeout(this.timer);
    if (!this.running && !this.ended) void this.run();
  }

  /** The next wait is a short one. */
  forgetWaits(): void {
    this.waits.reset();
  }

  /** Nothing more is begun. */
  end(): void {
    this.ended = true;
    clearTimeout(this.timer);
  }

  private async run(): Promise<void> {
    this.running = true;
    try {
      for (let step = this.nextStep(); step; step = this.nextStep()) {
        await step();
        this.waits.reset();
        this.trouble = null;
      }
      this.trouble = null;
    } catch (error) {
      await this.stumble(error);
    } finally {
      this.running = false;
      this.changed();
    }
  }

  private nextStep(): (() => Promise<void>) | null {
    return this.ended ? null : this.next();
  }

  private async stumble(first: unknown): Promise<void> {
    if (this.ended) return;
    let error = first;
    try {
      if (await this.mend(error)) {
        this.timer = setTimeout(() => {
          this.wake();
        }, 0);
        return;
      }
    } catch (worse) {
      error = worse;
    }
    this.trouble = error instanceof Error ? error.message.replace(/\.$/, '') : String(error);
    this.timer = setTimeout(this.again, this.waits.next());
  }
}
