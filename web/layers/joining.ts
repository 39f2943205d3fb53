/** Joins layers: with the one below, on this frame alone, or all that is seen. */
import { randomId } from '@tallow/core/document';
import { joinDrawing, joinLayers, joinSeen, whyNotJoined } from '@tallow/core/edit';
import { current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, say, useDocument } from '../shot/document.ts';

/** The layer below one in its element, if there is any. */
function belowOf(layerId: string) {
  const now = current();
  const at = now?.layers.findIndex(({ layer }) => layer.id === layerId) ?? -1;
  return { upper: now?.layers[at], lower: at < 0 ? undefined : now?.layers[at + 1] };
}

const NOTHING_BELOW = 'There is no layer below to join with.';

/** Joins a layer with the one below it. */
export function joinDown(layerId: string, keeps: boolean): void {
  const { upper, lower } = belowOf(layerId);
  const { doc } = useDocument.getState();
  const trouble = doc && upper && lower ? whyNotJoined(doc, upper, lower) : NOTHING_BELOW;
  if (trouble || !upper || !lower) {
    say(trouble ?? NOTHING_BELOW);
    return;
  }
  let made = '';
  edit('join layers', (each) => {
    const joined = joinLayers(each, upper.layer.id, lower.layer.id, { upper: keeps, lower: keeps }, randomId);
    made = joined.layerId;
    return joined.doc;
  });
  setSelection({ layerId: made, selectedRuns: null });
}

/** Joins the drawing of this frame with the one of the layer below. */
export function joinHere(layerId: string): void {
  const { upper, lower } = belowOf(layerId);
  const { doc } = useDocument.getState();
  if (!doc || !upper || !lower) {
    say(NOTHING_BELOW);
    return;
  }
  const joined = joinDrawing(doc, upper.layer.id, lower.layer.id, selection().frame, randomId);
  if (typeof joined === 'string') say(joined);
  else edit('join drawings', () => joined);
}

/** Joins all layers that are seen, as far as marks can be kept, and says how far that was. */
export function joinAll(keeps: boolean): void {
  const now = current();
  if (!now) return;
  const { doc, layerId, joined, trouble } = joinSeen(now.doc, now.element.id, keeps, randomId);
  if (joined > 0) {
    edit('join all layers', () => doc);
    setSelection({ layerId, selectedRuns: null });
  }
  if (trouble) say(joined > 0 ? `${joined} layers were joined. ${trouble}` : trouble);
  else if (joined === 0) say('There are no two layers here that are seen.');
}
