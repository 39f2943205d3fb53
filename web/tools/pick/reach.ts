/** Which drawings picking up acts on: those selected, and what lies on other layers at the same time where that is wanted. */
import { find, type Drawing, type Id } from '@tallow/core/document';
import { indicesOf } from '@tallow/core/edit';
import { IDENTITY, invert, multiply, type Matrix } from '@tallow/core/geometry';
import { isLocked, isVisible, roundOf, runStart, shiftAt, shownOn, type TimedLayer } from '@tallow/core/timing';
import { create } from 'zustand';
import { current, shownNow, type Current } from '../../selection/current.ts';
import { drawingsToEdit, selectedNow } from '../../selection/to-edit.ts';
import { selection } from '../../selection/selection.ts';

/** This layer alone, those tied to it in time, those of its folder, all of the element, or those that were ticked. */
export type ReachName = 'layer' | 'tied' | 'folder' | 'element' | 'chosen';

interface ReachState {
  readonly reach: ReachName;
  /** Layers that were ticked. */
  readonly chosen: readonly Id[];
}

export const usePickReach = create<ReachState>(() => ({ reach: 'layer', chosen: [] }));
export const reach = usePickReach.getState;
export const setReach = usePickReach.setState;

/** A drawing that is acted on. */
export interface Reached {
  readonly drawingId: Id;
  readonly layerId: Id;
  /** Which of the selected drawings it is seen with. */
  readonly index: number;
  /** From its layer's space to the active layer's. */
  readonly toActive: Matrix;
}

/** What is selected on the active layer: drawings, and the frames on which each of them shows. */
function drawingsHere(now: Current, active: TimedLayer): { drawingId: Id | undefined; frames: number[] }[] {
  const runs = selectedNow();
  const { frame } = selection();
  if (!runs) return [{ drawingId: shownNow(now, frame)?.drawingId, frames: [frame] }];
  const { list, layer } = active;
  return indicesOf(runs, list.runs.length).flatMap((index) => {
    const run = list.runs[index];
    if (!run) return [];
    const start = runStart(list, index, now.length);
    const frames = Array.from({ length: run.length }, (_, i) => (start + i) % Math.max(1, now.length));
    return [{ drawingId: layer.slots[run.slot ?? ''], frames }];
  });
}

/** The other layers that are reached. Locked and hidden ones are left alone, and guides unless they are ticked. */
export function othersReached(now: Current): TimedLayer[] {
  const { active } = now;
  const { reach: how, chosen } = reach();
  if (!active || how === 'layer') return [];
  return now.layers.filter((timed) => {
    const { layer, folder } = timed;
    if (layer.id === active.layer.id || isLocked(timed) || !isVisible(timed)) return false;
    if (how === 'chosen') return chosen.includes(layer.id);
    if (layer.role === 'guide') return false;
    if (how === 'tied') return layer.runListId === active.layer.runListId;
    return how === 'element' || (folder !== undefined && folder.id === active.folder?.id);
  });
}

/** Every drawing that is acted on, those of the active layer first. */
export function reached(now: Current | null = current()): Reached[] {
  if (!now?.active) return [];
  const { active, element, length } = now;
  const own = drawingsToEdit(now);
  const found: Reached[] = own.map((drawingId, index) => ({
    drawingId,
    layerId: active.layer.id,
    index,
    toActive: IDENTITY,
  }));
  const others = othersReached(now);
  if (others.length === 0) return found;
  const known = new Set(own);
  const round = roundOf(element, length);
  for (const [nth, { drawingId: here, frames }] of drawingsHere(now, active).entries()) {
    const index = here ? own.indexOf(here) : nth;
    for (const timed of others)
      for (const frame of frames) {
        const drawingId = shownOn(timed, frame, length)?.drawingId;
        if (!drawingId || known.has(drawingId)) continue;
        known.add(drawingId);
        const back = invert(shiftAt(active, element.anchor, frame, round));
        const toActive = multiply(back, shiftAt(timed, element.anchor, frame, round));
        found.push({ drawingId, layerId: timed.layer.id, index, toActive });
      }
  }
  return found;
}

/** Loaded drawings that are acted on. */
export const loadedReached = (now: Current | null = current()): (Reached & { readonly drawing: Drawing })[] =>
  now
    ? reached(now).flatMap((each) => {
        const drawing = find(now.doc, 'drawing', each.drawingId);
        return drawing ? [{ ...each, drawing }] : [];
      })
    : [];

/** Ids of the drawings that show on the playhead, of all layers that are reached. */
export function shownReached(now: Current | null = current()): Set<Id> {
  if (!now) return new Set();
  const { frame } = selection();
  const own = shownNow(now, frame)?.drawingId;
  const others = othersReached(now).flatMap((timed) => shownOn(timed, frame, now.length)?.drawingId ?? []);
  return new Set([...(own ? [own] : []), ...others]);
}
