/** The pen moves, turns or scales a ghost; its drawing stays as it is. */
import { apply, scaleOf, type Matrix } from '@tallow/core/geometry';
import type { PenDoing, PenSample } from '../../hand/pen-doing.ts';
import { setShowing, showing } from '../../picture/showing.ts';
import { say } from '../../shot/document.ts';
import { ghostAt, shifter, type Shifting } from './trace.ts';

const REACH = 12;

/** Begins where the pen lands. @param inward CSS px of the canvas to element space. */
export function beginTrace(inward: Matrix, first: PenSample): PenDoing | null {
  const from = apply(inward, first);
  const ghost = ghostAt(from, REACH * scaleOf(inward));
  if (!ghost) {
    say('There is no ghost to move. Switch the onion skin on, or pin a drawing.');
    return null;
  }
  const how: Shifting = first.shift ? 'turn' : first.alt ? 'scale' : showing().shifting;
  const before = showing().ghostShift;
  const shift = shifter(ghost, how, from);
  return {
    move: (samples) => {
      shift(apply(inward, samples.at(-1)!));
    },
    up: () => true,
    drop: () => {
      setShowing({ ghostShift: before });
    },
  };
}
