/** Smears: laid by one press where one stands, set by dragging, pulled in the picture. */
import { key, named, of, shift } from '../../actions/action.ts';
import { toolState, makeTool, takeTool } from '../../hand/tool-state.ts';
import { holdSmear, endSmearDrag } from '../../smears/dragging.ts';
import { laySmearHere, setSmear, smearingOf, smearNow, whyNotSmear, type SmearRequest } from '../../smears/smear.ts';
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
export function askedNow(): SmearRequest {
  const now = current();
  const shown = now && shownNow(now, selection().frame)?.drawingId;
  return { marks: shown ? (pick().sets[shown] ?? []) : [] };
}

/** Makes smearing active; what was picked up is remembered, for what is done with it there. */
export function takeSmear({ marks = [] }: SmearRequest): void {
  setSmear({ selected: marks });
  takeTool(SMEAR);
}

/** Lays a smear to the drawing shown, or shows the one that is; again, the pen draws. */
export function smearHere(): void {
  const asked = askedNow();
  const { laid, place, held: isHeld } = smearNow();
  const isActive = toolState().activeTool === SMEAR;
  if (isActive && (laid.length > 0 || !(place ?? isHeld))) {
    takeTool(null);
    return;
  }
  takeSmear(asked);
  if (laid.length > 0) return;
  const now = current();
  const preset = now && smearingOf(now).form;
  if (preset) setSmear({ form: preset });
  const trouble = whyNotSmear();
  if (trouble) say(trouble);
  else void laySmearHere(asked);
}

/** Begins setting the smear here by moving the pen, for as long as a key is held. */
function hold(): void {
  const asked = askedNow();
  if (holdSmear(asked)) takeSmear(asked);
}

const marks = of('Marks');

export const SMEAR_TOOL_ACTIONS = named({
  smear: marks('Smear from the last drawing to here', [key('Slash')], smearHere),
  smearBy: marks('Hold and move: how much it is smeared, and its bend', [shift('KeyK')], hold, {
    release: endSmearDrag,
  }),
});
