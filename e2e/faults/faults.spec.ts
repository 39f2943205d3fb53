/**
 * Two tabs and somebody over the interface draw and change one shot, while everything under them is killed, filled, cut
 * and cleared. Then every finished stroke is counted: none lost, none doubled, none on another drawing.
 */
import { expect, test } from '@playwright/test';
import { appendFileSync } from 'node:fs';
import { makeShot, marksOf, openDesk, Pen, saved, storedDrawings } from '../desk.ts';
import { readEntity } from '../../core/document/index.ts';
import { Browser } from './browser.ts';
import { Chance, pause, within } from './chance.ts';
import { Elsewhere } from './elsewhere.ts';
import { Hand, type Desk } from './hand.ts';
import { judge, Map2, MAX_STROKES, numbersOn, placeOf, type Drawn, type Stroke } from './tally.ts';
import { World, type Victim } from './world.ts';

const MINUTES = Number(process.env['TALLOW_FAULTS_MINUTES'] ?? 1);
const KILLS = Number(process.env['TALLOW_FAULTS_KILLS'] ?? 300);
/** Longest rest between two faults, ms. */
const PACE = Number(process.env['TALLOW_FAULTS_PACE'] ?? 2600);
const SEED = Number(process.env['TALLOW_FAULTS_SEED'] ?? Math.floor(Math.random() * 1e9));
/** Longest that one fault may take, ms. */
const STRIKE_MS = 45_000;
/** Longest that the browser may take to answer, ms. */
const ASK_MS = 5000;
/**
 * How long saving may take to go on by itself once all is well, ms: longer than a request that was cut off is waited for, and the
 * next one after it, on a machine that has more to do.
 */
const HEAL_MS = 200_000;

type Fault = Victim | 'renderer' | 'browser' | 'store' | 'cut' | 'disk';
const FAULTS: readonly (readonly [Fault, number])[] = [
  ['server', 5],
  ['worker', 2],
  ['backend', 4],
  ['postmaster', 3],
  ['renderer', 4],
  ['browser', 2],
  ['store', 2],
  ['cut', 2],
  ['disk', 1],
];
const KILLING: ReadonlySet<Fault> = new Set<Fault>([
  'server',
  'worker',
  'backend',
  'postmaster',
  'renderer',
  'browser',
]);

test(`strokes under kills for ${MINUTES} minutes: none lost, none doubled, none on another drawing`, async () => {
  console.log(`faults from seed ${SEED}`);
  test.setTimeout((MINUTES + 9) * 60_000);
  const world = await World.start();
  const browser = new Browser(world.profile, () => world.killBrowser());
  const chance = new Chance(SEED);
  const counts: Partial<Record<Fault, number>> = {};
  const told: string[] = [];
  try {
    const shot = await makeShot(world.address, { length: 96 });
    const strokes: Stroke[] = [];
    let [numbers, groups] = [0, 0];
    const desk: Desk = {
      address: world.address,
      shot,
      strokes,
      next: () => numbers++,
      group: () => (groups += 1),
      context: browser.open,
      giveUp: async (context) => {
        hands.forEach((each) => {
          each.doubt();
        });
        await browser.giveUp(context);
      },
    };

    // Two strokes tell how places of the picture lie in the shot.
    const first = await (await browser.open()).newPage();
    await openDesk(first, world.address, shot);
    const corners = [0, MAX_STROKES - 1].map(placeOf);
    const pen = await Pen.on(first);
    for (const at of corners) await pen.stroke(at, { x: at.x + 0.01, y: at.y + 0.01 }, 3);
    await saved(first);
    const begun = (await marksOf(world.address, shot)).map((mark) => {
      if (mark.kind !== 'stroke') throw new Error('A stroke was drawn');
      return { x: mark.samples.x[0]!, y: mark.samples.y[0]! };
    });
    const map = new Map2(corners[0]!, corners[1]!, begun[0]!, begun[1]!);
    numbers = 1;
    await first.close();

    const hands = [new Hand('one', desk, new Chance(SEED + 1), 0), new Hand('two', desk, new Chance(SEED + 2), 71)];
    const elsewhere = new Elsewhere(desk, new Chance(SEED + 3), map);
    const until = performance.now() + MINUTES * 60_000;
    const goesOn = (): boolean => performance.now() < until && numbers < MAX_STROKES - 40 && kills() < KILLS;
    const kills = (): number => [...KILLING].reduce((sum, each) => sum + (counts[each] ?? 0), 0);
    const count = (fault: Fault, ...said: string[]): void => {
      counts[fault] = (counts[fault] ?? 0) + 1;
      told.push([`${Math.round(performance.now())} ${fault}`, ...said].join('; '));
    };
    let frozen = false;
    const works = async (work: () => Promise<unknown>, rest: number): Promise<void> => {
      while (goesOn()) {
        if (!frozen) await work();
        await pause(rest);
      }
    };

    const strike = async (): Promise<void> => {
      const fault = chance.pick(FAULTS);
      const hand = hands[chance.below(2)]!;
      switch (fault) {
        case 'renderer': {
          const kept = await hand.isKept();
          if (kept.kept && (await hand.crash(kept))) count(fault, kept.said);
          return;
        }
        case 'browser': {
          const kept = await Promise.all(hands.map((each) => each.isKept()));
          if (!kept.every((each) => each.kept)) return;
          if (world.killBrowser()) count(fault, ...kept.map((each) => each.said));
          hands.forEach((each, i) => {
            each.doubt(kept[i]!.asked);
          });
          await browser.close();
          return;
        }
        case 'store': {
          // What closed tabs left there would be gone with it: only once the server has all of it.
          frozen = true;
          try {
            if (!(await settled(hands, 8000))) return;
            const context = await browser.open();
            const page = context.pages().find((each) => each.url().startsWith(world.address));
            if (!page) return;
            const origin = world.address;
            const session = await within(ASK_MS, context.newCDPSession(page));
            await within(ASK_MS, session.send('Storage.clearDataForOrigin', { origin, storageTypes: 'indexeddb' }));
            count(fault);
          } finally {
            frozen = false;
          }
          return;
        }
        case 'cut': {
          const context = await browser.open();
          try {
            await context.setOffline(true);
            count(fault);
            await pause(chance.between(500, 2500));
          } finally {
            await context.setOffline(false);
          }
          return;
        }
        case 'disk':
          // Chromium throws its store away when the disk is full: what nobody alive has would be gone.
          if (!world.ownDisk || !(await hands[0]!.isHeldByTabs()) || !(await hands[1]!.isHeldByTabs())) return;
          try {
            world.fillDisk();
            count(fault);
            await pause(chance.between(1500, 4000));
          } finally {
            world.freeDisk();
          }
          return;
        default:
          if (world.kill(fault)) count(fault);
      }
    };
    const faults = async (): Promise<void> => {
      while (goesOn()) {
        await pause(chance.between(200, PACE));
        await within(STRIKE_MS, strike()).catch(() => undefined);
      }
    };
    await Promise.all([
      ...hands.map((hand) => works(() => hand.work(), 60)),
      works(() => elsewhere.work(), 1200),
      faults(),
    ]);

    world.freeDisk();
    await expect.poll(() => world.isWell(), { timeout: HEAL_MS }).toBe(true);
    // Saving goes on by itself, and what closed tabs left is adopted by whoever opens the shot.
    const began = performance.now();
    const isSettled = await settled(hands, HEAL_MS);
    const states = isSettled
      ? []
      : await Promise.all(
          hands.map(async (hand) => `${JSON.stringify(await hand.says())} ${await hand.leftInStore()}`),
        );
    const seen = [...told, ...hands.flatMap((hand) => hand.unopened), ...world.said.slice(-12), ...states];
    expect(isSettled, `saving goes on by itself\n${seen.join('\n')}`).toBe(true);
    const healed = performance.now() - began;
    const bodies = await storedDrawings(world.address, shot);
    const verdict = judge(strokes, bodies.map(drawnOf), map);
    const summary = {
      seed: SEED,
      minutes: MINUTES,
      kills: kills(),
      ...counts,
      finished: verdict.finished,
      uncertain: strokes.length - verdict.finished,
      opened: hands.reduce((sum, hand) => sum + hand.opened, 0),
      restarts: world.said.filter((line) => line.includes('is back')).length,
      healedMs: Math.round(healed),
    };
    console.log(`faults ${JSON.stringify(summary)}`);
    const found: string[] = [];
    if (verdict.about.length > 0) {
      const once = (await world.everyDrawing()).map(({ revision, deleted, body }) => {
        const { id, marks } = drawnOf(body);
        const numbers = numbersOn(marks, map);
        return { id, numbers, line: `${id} at ${revision}${deleted ? ', deleted' : ''}: ${numbers.join(' ')}` };
      });
      const lost = once.filter(({ numbers }) => verdict.lost.some((number) => numbers.includes(number)));
      const history = await world.historyOf([...new Set(lost.map(({ id }) => id))]);
      const groups = new Set(verdict.about.map((line) => /group \d+/.exec(line)?.[0]));
      const begun = hands.flatMap((hand) => hand.begun).filter((line) => groups.has(/group \d+/.exec(line)?.[0]));
      const unopened = hands.flatMap((hand) => hand.unopened);
      // The last is what stays where only the end of a long failure is kept.
      found.push(...history, ...lost.map(({ line }) => line), ...unopened, ...told, ...begun, ...verdict.about);
    }
    const report = process.env['TALLOW_FAULTS_REPORT'];
    if (report) appendFileSync(report, `${JSON.stringify({ ...summary, ...verdict })}\n`);
    expect(found).toEqual([]);
    expect(verdict).toMatchObject({ lost: [], doubled: [], elsewhere: [], strange: 0 });
    // How many there are is the machine's; without any the run would say nothing.
    expect(verdict.finished).toBeGreaterThan(MINUTES);
    expect(kills()).toBeGreaterThan(MINUTES);
  } finally {
    await browser.close();
    await world.stop();
  }
});

function drawnOf(body: unknown): Drawn {
  const read = readEntity(body);
  if (!('ok' in read) || read.ok.kind !== 'drawing') throw new Error('The server keeps something else');
  const { id, order, marks } = read.ok;
  return { id, marks: order.map((each) => marks[each]!) };
}

/** Whether all tabs say Saved in the end, with nothing left in this browser's store. */
async function settled(hands: readonly Hand[], max: number): Promise<boolean> {
  const end = performance.now() + max;
  while (performance.now() < end) {
    const said = await Promise.all(hands.map((hand) => hand.says()));
    const left = await Promise.all(hands.map((hand) => hand.leftInStore()));
    if (said.every(({ text }) => text === 'Saved') && left.every((count) => count === 0)) return true;
    await pause(200);
  }
  return false;
}
