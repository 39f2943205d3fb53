/** Keys of the Plan step: ending or dropping what is being set, letting go, and deleting what is in hand. */
import { find } from '@tallow/core/document';
import { deleteGuide, deletePath, setPlan } from '@tallow/core/edit';
import { current } from '../state/current.ts';
import { edit } from '../state/document.ts';
import { dropPreview } from '../state/laying.ts';
import { plan, setPlanning, take } from '../state/plan.ts';
import { finishPoints } from './plan-pen.ts';

const isElsewhere = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest('input:not([type=range]),select,textarea,[role=menu],[role=dialog]') !== null;

/** Puts down, one after the other, what is being set, the tool, and what is in hand. */
function letGo(): boolean {
  const { draft, moving, tool, hand } = plan();
  if (draft.length > 0) setPlanning({ draft: [] });
  else if (moving) dropPreview();
  else if (tool) setPlanning({ tool: null });
  else if (hand) take(null);
  else return false;
  return true;
}

function deleteInHand(): boolean {
  const now = current();
  const { hand } = plan();
  if (!now || !hand || hand.kind === 'starter' || hand.kind === 'reveal') return false;
  const { id } = hand;
  if (hand.kind === 'path' && !find(now.doc, 'path', id)?.locked) edit('delete path', (doc) => deletePath(doc, id));
  else if (hand.kind === 'guide' && !find(now.doc, 'guide', id)?.locked)
    edit('delete guide', (doc) => deleteGuide(doc, id));
  else if (hand.kind === 'base')
    edit('take base away', (doc) =>
      setPlan(doc, now.element.id, { bases: now.element.bases.filter((b) => b.id !== id) }),
    );
  else return false;
  take(null);
  return true;
}

/** Listens before the desk's own keys do, while the Plan step is open. */
export function attachPlanKeys(): () => void {
  const down = (event: KeyboardEvent): void => {
    if (isElsewhere(event.target)) return;
    const { tool, draft } = plan();
    let taken = false;
    if (event.code === 'Enter' && tool === 'points' && draft.length > 1) {
      finishPoints(false);
      taken = true;
    } else if (event.code === 'Escape') taken = letGo();
    else if (event.code === 'Delete' || event.code === 'Backspace') taken = deleteInHand();
    if (!taken) return;
    event.preventDefault();
    event.stopPropagation();
  };
  addEventListener('keydown', down, { capture: true });
  return () => {
    removeEventListener('keydown', down, { capture: true });
  };
}
