/** The onion skin as the desk shows it: which ghosts, in which colours. */
import { neighbours, type Neighbour } from '@tallow/core/timing';
import type { Ghost } from '../workers/painter.ts';
import type { Current } from './current.ts';
import type { Onion } from './desk.ts';

export const BEFORE_COLOUR = '#3fc7b4';
export const AFTER_COLOUR = '#a48cff';
const NEAREST = 0.95;
const FADE = 0.62;

/** The drawings the onion skin reaches from a frame; none while it is off. */
export function onionReach(now: Current, frame: number, onion: Onion): Neighbour[] {
  if (!onion.on || !now.active || now.active.list.period === 1) return [];
  return neighbours(now.active, frame, now.length, now.element.time === 'cycle', onion.before, onion.after);
}

/** Ghosts from the farthest to the nearest, so that the nearest lies on top. */
export function ghostsOf(reach: readonly Neighbour[]): Ghost[] {
  return [...reach]
    .sort((a, b) => b.distance - a.distance)
    .map(({ drawingId, side, distance }) => ({
      drawingId,
      colour: side === 'before' ? BEFORE_COLOUR : AFTER_COLOUR,
      broken: side === 'after',
      strength: NEAREST * FADE ** (distance - 1),
    }));
}
