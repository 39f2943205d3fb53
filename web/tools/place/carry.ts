/** What is picked, carried about: the picture follows the pen at once, whatever it costs to draw. */
import type { PlaceMove } from '@tallow/core/edit';
import { invert, multiply, translation, type Matrix } from '@tallow/core/geometry';
import { openEngine } from '../../picture/open-engine.ts';
import { shotFrameNow } from '../../playback/shot-time.ts';
import { keyOn, levelMatrix, type Level } from './placing.ts';

/** The similarity of a move, in the space of its level. */
function matrixOf({ about, dx, dy, scale, angle }: PlaceMove): Matrix {
  const [cos, sin] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  return multiply([cos, sin, -sin, cos, about.x + dx, about.y + dy], translation(-about.x, -about.y));
}

export interface Carrying {
  readonly show: (move: PlaceMove) => void;
  readonly end: () => void;
}

/** Begins carrying some uses of a level. */
export function carry(level: Level, ids: readonly string[]): Carrying {
  const engine = openEngine();
  engine?.carry(ids.map((id) => keyOn(level, id)));
  const outward = levelMatrix(level, shotFrameNow());
  const inward = invert(outward);
  return {
    show: (move) => {
      engine?.moveCarried(multiply(multiply(outward, matrixOf(move)), inward));
    },
    end: () => {
      engine?.letGo();
    },
  };
}
