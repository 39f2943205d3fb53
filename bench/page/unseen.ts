/** A frame that was never seen, asked of a painter as a step asks for it, against its bare canvas calls. */
import { shotOf } from '@tallow/core/document';
import { multiply, translation } from '@tallow/core/geometry';
import {
  drawDrawing,
  drawFrame,
  paintsOf,
  roomOn,
  Scratch,
  SurfacePool,
  type RenderContext,
} from '@tallow/core/render';
import { makeSurface } from '../../web/workers/surfaces.ts';
import { shotWith } from '../documents.ts';
import { median } from '../measure.ts';
import { Recorded } from '../recorded.ts';
import { painterOf } from './painters.ts';

const [LAYERS, FRAMES, STROKES] = [11, 12, 24];

/** @returns ms of a frame by a painter that has not seen it, its drawings fetched on the way, and of its canvas calls alone. */
export async function unseenRow(): Promise<[number, number]> {
  const doc = shotWith(FRAMES, LAYERS, STROKES);
  const { width, height } = shotOf(doc);
  const painter = painterOf(doc);
  const options = { guides: true, alone: null, without: [], dimBut: null, looks: 'all', backdrop: null } as const;
  const times: [number[], number[]] = [[], []];
  for (let i = 0; i < FRAMES; i++) {
    const began = performance.now();
    const bitmap = await painter.frame(width, height, [1, 0, 0, 1, 0, 0], 2 * i, '#232323', options);
    times[0].push(performance.now() - began);
    bitmap.close();

    const recorded = new Recorded();
    const noted = recorded.recording(makeSurface);
    const surface = noted(width, height);
    const pool = new SurfacePool(noted, 256 * 1024 * 1024);
    const scratch = new Scratch(noted);
    const rendering: RenderContext = {
      make: pool.make,
      pictureOf: (item, matrix, across, down) => {
        const { left, top, right, bottom } = roomOn(item.drawing, matrix, { width: across, height: down });
        const on = pool.make(right - left, bottom - top);
        drawDrawing(on, scratch, item.drawing, paintsOf(doc, item), multiply(translation(-left, -top), matrix));
        return { picture: on.picture, left, top };
      },
    };
    const draw = () =>
      pool.during(() => {
        drawFrame(surface, doc, 2 * i, [1, 0, 0, 1, 0, 0], rendering, { guides: true, background: true });
      });
    // Only from the second time on are surfaces used again, and wiped first.
    draw();
    recorded.forget();
    draw();
    const again = performance.now();
    recorded.again();
    surface.context.getImageData(0, 0, 1, 1);
    times[1].push(performance.now() - again);
  }
  return [median(times[0]), median(times[1])];
}
