/** The pen moves, turns or scales a ghost; its drawing stays as it is. */
import { apply, scaleOf, type Matrix } from '@tallow/core/geometry';
import type { PenDoing, PenSample } from '../desk/pen-hand.ts';
import { desk, setDesk } from '../state/desk.ts';
import { say } from '../state/document.ts';
import { ghostAt, shifter, type Shifting } from '../state/trace.ts';

const REACH = 12;

/** Begins where the pen lands. @param inward CSS px of the canvas to element space. */
export function beginTrace(inward: Matrix, first: PenSample): PenDoing | null {
  const from = apply(inward, first);
  const ghost = ghostAt(from, REACH * scaleOf(inward));
  if (!ghost) {
    say('There is no ghost to move. Switch the onion skin on, or pin a drawing.');
    return null;
  }
  const how: Shifting = first.shift ? 'turn' : first.alt ? 'scale' : desk().shifting;
  const before = desk().ghostShift;
  const shift = shifter(ghost, how, from);
  return {
    move: (samples) => {
      shift(apply(inward, samples.at(-1)!));
    },
    up: () => true,
    drop: () => {
      setDesk({ ghostShift: before });
    },
  };
}
