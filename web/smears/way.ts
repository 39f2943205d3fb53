/** The way of what would be smeared here, and how fast it goes: worked out beside everything else, for showing it. */
import type { Smear } from '@tallow/core/document';
import { smearWork, type SmearPlan } from '@tallow/core/edit';
import type { Point } from '@tallow/core/geometry';
import type { Judged } from '@tallow/core/smears';
import { create } from 'zustand';
import { current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { useDocument } from '../shot/document.ts';
import { besideCompute } from '../workers/compute-client.ts';
import { planHere, smearNow } from './smear.ts';

interface WayShown {
  /** In the active layer's space; none where nothing goes anywhere. */
  readonly way: readonly Point[];
  readonly speed: Judged | null;
  /** What it is of: the smear that is laid, or null for one that would be. */
  readonly smearId: string | null;
}

const NO_WAY: WayShown = { way: [], speed: null, smearId: null };
export const useWay = create<WayShown>(() => NO_WAY);

let looking = false;
let again = false;

/** Looks what goes where one stands; while it is found out only the latest is kept. */
export async function lookForWay(): Promise<void> {
  again = true;
  if (looking) return;
  looking = true;
  try {
    while (again) {
      again = false;
      const found = wayNow();
      if (!found) {
        useWay.setState(NO_WAY);
        continue;
      }
      const { doc } = useDocument.getState();
      const work = doc && smearWork(doc, found.plan);
      const shown = work ? await besideCompute().smearWay(work) : null;
      if (!again) useWay.setState(shown ? { ...shown, smearId: found.smear?.id ?? null } : NO_WAY);
    }
  } finally {
    looking = false;
  }
}

/** The plan whose way is shown: that of the smear here, else of the one that would be laid. */
function wayNow(): { plan: SmearPlan; smear: Smear | null } | null {
  const now = current();
  const { laid, place } = smearNow(now, selection().frame);
  const [smear] = laid;
  if (smear) return { plan: smear, smear };
  return now && place && place.stops.length > 1 ? { plan: planHere(place, {}, now.doc), smear: null } : null;
}
