/** Above the picture in the Plan step: what is selected, and the numbers that help. */
import { find } from '@tallow/core/document';
import { starterOf } from '@tallow/core/starters';
import { useCurrent } from '../selection/current.ts';
import { usePlan } from './plan.ts';
import { PathFacts } from './path-panel.tsx';

export function PlanLine() {
  const now = useCurrent();
  const hand = usePlan((s) => s.hand);
  const tool = usePlan((s) => s.tool);
  if (!now) return null;
  const path = hand?.kind === 'path' ? find(now.doc, 'path', hand.id) : undefined;
  const starter = hand?.kind === 'starter' ? find(now.doc, 'starter', hand.id) : undefined;
  return (
    <span data-testid="plan-text" className="flex min-w-0 flex-1 items-center truncate px-2 text-wax-300">
      {path ? (
        <PathFacts path={path} />
      ) : starter ? (
        `${starterOf(starter.effect).name}, laid ${starter.hold ? `on ${starter.hold}s` : 'by phases'}, frames ${starter.from + 1} to ${starter.from + starter.length}`
      ) : tool ? (
        'pen plans'
      ) : (
        'nothing in hand'
      )}
    </span>
  );
}
