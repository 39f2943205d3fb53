/** Frames of a shot drawn on the server, in order; frames that show the same are drawn and encoded once. */
import { shotOf, type ShotDocument } from '@tallow/core/document';
import {
  drawFrame,
  frameKey,
  platesAt,
  drawListOf,
  type AssetPicture,
  type DrawOptions,
  type Surface,
} from '@tallow/core/render';
import type { ExportCrop } from '@tallow/core/formats';
import { directRendering, pngOf } from './canvas.ts';
import { encodedAhead } from './encoded-ahead.ts';
import type { FrameDocuments } from './frame-documents.ts';

/** Different pictures kept encoded, for cycles that come round again. */
const KEPT = 240;
/** Pictures drawn ahead while others are still being encoded on another thread. */
const AHEAD = 3;

export interface FrameRange {
  /** First frame, from 0, and one past the last. */
  readonly from: number;
  readonly to: number;
  /** Frames of the shot, in order, where they are not all of those one after another. */
  readonly frames?: readonly number[] | undefined;
  /** Frames a second of what comes of it; those of the shot without. */
  readonly rate?: number | undefined;
  readonly scale: number;
  readonly background: boolean;
  readonly options: DrawOptions;
  /** What of the picture is drawn, px of the shot; all of it without. */
  readonly part?: ExportCrop | null;
  /** Pictures of plates; none without it. */
  readonly assets?: AssetPicture;
}

/** Frames of the shot, in order. */
export const framesOf = ({ from, to, frames }: FrameRange): readonly number[] =>
  frames ?? Array.from({ length: to - from }, (_, i) => from + i);

/** The whole shot as it is. Guides are never in it. */
export const wholeShot = (doc: ShotDocument, background: boolean): FrameRange => ({
  from: 0,
  to: shotOf(doc).length,
  scale: 1,
  background,
  options: { guides: false },
});

/** Draws frames of one size; each call gives a surface of its own, that may be given back when it is no longer needed. */
export function frameDrawer(doc: ShotDocument, { scale, background, options, assets, part }: FrameRange) {
  const shot = shotOf(doc);
  const { left, top, width, height } = part ?? { left: 0, top: 0, width: shot.width, height: shot.height };
  const size = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))] as const;
  const rendering = directRendering(doc);
  return {
    width: size[0],
    height: size[1],
    /** @param at the document with what the frame shows, where not all of it is at hand. */
    keyOf: (frame: number, at = doc): string => {
      const plates = assets
        ? platesAt(at, frame, options.guides).map(({ plate, asset }) => `${plate.id}@${asset}`)
        : [];
      return `${plates.join()}|${frameKey(drawListOf(at, frame, options))}`;
    },
    draw: (frame: number, at = doc): Surface => {
      const surface = rendering.pool.make(...size);
      const [across, down] = [size[0] / width, size[1] / height];
      const view = [across, 0, 0, down, -left * across, -top * down] as const;
      drawFrame(surface, at, frame, view, rendering, { ...options, background, assets });
      return surface;
    },
    giveBack: (surface: Surface): void => {
      rendering.pool.giveBack(surface);
    },
  };
}

/** Yields each frame of a range as PNG. @param documents the shot with what a frame shows, where not all of it is at hand. */
export function pngFrames(doc: ShotDocument, range: FrameRange, documents?: FrameDocuments): AsyncGenerator<Buffer> {
  const drawer = frameDrawer(doc, range);
  const frameOf = async (frame: number) => {
    const at = documents ? await documents.at(frame) : doc;
    const encode = (): Promise<Buffer> => {
      const surface = drawer.draw(frame, at);
      return pngOf(surface).finally(() => {
        drawer.giveBack(surface);
      });
    };
    return { key: drawer.keyOf(frame, at), encode };
  };
  return encodedAhead(framesOf(range), frameOf, { kept: KEPT, ahead: AHEAD });
}
