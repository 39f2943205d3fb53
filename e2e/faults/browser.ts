/** Chromium with a profile that outlives it. One that is dead or says nothing any more is replaced by a new one. */
import { chromium, type BrowserContext } from '@playwright/test';
import { CHROMIUM, FLAGS } from '../chromium.ts';
import { pause, within } from './chance.ts';

const LAUNCH_MS = 20_000;
const CLOSE_MS = 3000;

export class Browser {
  private context: Promise<BrowserContext> | null = null;

  constructor(
    private readonly profile: string,
    /** Kills whatever process uses the profile. */
    private readonly kill: () => boolean,
  ) {}

  /** The running browser, started if there is none. */
  open = (): Promise<BrowserContext> => {
    this.context ??= within(LAUNCH_MS, this.launch()).catch((error: unknown) => {
      this.context = null;
      this.kill();
      throw error;
    });
    return this.context;
  };

  private async launch(): Promise<BrowserContext> {
    const context = await chromium.launchPersistentContext(this.profile, {
      executablePath: CHROMIUM,
      args: [...FLAGS, '--disk-cache-size=1000000'],
      viewport: { width: 1280, height: 800 },
      timeout: LAUNCH_MS,
    });
    const launched = this.context;
    context.on('close', () => {
      if (this.context === launched) this.context = null;
    });
    return context;
  }

  /** Ends a browser that answers no more; one that was started since is left alone. */
  giveUp = async (given: BrowserContext): Promise<void> => {
    const now = await Promise.race([this.context?.catch(() => null), pause(0)]);
    if (now !== given) return;
    this.kill();
    await this.close();
  };

  /** Closes it, as far as it still answers. */
  async close(): Promise<void> {
    const { context } = this;
    this.context = null;
    const closed = context?.then((each) => each.close());
    await Promise.race([closed?.catch(() => undefined), pause(CLOSE_MS)]);
  }
}
