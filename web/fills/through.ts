/** Fills carried through drawings, and laid again where lines have changed since. */
import { find, randomId, type Id } from '@tallow/core/document';
import { boundsFingerprint } from '@tallow/core/derived';
import {
  fillOfLayer,
  layFills,
  refillable,
  relayFills,
  slotsFrom,
  staleFills,
  type FillPlan,
  type StaleFill,
} from '@tallow/core/edit';
import { shownOn } from '@tallow/core/timing';
import { proxy } from 'comlink';
import { create } from 'zustand';
import type { Point } from '@tallow/core/geometry';
import type { FillWork } from '@tallow/core/render';
import { compute } from '../workers/compute-client.ts';
import { current, type Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { edit, onChange, say } from '../shot/document.ts';
import { fillingNow, MAX_GAP, setFill, useFill, whyNotFill, type FillReportAt } from './fill.ts';
import { workAt } from './looking.ts';
import { outcomeText } from './outcome.ts';
import { frameFrom } from '../playback/place.ts';
import { loaded, withDrawings } from '../saving/drawings.ts';

/** Why fills cannot be carried on from the drawing shown, or null. */
export function whyNotThrough(now: Current | null): string | null {
  if (useFill.getState().working) return 'Fills are being carried through already.';
  const layerId = now && fillingNow(now)?.layerId;
  const trouble = whyNotFill(now);
  if (!now || trouble) return trouble;
  const slot = layerId && slotShown(now, layerId);
  const fill = layerId ? fillOfLayer(now.doc, layerId) : undefined;
  if (!slot || !fill?.slots[slot]?.regions.length) return 'Fill this drawing first: its regions are then followed.';
  return null;
}

const slotShown = (now: Current, layerId: Id): Id | undefined => {
  const timed = now.layers.find(({ layer }) => layer.id === layerId);
  const place = timed && shownOn(timed, selection().frame, now.length);
  return place?.slot;
};

/** What the fills of the drawing shown would be carried through. */
interface Carrying {
  readonly now: Current;
  readonly plan: FillPlan;
  readonly slots: readonly { slot: Id; frame: number }[];
  /** Drawings with lines, the one shown first. */
  readonly usable: readonly { slot: Id; frame: number; work: FillWork }[];
  readonly fills: readonly { seed: Point; swatch: Id }[];
}

/** What would be carried through now; null where nothing can be. */
export function carryingNow(): Carrying | null {
  const now = current();
  const layerId = now && fillingNow(now)?.layerId;
  if (!now || !layerId || whyNotThrough(now)) return null;
  const fill = fillOfLayer(now.doc, layerId)!;
  const { bounds, under } = fill;
  const { gap, through } = useFill.getState();
  const plan: FillPlan = { layerId, bounds, gap, under };
  const slots = slotsFrom(now.doc, layerId, selection().frame, Math.max(2, through));
  const first = fill.slots[slots[0]!.slot]!;
  // What is filled already was filled by rules of its own.
  const own = Math.max(gap, first.gap ?? fill.gap);
  const made = slots.map(({ frame }, i) => workAt(now, i === 0 ? { ...plan, gap: own } : plan, frame));
  const usable = slots.flatMap((slot, i) => (made[i] ? [{ ...slot, work: made[i].work }] : []));
  return { now, plan, slots, usable, fills: first.regions.map(({ x, y, swatch }) => ({ seed: { x, y }, swatch })) };
}

/** The drawings that are looked at where the fills of a layer are carried through. */
function drawingsCarried({ doc, layers }: Current, layerId: Id): Id[] {
  const { bounds } = fillOfLayer(doc, layerId)!;
  return layers
    .filter(({ layer }) => bounds.includes(layer.id) || layer.id === layerId)
    .flatMap(({ layer }) => Object.values(layer.slots));
}

/** Has all that would be looked at fetched and at hand. @throws if the server can not be reached. */
export async function readyToCarry(): Promise<void> {
  const now = current();
  const layerId = now && fillingNow(now)?.layerId;
  if (now && layerId && !whyNotThrough(now)) await loaded(drawingsCarried(now, layerId));
}

/** Carries the fills of the drawing shown through those that follow. */
export function fillThrough(): void {
  const now = current();
  const trouble = whyNotThrough(now);
  const layerId = now && fillingNow(now)?.layerId;
  if (!now || trouble || !layerId) {
    say(trouble ?? 'There is nothing to carry through.');
    return;
  }
  withDrawings(drawingsCarried(now, layerId), () => void carry());
}

async function carry(): Promise<void> {
  const carrying = carryingNow();
  if (!carrying || carrying.usable.length < 2) {
    say('There is no other drawing with lines to carry the fills to.');
    return;
  }
  const { now, plan, slots, usable, fills } = carrying;
  setFill({ working: { done: 0, of: usable.length - 1 }, reports: [], outcome: null });
  try {
    const results = await compute().fillThrough(
      usable.map(({ work }) => work),
      fills,
      useFill.getState().asNeeded ? MAX_GAP : plan.gap,
      proxy((done: number, of: number) => {
        setFill({ working: { done, of } });
        return Promise.resolve();
      }),
    );
    if (!results) return;
    const reports: FillReportAt[] = [];
    edit(`fill through ${results.length} drawings`, (doc) => {
      let next = doc;
      results.forEach(({ shapes, reports: own, gap }, i) => {
        const frame = frameFrom(now, usable[i + 1]!.frame);
        next = layFills(next, plan, frame, shapes, boundsFingerprint(next, plan, frame) ?? '', randomId, gap);
        reports.push(...own.map((report) => ({ ...report, frame })));
      });
      return next;
    });
    setFill({ reports, outcome: outcomeText(slots.length, usable.length, results) });
  } catch (error) {
    say(`The fills could not be carried through: ${error instanceof Error ? error.message : String(error)}`);
  } finally {
    setFill({ working: null });
  }
}

export const stopFilling = (): void => {
  void compute().stop();
};

/** Fills of the active element whose lines have changed since. */
export const useStale = create<{ stale: readonly StaleFill[] }>(() => ({ stale: [] }));

const WAIT_MS = 250;
let timer: ReturnType<typeof setTimeout> | undefined;
function lookForStale(): void {
  clearTimeout(timer);
  timer = setTimeout(() => {
    const now = current();
    const stale = now ? staleFills(now.doc, now.element.id) : [];
    if (stale.length > 0 || useStale.getState().stale.length > 0) useStale.setState({ stale });
  }, WAIT_MS);
}
onChange(lookForStale);

/** Fills again what hangs on lines that have changed. */
export async function fillAgain(): Promise<void> {
  const now = current();
  if (!now || useFill.getState().working) return;
  const stale = staleFills(now.doc, now.element.id);
  const gesture = `refill-${randomId()}`;
  const reports: FillReportAt[] = [];
  setFill({ working: { done: 0, of: stale.length } });
  try {
    for (const [i, each] of stale.entries()) {
      const here = current();
      const frame = frameFrom(now, each.frame);
      const { gap = each.fill.gap } = each.fill.slots[each.slot]!;
      const made = here && workAt(here, { ...each.fill, gap }, frame);
      if (!here || !made) continue;
      const regions = refillable(here.doc, each);
      const shapes = await compute().fillAgain(made.work, regions);
      edit(
        stale.length === 1 ? 'fill again' : `fill ${stale.length} drawings again`,
        (doc) => {
          const fill = find(doc, 'fill', each.fill.id);
          const print = boundsFingerprint(doc, each.fill, frame);
          return fill && print ? relayFills(doc, { ...each, fill, frame }, regions, shapes, print) : doc;
        },
        gesture,
      );
      regions.forEach(({ x, y }, k) => {
        if (!shapes[k]) reports.push({ x, y, trouble: 'lost', gap: null, frame: each.frame });
      });
      setFill({ working: { done: i + 1, of: stale.length } });
    }
    setFill({ reports });
    if (reports.length > 0)
      say(
        `${reports.length === 1 ? 'One region was' : `${reports.length} regions were`} not found in the new lines and kept.`,
      );
  } finally {
    setFill({ working: null });
    lookForStale();
  }
}
