/** The pen places the selected plate: a drag moves it, with Shift it turns, with Alt it scales about its middle. */
import { setPlate } from '@tallow/core/edit';
import { apply, multiply, type Matrix, type Point } from '@tallow/core/geometry';
import { randomId } from '@tallow/core/document';
import { current, homeMatrix } from '../../selection/current.ts';
import { selection } from '../../selection/selection.ts';
import type { PenDoing, PenSample } from '../../hand/pen-doing.ts';
import { endGesture, reEdit, say, takeBack } from '../../shot/document.ts';
import { selectedPlate } from '../../references/references.ts';

/** Begins where the pen lands. @param inward CSS px of the canvas to the active element's space. */
export function beginPlate(inward: Matrix, first: PenSample): PenDoing | null {
  const plate = selectedPlate();
  if (!plate || plate.locked) {
    say(plate ? 'This picture is locked. Unlock it first.' : 'Choose a picture in the list first.');
    return null;
  }
  const now = current();
  const toShot = now ? multiply(homeMatrix(now, selection().frame), inward) : inward;
  const from = apply(toShot, first);
  const gesture = `plate-${randomId()}`;
  const how = first.shift ? 'turn' : first.alt ? 'scale' : 'move';
  const way = (p: Point) => ({
    far: Math.hypot(p.x - plate.x, p.y - plate.y),
    angle: Math.atan2(p.y - plate.y, p.x - plate.x),
  });
  return {
    move: (samples) => {
      const at = apply(toShot, samples.at(-1)!);
      const [a, b] = [way(from), way(at)];
      const scale = Math.min(1000, Math.max(0.001, (plate.scale * b.far) / Math.max(1, a.far)));
      const settings = {
        move: { x: plate.x + at.x - from.x, y: plate.y + at.y - from.y },
        turn: { angle: plate.angle + b.angle - a.angle },
        scale: { scale },
      }[how];
      reEdit(`${how} picture`, (doc) => setPlate(doc, plate.id, settings), gesture);
    },
    up: () => {
      endGesture();
      return true;
    },
    drop: () => {
      takeBack(gesture);
    },
  };
}
