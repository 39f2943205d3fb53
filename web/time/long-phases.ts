/** Long work is seen phase by phase: the wheel opens at the phase of the playhead by itself, and goes on with it. */
import type { Id } from '@tallow/core/document';
import { phaseAt } from '@tallow/core/plan';
import { useEffect } from 'react';
import { selection, setSelection } from '../selection/selection.ts';
import type { Current } from '../selection/current.ts';

/** Drawings of one layer above which the whole turn is too fine to be worked on. */
const MANY = 40;

let cameTo: Id | null = null;
/** The phase that was opened by itself; one opened by hand stays until it is closed by hand. */
let byItself: Id | null = null;

/** Whether an element is seen phase by phase unless its user chose otherwise. */
export const isLong = ({ element, layers }: Current): boolean =>
  element.form === 'auto' && element.phases.length > 1 && layers.some(({ list }) => list.runs.length > MANY);

/** Opens the phase of a frame when an element is come to, or when the playhead leaves the phase that was opened by itself. */
export function openPhaseOf(now: Current, frame: number): void {
  const isNew = cameTo !== now.element.id;
  cameTo = now.element.id;
  const { phaseId } = selection();
  const follows = phaseId !== null && phaseId === byItself;
  if ((!isNew && !follows) || !isLong(now)) return;
  const phase = phaseAt(now.element.phases, frame);
  if (!phase || phase.id === phaseId) return;
  byItself = phase.id;
  setSelection({ phaseId: phase.id });
}

export function useLongPhases(now: Current | null, frame: number): void {
  useEffect(() => {
    if (now) openPhaseOf(now, frame);
  }, [now, frame]);
}
