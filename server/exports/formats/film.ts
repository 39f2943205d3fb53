/** Films and loops that ffmpeg writes: every frame in its time, with the shot's sounds where the format has room for them. */
import { EXPORT_FORMATS, takenFrames } from '@tallow/core/formats';
import { shotOf } from '@tallow/core/document';
import { rm } from 'node:fs/promises';
import { encodeFrames } from '../../render/ffmpeg.ts';
import { frameDrawer } from '../../render/frames.ts';
import { rawFrames } from '../../render/raw-frames.ts';
import { soundTrack } from './sound-track.ts';
import { Stopped } from '../../queue/telling.ts';
import { exportRange } from './range.ts';
import type { Writer } from './writer.ts';

export interface Film {
  readonly picture: readonly string[];
  /** ffmpeg's arguments for sound; none where the format has no sound. */
  readonly sound?: readonly string[];
  readonly container: readonly string[];
}

export const film =
  ({ picture, sound, container }: Film): Writer =>
  async ({ outline, documents, settings, frames: all, path, tell, assets, recording }) => {
    const taken = takenFrames(settings);
    const range = exportRange({ outline, settings, assets });
    const { width, height } = frameDrawer(outline, range);
    const rate = settings.rate ?? shotOf(outline).rate;
    const seeThrough = EXPORT_FORMATS[settings.format].alphas.length > 0;
    const folder = `${path}.files`;
    async function* frames() {
      let done = 0;
      for await (const { pixels } of rawFrames(outline, range, documents, seeThrough ? 'straight' : 'on black')) {
        yield pixels();
        if (!(await tell((done += 1)))) throw new Stopped();
      }
    }
    try {
      const track = sound ? await soundTrack(outline, taken, recording, folder) : null;
      const heard = track && sound ? [...track.mix, ...sound] : [];
      const output = [...(track?.inputs ?? []), ...picture, ...heard, ...container, path];
      await encodeFrames(frames(), { width, height, rate, pixels: 'rgba' }, output);
      return await tell(all, true);
    } catch (error) {
      if (error instanceof Stopped) return false;
      throw error;
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  };
