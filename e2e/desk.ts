/** The desk as a user's hands meet it: a shot of one's own, and a pen driven through the browser's input protocol. */
import { expect, type CDPSession, type Locator, type Page } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { readEntity, type Mark, type Stroke } from '../core/document/index.ts';

export const address = (): string => process.env['TALLOW_E2E_ADDRESS'] ?? '';

/** What stands on the page of shots before any test. */
export const [SOME_PRODUCTION, SOME_SHOT] = ['The Glasshouse', 'Furnace mouth'];

/** A production that is there, or a new one. */
async function someProduction(at: string): Promise<string> {
  const listed = await fetch(`${at}/api/productions`);
  expect(listed.status).toBe(200);
  const [first] = (await listed.json()) as { id: string }[];
  if (first) return first.id;
  const id = randomUUID();
  const made = await fetch(`${at}/api/productions`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id, name: SOME_PRODUCTION }),
  });
  expect(made.status).toBe(201);
  return id;
}

/** Makes a shot over the interface and returns its id. */
export async function makeShot(at: string, settings: Record<string, unknown> = {}): Promise<string> {
  const id = randomUUID();
  const body = {
    id,
    productionId: await someProduction(at),
    name: 'Test shot',
    width: 640,
    height: 360,
    rate: 24,
    length: 24,
    background: '#202020',
    ...settings,
  };
  const response = await fetch(`${at}/api/shots`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  expect(response.status).toBe(201);
  return id;
}

/** The ways in of a first visit are gone: they lie where tests draw. */
export async function beenHere(page: Page): Promise<void> {
  await page.addInitScript(() => {
    localStorage.setItem('tallow-begun', 'true');
  });
}

export async function openDesk(page: Page, at: string, shotId: string): Promise<void> {
  await beenHere(page);
  await page.goto(`${at}/shots/${shotId}/draw`);
  await expect(page.getByTestId('picture')).toHaveAttribute('data-shown', /\d+/);
}

interface PenPoint {
  readonly x: number;
  readonly y: number;
  readonly force?: number;
}

/** A pen over the picture. Coordinates are shares of the picture's area, 0 to 1, and may go beyond. */
export class Pen {
  private constructor(
    private readonly page: Page,
    private readonly session: CDPSession,
  ) {}

  static async on(page: Page): Promise<Pen> {
    return new Pen(page, await page.context().newCDPSession(page));
  }

  private async send(
    type: 'mousePressed' | 'mouseMoved' | 'mouseReleased',
    point: PenPoint,
    down: boolean,
  ): Promise<void> {
    await this.at(type, this.onPage(point), down);
  }

  /** Where the picture lies: looked up before each stroke, for within one it stays where it is. */
  private box = { x: 0, y: 0, width: 0, height: 0 };
  private async look(): Promise<void> {
    this.box = (await this.page.getByTestId('picture').boundingBox())!;
  }
  private onPage({ x, y, force }: PenPoint): PenPoint {
    const { box } = this;
    return { x: box.x + x * box.width, y: box.y + y * box.height, force };
  }

  /** The pen anywhere on the page, CSS px. */
  private async at(
    type: 'mousePressed' | 'mouseMoved' | 'mouseReleased',
    point: PenPoint,
    down: boolean,
  ): Promise<void> {
    await this.session.send('Input.dispatchMouseEvent', {
      type,
      x: point.x,
      y: point.y,
      button: 'left',
      buttons: down ? 1 : 0,
      clickCount: 1,
      pointerType: 'pen',
      force: point.force ?? 0.6,
      tiltX: 20,
      tiltY: -15,
    });
  }

  /** Taps the middle of a control. */
  async tap(control: Locator): Promise<void> {
    await control.scrollIntoViewIfNeeded();
    const box = (await control.boundingBox())!;
    await this.drag([{ x: box.x + box.width / 2, y: box.y + box.height / 2 }]);
  }

  /** Goes along places of the page, CSS px, with the pen down. @param seen comes when the page shows what is to be seen before the pen lifts. */
  async drag(places: readonly PenPoint[], seen?: () => Promise<void>): Promise<void> {
    await this.at('mouseMoved', places[0]!, false);
    await this.at('mousePressed', places[0]!, true);
    for (const place of places.slice(1)) await this.at('mouseMoved', place, true);
    await seen?.();
    await this.at('mouseReleased', { ...places.at(-1)!, force: 0 }, false);
  }

  async down(point: PenPoint): Promise<void> {
    await this.look();
    await this.send('mousePressed', point, true);
  }
  async move(point: PenPoint): Promise<void> {
    await this.send('mouseMoved', point, true);
  }
  /** Moves through places as fast as a tablet sends them: the page gets them in few events, none is lost. */
  async moves(points: readonly PenPoint[]): Promise<void> {
    await Promise.all(points.map((point) => this.at('mouseMoved', this.onPage(point), true)));
  }
  async up(point: PenPoint): Promise<void> {
    await this.send('mouseReleased', { ...point, force: 0 }, false);
  }

  /** A stroke along a line, pressed more towards its middle. */
  async stroke(from: PenPoint, to: PenPoint, samples = 24): Promise<void> {
    await this.down({ ...from, force: 0.3 });
    await this.moves(
      Array.from({ length: samples }, (_, i) => {
        const t = (i + 1) / samples;
        return {
          x: from.x + (to.x - from.x) * t,
          y: from.y + (to.y - from.y) * t + 0.02 * Math.sin(t * 9),
          force: 0.3 + 0.6 * Math.sin(Math.PI * t),
        };
      }),
    );
    await this.up(to);
  }
}

/** What the picture shows, as a hash: equal text means equal to the pixel. */
export async function pixels(page: Page): Promise<string> {
  return page.getByTestId('picture').evaluate(async (canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    let hash = 2166136261;
    const words = new Uint32Array(data.buffer);
    for (let i = 0; i < words.length; i++) hash = Math.imul(hash ^ words[i]!, 16777619);
    return `${canvas.width}x${canvas.height}:${hash >>> 0}`;
  });
}

/** How many pixels of the picture have about this colour. */
export async function countOf(page: Page, colour: readonly [number, number, number], within = 3): Promise<number> {
  return page.getByTestId('picture').evaluate(
    (canvas: HTMLCanvasElement, [[r, g, b], max]) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
      let count = 0;
      for (let i = 0; i < data.length; i += 4) {
        if (Math.max(Math.abs(data[i]! - r), Math.abs(data[i + 1]! - g), Math.abs(data[i + 2]! - b)) <= max) count += 1;
      }
      return count;
    },
    [colour, within] as const,
  );
}

/** Waits until the painter has drawn everything that has been done. */
export async function painted(page: Page): Promise<void> {
  await page.waitForFunction(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture]');
    return canvas?.dataset['shown'] !== undefined && canvas.dataset['shown'] === canvas.dataset['wanted'];
  });
}

interface Stored {
  readonly entities: {
    kind: string;
    id: string;
    slots?: Record<string, string>;
    runs?: { slot: string | null; length: number }[];
    [more: string]: unknown;
  }[];
  readonly drawings: string[];
  readonly revision: number;
}

/** The shot as the server has it. */
export async function stored(at: string, shotId: string): Promise<Stored> {
  return (await (await fetch(`${at}/api/shots/${shotId}`)).json()) as Stored;
}

/** The drawings on the server. */
export async function storedDrawings(
  at: string,
  shotId: string,
): Promise<{ id: string; order: string[]; marks: Record<string, { kind: string }> }[]> {
  const { drawings } = await stored(at, shotId);
  const all: Awaited<ReturnType<typeof storedDrawings>> = [];
  for (let i = 0; i < drawings.length; i += 50) {
    const ids = drawings.slice(i, i + 50).join(',');
    const answer = await fetch(`${at}/api/shots/${shotId}/drawings?ids=${ids}`);
    all.push(...((await answer.json()) as typeof all));
  }
  return all;
}

/** How many marks each drawing on the server has, fewest first. */
export async function storedMarks(at: string, shotId: string): Promise<number[]> {
  return (await storedDrawings(at, shotId)).map((body) => body.order.length).sort((a, b) => a - b);
}

/** The marks of a shot's drawings, those of each lowest first, read as the application reads them. */
export async function marksOf(at: string, shotId: string): Promise<Mark[]> {
  const bodies = await storedDrawings(at, shotId);
  return bodies
    .sort((a, b) => a.id.localeCompare(b.id))
    .flatMap((body) => {
      const read = readEntity(body);
      if (!('ok' in read) || read.ok.kind !== 'drawing') throw new Error('The server keeps no drawing here');
      const { order, marks } = read.ok;
      return order.map((id) => marks[id]!);
    });
}

/** Its strokes. */
export const strokesOf = async (at: string, shotId: string): Promise<Stroke[]> =>
  (await marksOf(at, shotId)).filter((mark): mark is Stroke => mark.kind === 'stroke');

export async function saved(page: Page): Promise<void> {
  await expect(page.getByTestId('saved')).toHaveText('Saved');
}

/** Draws so many drawings with a short bar each, a little farther right from one to the next. */
export async function drawn(page: Page, count: number): Promise<void> {
  const pen = await Pen.on(page);
  for (let i = 0; i < count; i++) {
    if (i > 0) await page.keyboard.press('KeyS');
    await painted(page);
    await pen.stroke({ x: 0.3 + i * 0.03, y: 0.35 }, { x: 0.3 + i * 0.03, y: 0.6 }, 6);
  }
}

/** The runs of the shot's only moving layer on the server, each as its slot and its length. */
export async function runsOf(shotId: string): Promise<string[]> {
  const { entities } = await stored(address(), shotId);
  const lists = entities.filter((e) => e.kind === 'runlist' && (e.runs?.length ?? 0) > 0);
  return lists.flatMap((list) => list.runs!.map((run) => `${run.slot?.slice(0, 8) ?? 'none'} ${run.length}`));
}

/** A round line about a place, shares of the picture. */
export async function ring(pen: Pen, cx: number, cy: number, r = 0.04): Promise<void> {
  const at = (i: number) => {
    const turn = (i / 24) * 2 * Math.PI;
    return { x: cx + r * Math.cos(turn), y: cy + r * (640 / 360) * Math.sin(turn), force: 0.6 };
  };
  await pen.down(at(0));
  await pen.moves(Array.from({ length: 24 }, (_, i) => at(i + 1)));
  await pen.up(at(24));
}
