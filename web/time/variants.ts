/** Variants of timing and drawings as the desk keeps, shows and lets go of them. */
import { randomId, type Id, type Variant } from '@tallow/core/document';
import {
  drawingsOfScope,
  dropVariant,
  keepVariant,
  layerScope,
  showVariant,
  variantsAbout,
  variantsOf,
  wholeScope,
} from '@tallow/core/edit';
import { current } from '../selection/current.ts';
import { playback } from '../playback/playback.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit } from '../shot/document.ts';
import { goTo } from '../playback/playhead.ts';
import { openEngine } from '../picture/open-engine.ts';
import { withDrawings } from '../saving/drawings.ts';

/** The layers variants are kept of: the whole element, or the active layer with those tied to it. */
export function scopeOf(whole: boolean): Id[] {
  const now = current();
  if (!now?.active) return [];
  return whole ? wholeScope(now.doc, now.element.id) : layerScope(now.doc, now.active.layer.id);
}

/** Keeps what there is now; what is done from now on is the next variant. */
export function keepThisVariant(whole: boolean): void {
  const now = current();
  const scope = scopeOf(whole);
  if (!now || scope.length === 0) return;
  withDrawings(drawingsOfScope(now.doc, scope), () => {
    edit('keep a variant', (doc) => keepVariant(doc, now.element.id, scope, randomId));
  });
}

/** Shows a kept variant; playing goes on. */
export function show(variant: Variant): void {
  const drawings = variant.held?.layers.flatMap(({ slots }) => Object.values(slots)) ?? [];
  withDrawings(drawings, () => {
    const { playing } = playback();
    const { frame } = selection();
    edit(`show variant ${variant.name}`, (doc) => showVariant(doc, variant.id));
    setSelection({ selectedRuns: null });
    if (!playing) goTo(frame);
    else void openEngine()?.player.play();
  });
}

export const releaseVariant = (variant: Variant): void => {
  edit(`let variant ${variant.name} go`, (doc) => dropVariant(doc, variant.id));
};

/** The variants to step through: those the active layer has part in, with the one shown now. */
function variantsHere(): Variant[] {
  const now = current();
  if (!now?.active) return [];
  const own = variantsOf(now.doc, now.element.id).find(
    ({ held, scope }) => held === null && scope.includes(now.active!.layer.id),
  );
  return own ? variantsAbout(now.doc, now.element.id, own.scope) : [];
}

export const whyNotNextVariant = (): string | null =>
  variantsHere().length > 1 ? null : 'There is no other variant: keep one first, in Variants.';

export function showNextVariant(): void {
  const all = variantsHere();
  const at = all.findIndex(({ held }) => held === null);
  const next = all[(at + 1) % all.length];
  if (next?.held) show(next);
}
