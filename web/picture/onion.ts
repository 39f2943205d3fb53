/** The onion skin as the desk shows it: which ghosts, in which colours. */
import { farthestPair, type ColourPair } from '@tallow/core/colour';
import { find, type Id } from '@tallow/core/document';
import { neighbours, type Neighbour } from '@tallow/core/timing';
import type { Ghost } from '../workers/paint.ts';
import { shotFrameOf, type Current } from '../selection/current.ts';
import { type Onion, showing } from './showing.ts';
import { selection } from '../selection/selection.ts';

/** Ranges to step through by one key. */
export const ranges = {
  steps: [
    { before: 1, after: 0 },
    { before: 1, after: 1 },
    { before: 3, after: 3 },
  ],
  next({ before, after }: Pick<Onion, 'before' | 'after'>): { before: number; after: number } {
    const at = this.steps.findIndex((step) => step.before === before && step.after === after);
    return this.steps[(at + 1) % this.steps.length]!;
  },
} as const;

/** The drawings the onion skin reaches from a frame; none while it is off. */
export function onionReach(now: Current, frame: number, onion: Onion): Neighbour[] {
  if (!onion.on || !now.active?.layer.onion || now.active.list.period === 1) return [];
  return neighbours(now.active, frame, now.length, now.element.time === 'cycle', onion.before, onion.after);
}

const offered = new WeakMap<object, ColourPair>();

/** The pair farthest from the swatches the active element is drawn with. */
export function offeredPair(now: Current): ColourPair {
  const known = offered.get(now.element);
  if (known) return known;
  const used = new Set<string>();
  for (const { layer } of now.layers)
    for (const id of Object.values(layer.slots))
      for (const mark of Object.values(find(now.doc, 'drawing', id)?.marks ?? {}))
        if (mark.kind !== 'rub') used.add(mark.swatch);
  const pair = farthestPair([...used].flatMap((id) => find(now.doc, 'swatch', id)?.colour ?? []));
  if (used.size > 0) offered.set(now.element, pair);
  return pair;
}

export const onionColours = (now: Current, onion: Onion): ColourPair => onion.colours ?? offeredPair(now);

/**
 * Ghosts from the farthest to the nearest, so that the nearest lies on top; pinned ones under all.
 * @param shown drawings to be seen besides: those worked on together.
 */
export function ghostsOf(now: Current, reach: readonly Neighbour[], shown: readonly Id[] = []): Ghost[] {
  const { onion, pinned, ghostShift } = showing();
  const { piece, frame, turn } = selection();
  const shiftOf = (id: Id) => ghostShift[id] ?? null;
  const pair = onionColours(now, onion);
  const near = new Set(reach.map((n) => n.drawingId));
  const pins = [...new Set([...pinned, ...shown])]
    .filter((id) => !near.has(id))
    .map((drawingId) => ({
      drawingId,
      colour: PIN_COLOUR,
      broken: false,
      strength: 0.8,
      look: onion.look,
      piece,
      shift: shiftOf(drawingId),
      stood: null,
    }));
  return [
    ...pins,
    ...[...reach]
      .sort((a, b) => b.distance - a.distance)
      .map(({ drawingId, side, distance, away }) => ({
        drawingId,
        colour: pair[side],
        broken: side === 'after',
        strength: onion.strength * onion.fallOff ** (distance - 1),
        look: onion.look,
        piece,
        shift: shiftOf(drawingId),
        stood: onion.rides ? null : shotFrameOf(now, frame + away, turn),
      })),
  ];
}

/** Pinned ghosts are neither before nor after. */
const PIN_COLOUR = '#f4ecdf';
