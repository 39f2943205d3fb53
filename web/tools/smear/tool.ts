/** Smears: laid by one press where one stands, set by dragging, pulled in the picture. */
import { key, named, of, shift } from '../../actions/action.ts';
import { held, makeTool, takeTool } from '../../hand/held.ts';
import { dragSmear, type SmearDrag } from '../../smears/dragging.ts';
import { laySmearHere, smearNow, whyNotSmear, type Asked } from '../../smears/smear.ts';
import { shownNow, current } from '../../selection/current.ts';
import { selection } from '../../selection/selection.ts';
import { say } from '../../shot/document.ts';
import { pick } from '../pick/pick.ts';
import { beginPull } from './smear-pen.ts';

export const SMEAR = makeTool({
  name: 'smear',
  begin: beginPull,
  space: 'layer',
  ghosts: 'usual',
  hasPanel: true,
});

/** What is picked up of the drawing shown: that is smeared. */
export function askedNow(): Asked {
  const now = current();
  const shown = now && shownNow(now, selection().frame)?.drawingId;
  return { marks: shown ? (pick().sets[shown] ?? []) : [] };
}

/** Lays a smear to the drawing shown, or shows the one that is; again, the pen draws. */
export function smear(): void {
  const asked = askedNow();
  const { laid, place } = smearNow();
  const inHand = held().tool === SMEAR;
  if (inHand && (laid.length > 0 || !place)) {
    takeTool(null);
    return;
  }
  takeTool(SMEAR);
  if (laid.length > 0) return;
  const trouble = whyNotSmear();
  if (trouble) say(trouble);
  else void laySmearHere(asked);
}

let drag: SmearDrag | null = null;
let from: { x: number; y: number } | null = null;
const follow = (event: PointerEvent): void => {
  from ??= { x: event.clientX, y: event.clientY };
  drag?.move(event.clientX - from.x, event.clientY - from.y);
};

/** Begins setting the smear here by moving the pen, for as long as a key is held. */
function hold(): void {
  if (drag) return;
  const trouble = smearNow().laid.length > 0 ? null : whyNotSmear();
  if (trouble) {
    say(trouble);
    return;
  }
  const asked = askedNow();
  takeTool(SMEAR);
  from = null;
  drag = dragSmear(smearNow().laid[0] ?? null, asked);
  addEventListener('pointermove', follow);
}

function letGo(): void {
  if (!drag) return;
  removeEventListener('pointermove', follow);
  drag.up();
  drag = null;
}

const marks = of('Marks');

export const SMEAR_TOOL_ACTIONS = named({
  smear: marks('Smear from the last drawing to here', [key('Slash')], smear),
  smearBy: marks('Hold and move: how much it is smeared, and its bend', [shift('KeyK')], hold, {
    release: letGo,
  }),
});
