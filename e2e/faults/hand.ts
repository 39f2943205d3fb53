/** One tab and the hand that draws in it. Whatever befalls it, it opens the shot again and goes on. */
import type { BrowserContext, Page } from '@playwright/test';
import { beenHere, Pen } from '../desk.ts';
import { leftInStore, tabsInStoreAreHeld } from '../browser-store.ts';
import { pause, within, type Chance } from './chance.ts';
import { placeOf, type Stroke } from './tally.ts';

/** Longer than the header may not know that a store hangs, ms. */
const KNOWN_MS = 600;
const OPEN_MS = 20_000;
/** Longest that a browser may take to give a page; one that takes longer is dead and says nothing any more. */
const PAGE_MS = 15_000;
/** Longest that one thing a hand does may take before its page is given up, ms. */
const LONGEST_MS = 40_000;
const ASK_MS = 25_000;

export interface Desk {
  readonly address: string;
  readonly shot: string;
  readonly strokes: Stroke[];
  next(): number;
  group(): number;
  context(): Promise<BrowserContext>;
  /** Ends a browser that answers no more, so that the next `context` is a new one's. */
  giveUp(context: BrowserContext): Promise<void>;
}

export interface Kept {
  readonly kept: boolean;
  readonly asked: number;
  readonly said: string;
}

interface Tab {
  readonly page: Page;
  readonly pen: Pen;
}

export class Hand {
  private tab: Tab | null = null;
  private opening: Promise<Tab> | null = null;
  private group: number | null = null;
  /** Until when all that was finished is known to be kept by somebody else than the page. */
  private keptUntil = 0;
  /** How often the shot was opened. */
  opened = 0;
  /** When it did not open, and what was seen then. */
  readonly unopened: string[] = [];
  /** Where each of its drawings was begun: what the page said before the key and after it. */
  readonly begun: string[] = [];

  constructor(
    private readonly name: string,
    private readonly desk: Desk,
    private readonly chance: Chance,
    /** Hours by which this tab's clock is wrong. */
    private readonly wrongBy: number,
  ) {}

  /** The tab, opened if need be, once for all who wait for it. */
  private ready(): Promise<Tab> {
    if (this.tab && !this.tab.page.isClosed()) return Promise.resolve(this.tab);
    this.opening ??= within(PAGE_MS + 3 * OPEN_MS, this.open()).finally(() => {
      this.opening = null;
    });
    return this.opening;
  }

  private async open(): Promise<Tab> {
    this.forget();
    const context = await this.desk.context();
    const page = await within(PAGE_MS, context.newPage()).catch(async (error: unknown) => {
      await this.desk.giveUp(context);
      throw error;
    });
    try {
      return await within(3 * OPEN_MS, this.openShot(page));
    } catch (error) {
      this.unopened.push(await this.whyUnopened(page, error));
      void page.close().catch(() => undefined);
      throw error;
    }
  }

  /** What can be said of a page in which the shot did not open. */
  private async whyUnopened(page: Page, error: unknown): Promise<string> {
    const asked = page.evaluate(() => {
      const { shown = 'nothing', wanted = 'nothing' } =
        document.querySelector<HTMLElement>('[data-testid=picture]')?.dataset ?? {};
      return `${shown} of ${wanted} shown; ${document.body.innerText.replace(/\s+/g, ' ').slice(0, 300)}`;
    });
    const seen = await within(2000, asked).catch(() => 'the page does not answer');
    return `${Math.round(performance.now())} ${this.name} did not open: ${String(error).split('\n')[0]}; ${seen}`;
  }

  private async openShot(page: Page): Promise<Tab> {
    page.on('crash', () => {
      this.doubt();
      this.forget();
      void page.close().catch(() => undefined);
    });
    page.on('dialog', (dialog) => void dialog.accept().catch(() => undefined));
    await page.addInitScript((hours) => {
      const now = Date.now.bind(Date);
      Date.now = () => now() + hours * 3_600_000;
    }, this.wrongBy);
    await page.setViewportSize({ width: 1280, height: 800 });
    await beenHere(page);
    await page.goto(`${this.desk.address}/shots/${this.desk.shot}/draw`, { timeout: OPEN_MS });
    await page.waitForFunction(
      () => document.querySelector<HTMLElement>('[data-testid=picture]')?.dataset['shown'] !== undefined,
      undefined,
      { timeout: OPEN_MS },
    );
    this.tab = { page, pen: await Pen.on(page) };
    this.opened += 1;
    return this.tab;
  }

  private forget(): void {
    this.tab = null;
    this.group = null;
  }

  /** What the header says, and why; empty while there is no page. */
  async says(): Promise<{ text: string; why: string }> {
    try {
      const mark = (await within(ASK_MS, this.ready())).page.getByTestId('saved');
      return {
        text: await mark.innerText({ timeout: 3000 }),
        why: (await mark.getAttribute('data-tip', { timeout: 3000 })) ?? '',
      };
    } catch {
      return { text: '', why: '' };
    }
  }

  /** Whether all that was finished when it was asked is kept by somebody else than the page, as far as the header says. */
  async isKept(): Promise<Kept> {
    const asked = performance.now();
    const isKnown = await this.known();
    const { text, why } = await this.says();
    const kept =
      isKnown && (text === 'Saved' || (text !== '' && text !== 'Only in this page' && !/keeps no/.test(why)));
    if (kept) this.keptUntil = asked;
    return { kept, asked, said: `${this.name} asked at ${Math.round(asked)}: ${text}, ${why}` };
  }

  /** Waits until the header knows of all that was finished so far, by a timer of the page's own: those begun before it have run out. @returns whether the page answered. */
  private async known(): Promise<boolean> {
    const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
    const answered = await within(
      ASK_MS,
      this.ready().then(({ page }) => page.evaluate(wait, KNOWN_MS)),
    ).catch(() => null);
    return answered !== null;
  }

  /** How many unsaved things this browser's store holds, of any tab. */
  async leftInStore(): Promise<number> {
    try {
      const { page } = await within(ASK_MS, this.ready());
      return await within(ASK_MS, leftInStore(page));
    } catch {
      return -1;
    }
  }

  /** Whether all that this browser's store holds is held by a living tab too, which would write it anew. */
  async isHeldByTabs(): Promise<boolean> {
    try {
      const { page } = await within(ASK_MS, this.ready());
      return await within(ASK_MS, tabsInStoreAreHeld(page));
    } catch {
      return false;
    }
  }

  /** Does one thing that a hand does. Troubles of the page end it, not the run. */
  async work(): Promise<void> {
    try {
      await within(LONGEST_MS, this.doSomething());
    } catch {
      this.doubt();
      await this.close();
    }
  }

  private async doSomething(): Promise<void> {
    const tab = await this.ready();
    const { keyboard } = tab.page;
    const what = this.chance.pick([
      ['stroke', 12],
      ['drawing', 3],
      ['hold', 1],
      ['undone and done again', 1],
    ] as const);
    if (this.group === null || what === 'drawing') {
      // A new drawing, which from here on is the one that is drawn on.
      const before = await this.where(tab);
      await keyboard.press('KeyS');
      this.group = this.desk.group();
      this.begun.push(`group ${this.group} of ${this.name}: ${before}, then ${await this.where(tab)}`);
    }
    if (what === 'hold') await keyboard.press(this.chance.below(2) === 0 ? 'KeyG' : 'Shift+KeyG');
    else if (what === 'undone and done again') await this.toAndFro(tab, this.group);
    else await this.stroke(tab, this.group);
  }

  /** Which frame the page is on, as it says itself, and what it said last. */
  private async where({ page }: Tab): Promise<string> {
    const frame = await page
      .getByTestId('frame-of')
      .first()
      .innerText({ timeout: 2000 })
      .catch(() => 'no frame');
    const notice = await page.getByRole('status').allInnerTexts();
    return [frame.replace(/\s+/g, ' '), ...notice].join(' ');
  }

  private async stroke({ pen }: Tab, group: number): Promise<Stroke> {
    const number = this.desk.next();
    const record: Stroke = { number, group, finished: false, at: 0, hand: this.name };
    this.desk.strokes.push(record);
    const from = placeOf(number);
    await pen.stroke(from, { x: from.x + 0.008, y: from.y + 0.008 }, 4);
    record.at = performance.now();
    record.finished = true;
    return record;
  }

  /** One step back and forth again: until then its stroke is not counted on. */
  private async toAndFro(tab: Tab, group: number): Promise<void> {
    const last = await this.stroke(tab, group);
    last.finished = false;
    await tab.page.keyboard.press('Control+KeyZ');
    await tab.page.keyboard.press('Control+Shift+KeyZ');
    last.at = performance.now();
    last.finished = true;
  }

  /** Its renderer is killed. Strokes of the last moment may or may not be there. */
  async crash({ asked }: Kept): Promise<boolean> {
    const page = this.tab?.page;
    if (!page || page.isClosed()) return false;
    const session = await within(PAGE_MS, page.context().newCDPSession(page));
    void session.send('Page.crash').catch(() => undefined);
    await Promise.race([page.waitForEvent('crash').catch(() => undefined), pause(2000)]);
    this.doubt(asked);
    await this.close();
    return true;
  }

  /** Strokes that came after the header was asked are not counted on once the page is killed, or has gone by itself. */
  doubt(since = this.keptUntil): void {
    for (const stroke of this.desk.strokes) if (stroke.hand === this.name && stroke.at > since) stroke.finished = false;
  }

  async close(): Promise<void> {
    const page = this.tab?.page;
    this.forget();
    if (page && !page.isClosed()) await Promise.race([page.close().catch(() => undefined), pause(2000)]);
  }
}
