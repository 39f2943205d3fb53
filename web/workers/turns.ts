/** Long work in steps: between two of them it gives way to what is waited for. */
export class Turns {
  private resumed: Promise<void> | null = null;
  private resume: () => void = () => undefined;

  /** Lets what can wait stop at its next step, or go on. */
  giveWay(on: boolean): void {
    if (on === (this.resumed !== null)) return;
    if (on) {
      this.resumed = new Promise((resume) => (this.resume = resume));
    } else {
      this.resumed = null;
      this.resume();
    }
  }

  /** Comes when the next step may be taken; what was posted to this thread meanwhile has been read. */
  async next(): Promise<void> {
    await new Promise((read) => setTimeout(read));
    while (this.resumed) await this.resumed;
  }
}
