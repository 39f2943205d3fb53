/** What is drawn for an export. */
import { shotOf } from '@tallow/core/document';
import { deliveredFrames, pictureOptions, takenFrames } from '@tallow/core/formats';
import type { DrawOptions } from '@tallow/core/render';
import type { FrameRange } from '../../render/frames.ts';
import type { Writing } from './writer.ts';

/** The frames of an export as they are drawn. @param options what of the shot is in them; what is asked for as a whole unless given. */
export const exportRange = (
  { outline, settings, assets }: Pick<Writing, 'outline' | 'settings' | 'assets'>,
  options: DrawOptions = pictureOptions(outline, settings),
): FrameRange => ({
  ...takenFrames(settings),
  rate: settings.rate ?? undefined,
  frames: settings.rate === null ? undefined : deliveredFrames(settings, shotOf(outline).rate),
  scale: settings.scale,
  background: settings.background,
  options,
  part: settings.crop,
  assets,
});
