/** A whole frame of the shot: its background, the plates behind all planes, and what stands on these. */
import type { ShotDocument } from '../document/index.ts';
import type { Matrix } from '../geometry/index.ts';
import { wipe, type Surface } from '../canvas/index.ts';
import { drawPlates } from './behind.ts';
import { drawBackground } from './lay.ts';
import { layDrawList } from './lay-draw-list.ts';
import type { RenderContext } from './render-context.ts';
import type { AssetPicture } from './plates.ts';
import type { DrawOptions } from './draw-item.ts';
import { drawListOf } from './draw-list.ts';

interface FrameOptions extends DrawOptions {
  readonly background: boolean;
  readonly backdrop?: string | null;
  readonly assets?: AssetPicture;
}

/** Draws a frame of the shot: background if asked for, then every drawing. */
export function drawFrame(
  target: Surface,
  doc: ShotDocument,
  shotFrame: number,
  view: Matrix,
  given: RenderContext,
  options: FrameOptions,
): void {
  const rendering = options.assets ? { ...given, assets: options.assets } : given;
  const draw = (): void => {
    wipe(target);
    if (options.background) drawBackground(target, doc, view, options.backdrop);
    // A layer or an element taken by itself has no plates.
    if (options.assets && !options.alone && !options.element)
      drawPlates(target, doc, shotFrame, view, rendering, options);
    layDrawList(target, drawListOf(doc, shotFrame, options), view, rendering);
  };
  if (rendering.during) rendering.during(draw);
  else draw();
}
