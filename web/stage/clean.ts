/** Cleaning up over a rough with the pen and one key: on to the next drawing of it, and carrying on what does not move. */
import { find, findAll, marksInOrder, randomId, type Mark } from '@tallow/core/document';
import { carriedTo, carryOn, nextToClean, roughFor, tieLayer, toClean, whyNotTied } from '@tallow/core/edit';
import { runStart, shownOn } from '@tallow/core/timing';
import { key, named, of } from '../actions/action.ts';
import { goTo } from '../playback/playhead.ts';
import { setShowing, showing } from '../picture/showing.ts';
import { current, shownNow, type Current } from '../selection/current.ts';
import { selectedNow } from '../selection/to-edit.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, say } from '../shot/document.ts';
import { selectedMarks } from '../tools/pick/pick.ts';

const drawings = of('Drawings');

/** Why nothing can be cleaned on the active layer, said to the user, or null. */
function whyNotClean(): string | null {
  const now = current();
  if (!now?.active) return 'There is no layer. Add one first.';
  const { layer } = now.active;
  const rough = roughFor(now.doc, layer.id);
  if (!rough) return `There is no rough under “${layer.name}”: give a layer below it the role rough.`;
  const untied = rough.list.id === now.active.list.id ? null : whyNotTied(now.doc, layer.id, rough.layer.id);
  if (untied) return untied;
  return nextToClean(now.doc, layer.id, selection().frame) === null ? 'Every drawing of the rough is cleaned.' : null;
}

/** On to the next drawing of the rough that has no line yet, with the line before as a ghost. */
function cleanNext(): void {
  const now = current();
  if (!now?.active) return;
  const { layer } = now.active;
  const rough = roughFor(now.doc, layer.id);
  if (rough && rough.list.id !== now.active.list.id)
    edit('tie to the rough', (doc) => tieLayer(doc, layer.id, rough.layer.id));
  const after = current() ?? now;
  const { frame } = selection();
  // The first of all is the one here, if it is still to be drawn.
  const here = toClean(after.doc, layer.id).some((each) => each.frame === frame && !each.drawn);
  const begun = toClean(after.doc, layer.id).some(({ drawn }) => drawn);
  const next = here && !begun ? frame : nextToClean(after.doc, layer.id, frame);
  const { onion } = showing();
  if (!onion.on || onion.before < 1) setShowing({ onion: { ...onion, on: true, before: Math.max(1, onion.before) } });
  setSelection({ selectedRuns: null });
  if (next !== null) goTo(next);
}

/** Where the picked drawings begin, else the next place to draw the line. */
function framesFor(now: Current): number[] {
  const selected = selectedNow();
  const { list, layer } = now.active!;
  if (selected)
    return Array.from({ length: selected.count }, (_, i) =>
      runStart(list, (selected.first + i) % list.runs.length, now.length),
    );
  const next = nextToClean(now.doc, layer.id, selection().frame);
  return next === null ? [] : [next];
}

/** What is picked up, else all that is drawn here; where nothing is, what was drawn last before it. */
function carried(now: Current): readonly Mark[] {
  const selected = selectedMarks();
  if (selected.length > 0) return selected;
  const { frame } = selection();
  for (let at = frame; at >= 0; at--) {
    const drawing = find(now.doc, 'drawing', shownOn(now.active!, at, now.length)?.drawingId);
    if (drawing) return marksInOrder(drawing);
  }
  return [];
}

function sameHere(): void {
  const now = current();
  if (!now?.active) return;
  const marks = carried(now);
  const { frame } = selection();
  const { layer } = now.active;
  const wanted = shownNow(now, frame) || selectedNow() ? framesFor(now) : [frame];
  const frames = carriedTo(now.doc, layer.id, marks, wanted);
  edit('same here', (doc) => carryOn(doc, layer.id, marks, frames, randomId));
  say(
    `${marks.length === 1 ? 'One mark was' : `${marks.length} marks were`} carried on to ${frames.length === 1 ? 'one drawing' : `${frames.length} drawings`}.`,
  );
}

function whyNotSame(): string | null {
  const now = current();
  if (!now?.active) return 'There is no layer. Add one first.';
  if (now.active.layer.locked) return `“${now.active.layer.name}” is locked. Unlock it to draw on it.`;
  if (carried(now).length === 0) return 'Nothing is drawn before this that could be carried on.';
  if (
    shownNow(now, selection().frame) &&
    carriedTo(now.doc, now.active.layer.id, carried(now), framesFor(now)).length === 0
  )
    return 'Pick the drawings it goes on to: drag over them on the wheel.';
  const ids = framesFor(now).flatMap((frame) => shownOn(now.active!, frame, now.length)?.drawingId ?? []);
  return findAll(now.doc, 'drawing', ids).length < ids.length ? 'Some of these drawings are not loaded yet.' : null;
}

export const CLEAN_ACTIONS = named({
  cleanNext: drawings('Clean next: on to the next drawing of the rough', [key('Digit7')], cleanNext, {
    whyNot: whyNotClean,
  }),
  sameHere: drawings('Same here: carry on what does not move', [key('Digit8')], sameHere, { whyNot: whyNotSame }),
});
