/** Moving the camera: a drag on the picture moves its frame. */
import { randomId } from '@tallow/core/document';
import { apply, type Matrix, type Point } from '@tallow/core/geometry';
import { makeTool } from '../../hand/tool-state.ts';
import type { PenDoing, PenSample } from '../../hand/pen-doing.ts';
import { shotFrameNow } from '../../playback/shot-time.ts';
import { endGesture, reEdit, takeBack } from '../../shot/document.ts';
import { filmCamera, moveCamera } from './filming.ts';

/** px of the shot that an arrow moves by, and with Shift. */
const [STEP, FAR_STEP] = [1, 10] as const;
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function begin(inward: Matrix, first: PenSample): PenDoing {
  const from = apply(inward, first);
  const frame = shotFrameNow();
  const gesture = `camera-${randomId()}`;
  const go = (at: Point): void => {
    reEdit('move the camera', (doc) => moveCamera(doc, frame, { dx: at.x - from.x, dy: at.y - from.y }), gesture);
  };
  return {
    move: (samples) => {
      go(apply(inward, samples.at(-1)!));
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

export const CAMERA = makeTool({
  name: 'camera',
  begin,
  space: 'shot',
  ghosts: 'none',
  hasPanel: false,
  onKey: (event) => {
    if (event.code === 'Escape') {
      filmCamera(false);
      return 'done';
    }
    const arrow = ARROWS[event.code];
    if (!arrow || event.ctrlKey || event.altKey) return undefined;
    const by = event.shiftKey ? FAR_STEP : STEP;
    reEdit(
      'move the camera',
      (doc) => moveCamera(doc, shotFrameNow(), { dx: arrow[0] * by, dy: arrow[1] * by }),
      `camera-${randomId()}`,
    );
    endGesture();
    return 'done';
  },
});
