/** How the active element's time is seen: as a disc, unrolled, or as a sheet. */
import type { ElementForm } from '@tallow/core/document';
import { setElement } from '@tallow/core/edit';
import { current, type Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { edit } from '../shot/document.ts';

/** Frames and layers above which an element opens unrolled. */
const ROUND = { frames: 48, layers: 6 } as const;

export type SeenAs = Exclude<ElementForm, 'auto'>;

export const WHEEL_FORMS: readonly { form: SeenAs; label: string; does: string }[] = [
  { form: 'disc', label: 'Wheel', does: 'The time runs round' },
  { form: 'straight', label: 'Straight', does: 'The wheel unrolled, for long work and one-shots' },
  { form: 'sheet', label: 'Sheet', does: 'A table to type into: frames down, layers across' },
];

/** How an element's time is seen: as chosen for it, else as suits it. */
export function formOf({ element, length, layers }: Current): SeenAs {
  // A phase fills the disc, whatever the whole is seen as.
  if (selection().phaseId && element.phases.some((p) => p.id === selection().phaseId)) return 'disc';
  if (element.form !== 'auto') return element.form;
  const suitsBand = element.time === 'one-shot' || length > ROUND.frames || layers.length > ROUND.layers;
  return suitsBand ? 'straight' : 'disc';
}

/** Sees the active element's time in another way; the choice stays with it. */
export function seeAs(form: SeenAs): void {
  const now = current();
  if (!now || formOf(now) === form) return;
  const label = WHEEL_FORMS.find((each) => each.form === form)!.label.toLowerCase();
  edit(`see as ${label}`, (doc) => setElement(doc, now.element.id, { form }));
}

export function nextForm(): void {
  const now = current();
  if (!now) return;
  const at = WHEEL_FORMS.findIndex(({ form }) => form === formOf(now));
  seeAs(WHEEL_FORMS[(at + 1) % WHEEL_FORMS.length]!.form);
}
