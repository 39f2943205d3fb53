/** What becomes of the marks of two drawings, in words. */
import { betweenWork, crossesSeam } from '@tallow/core/edit';
import { Small } from '../parts/panel.tsx';
import type { Current } from '../selection/current.ts';
import { pairsOf, tiesNow, untieAll, type BetweenNow } from './between.ts';

export function Pairs({ now, what }: { now: Current; what: BetweenNow }) {
  const plan = what.laid ?? (what.gap && { ...what.gap, shares: [0.5], way: 'straight' as const, pathId: null });
  const ties = tiesNow(what);
  const work =
    plan && betweenWork(now.doc, { ...plan, ties }, what.laid ? crossesSeam(now.doc, what.laid) : what.gap!.seam);
  if (!work) return null;
  const pairings = pairsOf(work);
  const whole = pairings.filter(({ from, to }) => from.length > 0 && to.length > 0);
  const often = (side: 'from' | 'to') => {
    const counts = new Map<string, number>();
    for (const id of whole.flatMap((pairing) => pairing[side])) counts.set(id, (counts.get(id) ?? 0) + 1);
    return [...counts.values()].filter((times) => times > 1).length;
  };
  const parts = whole.filter(({ from, to }) => from.length > 1 || to.length > 1).length + often('from') + often('to');
  const gone = pairings.filter(({ to }) => to.length === 0).length;
  const come = pairings.filter(({ from }) => from.length === 0).length;
  const said = [
    `${whole.length} go across`,
    ...(parts > 0 ? [`${parts} part or join`] : []),
    ...(gone > 0 ? [`${gone} vanish`] : []),
    ...(come > 0 ? [`${come} appear`] : []),
  ];
  return (
    <div className="flex min-h-9 items-center justify-between gap-2 text-[13px] text-wax-300">
      <span data-testid="pairs">{said.join(', ')}</span>
      {ties.length > 0 ? (
        <Small title="Forget which marks were tied by hand" onClick={untieAll}>
          Untie {ties.length}
        </Small>
      ) : null}
    </div>
  );
}
