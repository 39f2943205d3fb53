/** What edits act on: the runs picked on the wheel, else what the playhead shows. */
import { find, type Drawing, type Id } from '@tallow/core/document';
import { indicesOf, type RunSelection } from '@tallow/core/edit';
import { exposureAt } from '@tallow/core/timing';
import { current, shownNow, type Current } from './current.ts';
import { selection, type SelectedRuns } from './selection.ts';

/** Runs that an action is for: what is picked on the active layer, else what shows on the playhead. */
export function runsToEdit(): (RunSelection & { layerId: Id }) | null {
  const now = current();
  if (!now?.active) return null;
  const layerId = now.active.layer.id;
  const { selectedRuns, frame } = selection();
  if (
    selectedRuns?.layerId === layerId &&
    now.active.list.runs.length >= selectedRuns.count &&
    selectedRuns.first < now.active.list.runs.length
  )
    return selectedRuns;
  const here = exposureAt(now.active.list, frame, now.length);
  return here ? { layerId, first: here.index, count: 1 } : null;
}

/** What is picked on the active layer, if anything. */
export function selectedNow(): SelectedRuns | null {
  const { selectedRuns } = selection();
  return selectedRuns && runsToEdit() === selectedRuns ? selectedRuns : null;
}

/** The drawings that picking up and reshaping act on: those picked on the wheel, else the one shown. */
export function drawingsToEdit(now: Current | null = current()): Id[] {
  if (!now?.active) return [];
  const runs = selectedNow();
  const { layer, list } = now.active;
  const shown = shownNow(now, selection().frame)?.drawingId;
  if (!runs) return shown ? [shown] : [];
  const ids = indicesOf(runs, list.runs.length).flatMap((index) => layer.slots[list.runs[index]?.slot ?? ''] ?? []);
  return [...new Set(ids)];
}

/** Selected drawings that are loaded. */
export const loadedToEdit = (now: Current | null = current()): Drawing[] =>
  now ? drawingsToEdit(now).flatMap((id) => find(now.doc, 'drawing', id) ?? []) : [];
