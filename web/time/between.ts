/** In-betweens on the desk: what is asked of them, laying them, and laying them again when what they hang on changes. */
import {
  EVEN,
  pairingsOf,
  putFraction,
  fractionsFor,
  type BetweenWork,
  type Pairing,
  type Spread,
} from '@tallow/core/between';
import {
  find,
  randomId,
  type Between,
  type Id,
  type ShotDocument,
  type Tie,
  type WayKind,
} from '@tallow/core/document';
import {
  betweenAtFrame,
  betweenWork,
  crossesSeam,
  fitsWithin,
  freeBetween,
  gapAt,
  layBetweens,
  relayBetween,
  takeBetween,
  tiedBetweenDrawings,
  tiedBetweens,
  tonedBetween,
  type BetweenFrames,
  type Gap,
} from '@tallow/core/edit';
import { endsOf } from '@tallow/core/derived';
import { create } from 'zustand';
import { compute } from '../workers/compute-client.ts';
import { latestOnly } from '../workers/latest.ts';
import { current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, endGesture, say, useDocument } from '../shot/document.ts';
import { goTo } from '../playback/playhead.ts';
import { whyNotTime } from './time-edits.ts';
import { withDrawings } from '../saving/drawings.ts';
import { fillBetween } from '../fills/between.ts';

interface BetweenDesk {
  readonly count: number;
  readonly spread: Spread;
  /** Shares the user has set, or null for those of the spread. */
  readonly shares: readonly number[] | null;
  readonly way: WayKind;
  readonly pathId: Id | null;
  readonly ties: readonly Tie[];
  /** Whether ties add to what is tied: two marks become one, one parts into two. */
  readonly several: boolean;
  /** The mark that was clicked first and waits for its partner: its side and id. */
  readonly tying: { readonly side: 'from' | 'to'; readonly id: Id } | null;
  /** Takes frames from the first drawing's hold in place of moving what follows. */
  readonly within: boolean;
  /** Whether layers tied in time get theirs with them. */
  readonly tiedToo: boolean;
  readonly working: boolean;
}

export const useBetween = create<BetweenDesk>(() => ({
  count: 1,
  spread: EVEN,
  shares: null,
  way: 'arc',
  pathId: null,
  ties: [],
  several: false,
  tying: null,
  within: false,
  tiedToo: true,
  working: false,
}));
export const setBetween = useBetween.setState;

/** What is between now: in-betweens that are laid, or a gap where some may be. */
export interface BetweenNow {
  readonly laid: Between | null;
  readonly gap: Gap | null;
}

/** What the playhead stands at, for the active layer. */
export function betweenNow(): BetweenNow {
  const now = current();
  if (!now?.active) return { laid: null, gap: null };
  const { id } = now.active.layer;
  const laid = betweenAtFrame(now.doc, id, selection().frame) ?? null;
  return { laid, gap: laid ? null : gapAt(now.doc, id, selection().frame) };
}

let lastPairs: { key: readonly unknown[]; pairings: Pairing[] } | null = null;
/** Which marks become which; worked out once for the same drawings and ties. */
export function pairsOf(work: BetweenWork): Pairing[] {
  const key = [work.from, work.to, work.before, work.settings.ties];
  if (lastPairs && key.every((each, i) => each === lastPairs!.key[i])) return lastPairs.pairings;
  lastPairs = { key, pairings: pairingsOf(work) };
  return lastPairs.pairings;
}

/** How many in-betweens are asked for: as many as there are slots waiting, else as set. */
export const countFor = (gap: Gap | null): number =>
  gap && gap.bare.length > 0 ? gap.bare.length : useBetween.getState().count;

/** The shares in-betweens have, or would have. */
export function betweenFractions({ laid, gap }: BetweenNow): readonly number[] {
  if (laid) return laid.shares;
  const { shares, spread } = useBetween.getState();
  const count = countFor(gap);
  return shares?.length === count ? shares : fractionsFor(count, spread);
}

export function whyNotBetween(): string | null {
  const { gap, laid } = betweenNow();
  const trouble = whyNotTime();
  if (trouble) return trouble;
  if (laid) return 'There are in-betweens here already: change them below, or take them away.';
  if (!gap) return 'In-betweens go from one drawing to the next: stand on a drawing that another one follows.';
  return null;
}

/** How in-betweens of a gap find their frames. */
export function framesFor(gap: Gap): BetweenFrames {
  if (gap.bare.length > 0) return 'slots';
  return useBetween.getState().within && fitsWithin(gap, countFor(gap)) ? 'within' : 'insert';
}

/** Lays in-betweens after what shows, with the settings on the desk. */
export function layHere(): void {
  const trouble = whyNotBetween();
  const { gap } = betweenNow();
  const now = current();
  if (trouble || !gap || !now) {
    if (trouble) say(trouble);
    return;
  }
  layIn(gap, betweenFractions({ laid: null, gap }));
}

/** Lays in-betweens in a gap, and in the layers tied in time that would be bare there: drawn ones by theirs, fills filled, tone by itself. */
export function layIn(gap: Gap, shares: readonly number[]): void {
  const { doc } = useDocument.getState();
  if (!doc || !find(doc, 'layer', gap.layerId)) return;
  withDrawings(tiedBetweenDrawings(doc, gap), () => void layAll(gap, shares));
}

async function layAll(gap: Gap, shares: readonly number[]): Promise<void> {
  const { doc } = useDocument.getState();
  if (!doc) return;
  const { way, pathId, ties, tiedToo } = useBetween.getState();
  const tied = tiedToo ? tiedBetweens(doc, gap) : [];
  const drawn = tied.filter(({ by }) => by === 'drawings');
  const plans = [gap.layerId, ...drawn.map(({ layerId }) => layerId)].flatMap((layerId, i) => {
    const plan = { layerId, from: gap.from, to: gap.to, shares, way, pathId, ties: i === 0 ? ties : [] };
    const work = betweenWork(doc, plan, gap.seam);
    return work ? [{ plan, work }] : [];
  });
  if (plans[0]?.plan.layerId !== gap.layerId) return;
  const frames = framesFor(gap);
  const gesture = `between-${randomId()}`;
  setBetween({ working: true });
  try {
    const computed = await Promise.all(plans.map(({ work }) => compute().between(work)));
    let { frame } = selection();
    let slots: readonly Id[] = [];
    setSelection({ selectedRuns: null });
    const name = shares.length === 1 ? 'in-between' : `${shares.length} in-betweens`;
    edit(
      name,
      (now) => {
        let next = now;
        plans.forEach(({ plan, work }, i) => {
          // Another step may have taken the drawings away meanwhile.
          if (!endsOf(next, plan) || (i > 0 && slots.length === 0)) return;
          const own = i === 0 ? gap : { ...gap, layerId: plan.layerId, bare: slots };
          const laid = layBetweens(next, own, plan, computed[i]!, work, i === 0 ? frames : 'slots', randomId);
          next = laid.doc;
          if (i > 0) return;
          frame = laid.frame;
          slots = find(next, 'between', laid.betweenId)?.slots ?? [];
        });
        return tonedBetween(next, new Set([gap.layerId, ...tied.map(({ layerId }) => layerId)]), gap, slots);
      },
      gesture,
    );
    setBetween({ ties: [], tying: null, shares: null });
    goTo(frame);
    for (const { layerId, by } of tied)
      if (by === 'fills' && slots.length > 0) await fillBetween(layerId, gap.from, slots, name, gesture);
  } catch (error) {
    notComputed(error);
  } finally {
    setBetween({ working: false });
    endGesture();
  }
}

type Changes = Partial<Pick<Between, 'shares' | 'way' | 'pathId' | 'ties'>>;

const notComputed = (error: unknown): void => {
  say(`The in-betweens could not be computed: ${error instanceof Error ? error.message : String(error)}`);
};

const relays = latestOnly(notComputed);

/** Lays in-betweens again with other settings. @param gesture changes of one drag are one step. */
function relay(betweenId: Id, changes: Changes, name: string, gesture?: string): void {
  relays.ask(() => relayNow(betweenId, changes, name, gesture));
}

async function relayNow(betweenId: Id, changes: Changes, name: string, gesture?: string): Promise<void> {
  const { doc } = useDocument.getState();
  const between = doc && find(doc, 'between', betweenId);
  const work = between && betweenWork(doc, { ...between, ...changes }, crossesSeam(doc, between));
  if (!work) return;
  const drawings = await compute().between(work);
  edit(name, (now) => relayBetween(now, betweenId, changes, drawings, work), gesture);
  if (!gesture) endGesture();
}

/** Sets where one in-between lies on the way. */
export function putTick(index: number, share: number, gesture: string): void {
  const what = betweenNow();
  const shares = putFraction(betweenFractions(what), index, share);
  if (what.laid) relay(what.laid.id, { shares }, 'spacing of in-betweens', gesture);
  else setBetween({ shares });
}

/** Spreads all anew. */
export function spreadAs(spread: Spread): void {
  const what = betweenNow();
  setBetween({ spread, shares: null });
  if (what.laid)
    relay(what.laid.id, { shares: fractionsFor(what.laid.slots.length, spread) }, 'spacing of in-betweens', 'spread');
}

/** Sets how marks go from one to the other. */
export function goBy(way: WayKind, pathId: Id | null): void {
  const { laid } = betweenNow();
  setBetween({ way, pathId });
  if (laid) relay(laid.id, { way, pathId }, 'way of in-betweens');
}

/** Ties of what is between now. */
export const tiesNow = ({ laid }: BetweenNow): readonly Tie[] => laid?.ties ?? useBetween.getState().ties;

/**
 * Says which mark becomes which, or that one appears or vanishes; what was said of either before is forgotten.
 * @param also keeps what was said: two become one, or one parts into two.
 */
export function tie(from: Id | null, to: Id | null, also = false): void {
  const what = betweenNow();
  const isOfTwo = (each: Tie) => each.from !== null && each.to !== null;
  const rest = tiesNow(what).filter((each) => {
    if (each.from === from && each.to === to) return false;
    if (also && from !== null && to !== null && isOfTwo(each)) return true;
    return (from === null || each.from !== from) && (to === null || each.to !== to);
  });
  const ties = [...rest, { from, to }];
  setBetween({ tying: null, ...(what.laid ? {} : { ties }) });
  if (what.laid) relay(what.laid.id, { ties }, 'tie marks');
}

export function untieAll(): void {
  const { laid } = betweenNow();
  setBetween({ ties: [], tying: null });
  if (laid && laid.ties.length > 0) relay(laid.id, { ties: [] }, 'untie marks');
}

export function removeBetweens(laid: Between): void {
  const layer = current()?.layers.find((timed) => timed.layer.id === laid.layerId)?.layer;
  withDrawings(
    laid.slots.flatMap((slot) => layer?.slots[slot] ?? []),
    () => {
      setSelection({ selectedRuns: null });
      edit('take in-betweens away', (doc) => takeBetween(doc, laid.id));
      goTo(selection().frame);
    },
  );
}

export const setFree = (laid: Between): void => {
  edit('let in-betweens be', (doc) => freeBetween(doc, laid.id));
};

/** How in-betweens are laid again when what they hang on has changed. */
export async function betweensAgain(doc: ShotDocument, stale: Between) {
  const work = betweenWork(doc, stale, crossesSeam(doc, stale));
  if (!work) return null;
  const drawings = await compute().between(work);
  return (latest: ShotDocument) => relayBetween(latest, stale.id, {}, drawings, work);
}
