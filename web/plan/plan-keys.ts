/** Keys of the Plan step: ending or dropping what is being set, letting go, and deleting what is selected. */
import { find } from '@tallow/core/document';
import { deleteGuide, deletePath, setGuide, setPath, setPlan } from '@tallow/core/edit';
import { moveNode, nodePoints } from '@tallow/core/plan';
import { current } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { dropPreview } from './laying.ts';
import { plan, setPlanning, selectPlanned } from './plan.ts';
import { finishPoints } from './plan-pen.ts';

const isElsewhere = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest('input:not([type=range]),select,textarea,[role=menu],[role=dialog]') !== null;

/** Puts down, one after the other, what is being set, the tool, and what is selected. */
function clearStepwise(): boolean {
  const { draft, moving, tool, hand } = plan();
  if (draft.length > 0) setPlanning({ draft: [] });
  else if (moving) dropPreview();
  else if (tool) setPlanning({ tool: null });
  else if (hand) selectPlanned(null);
  else return false;
  return true;
}

function deleteSelected(): boolean {
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
  selectPlanned(null);
  return true;
}

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Moves the chosen point of the selected path, or the selected guide, by 1 px, with Shift by 10. */
function nudge({ code, shiftKey, target }: KeyboardEvent): boolean {
  const arrow = ARROWS[code];
  const now = current();
  const { hand, node } = plan();
  if (!arrow || !now || !hand || (target instanceof Element && target.closest('[role=slider],input,[data-arrows]')))
    return false;
  const [dx, dy] = arrow.map((v) => v * (shiftKey ? 10 : 1)) as [number, number];
  const path = hand.kind === 'path' && node !== null ? find(now.doc, 'path', hand.id) : undefined;
  if (path && !path.locked && node !== null) {
    const from = nodePoints(path.nodes)[node];
    if (!from) return false;
    const to = { x: from.x + dx, y: from.y + dy };
    edit('reshape path', (doc) => setPath(doc, path.id, { nodes: moveNode(path.nodes, node, to) }), `nudge-${path.id}`);
    return true;
  }
  const guide = hand.kind === 'guide' ? find(now.doc, 'guide', hand.id) : undefined;
  if (!guide || guide.locked) return false;
  const moved = { x: guide.x + dx, y: guide.y + dy, toX: guide.toX + dx, toY: guide.toY + dy };
  edit('guide', (doc) => setGuide(doc, guide.id, moved), `nudge-${guide.id}`);
  return true;
}

/** Listens before the desk's own keys do, while the Plan step is open. */
export function attachPlanKeys(): () => void {
  const down = (event: KeyboardEvent): void => {
    if (isElsewhere(event.target)) return;
    const { tool, draft } = plan();
    let taken = false;
    if (event.code.startsWith('Arrow')) taken = nudge(event);
    else if (event.code === 'Enter' && tool === 'points' && draft.length > 1) {
      finishPoints(false);
      taken = true;
    } else if (event.code === 'Escape') taken = clearStepwise();
    else if (event.code === 'Delete' || event.code === 'Backspace') taken = deleteSelected();
    if (!taken) return;
    event.preventDefault();
    event.stopPropagation();
  };
  addEventListener('keydown', down, { capture: true });
  return () => {
    removeEventListener('keydown', down, { capture: true });
  };
}
