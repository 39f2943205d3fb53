/** How wide gaps are in the drawings that a fill would be carried through: found out by itself before anybody asks. */
import { proxy } from 'comlink';
import { create } from 'zustand';
import { onChange } from '../shot/document.ts';
import { useSelection } from '../selection/selection.ts';
import { besideCompute } from '../workers/compute-client.ts';
import { MAX_GAP, useFill } from './fill.ts';
import { carryingNow, readyToCarry } from './through.ts';

/** The gap each drawing needs, smallest first, null for one that none holds; the one shown holds with none. */
export const useNeeds = create<{ needs: readonly (number | null)[] | null }>(() => ({ needs: null }));

/** ms without a change before it is looked for. */
const QUIET_MS = 600;
let timer: ReturnType<typeof setTimeout> | undefined;
let run = 0;
let isLooking = false;

async function look(own: number): Promise<void> {
  try {
    await readyToCarry();
  } catch {
    // Out of reach: it is looked again with the next change.
    return;
  }
  if (own !== run) return;
  const carrying = carryingNow();
  if (!carrying || carrying.usable.length < 2) return;
  isLooking = true;
  const needs = await besideCompute().fillNeeds(
    carrying.usable.map(({ work }) => work),
    carrying.fills,
    MAX_GAP,
    proxy(() => Promise.resolve()),
  );
  if (own !== run) return;
  isLooking = false;
  if (!needs) return;
  useNeeds.setState({ needs: [...needs].sort((a, b) => (a ?? Infinity) - (b ?? Infinity)) });
}

function lookSoon(): void {
  clearTimeout(timer);
  run += 1;
  const own = run;
  if (isLooking) void besideCompute().stop();
  isLooking = false;
  if (useNeeds.getState().needs) useNeeds.setState({ needs: null });
  timer = setTimeout(() => void look(own), QUIET_MS);
}

/** Looks as long as somebody wants to know. @returns how to end it. */
export function watchNeeds(): () => void {
  lookSoon();
  const stops = [
    onChange(lookSoon),
    useSelection.subscribe(({ frame, layerId }, before) => {
      if (frame !== before.frame || layerId !== before.layerId) lookSoon();
    }),
    useFill.subscribe(({ gap, through }, before) => {
      if (gap !== before.gap || through !== before.through) lookSoon();
    }),
  ];
  return () => {
    lookSoon();
    clearTimeout(timer);
    for (const stop of stops) stop();
  };
}

/** On how many of the drawings a gap holds, for those gaps that matter: what is set, and each that more hold at. */
export function steps(needs: readonly (number | null)[], gap: number): { gap: number; holds: number }[] {
  const gaps = [...new Set([gap, ...needs.flatMap((need) => need ?? [])])].sort((a, b) => a - b);
  return gaps.map((each) => ({ gap: each, holds: needs.filter((need) => need !== null && need <= each).length }));
}
