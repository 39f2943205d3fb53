/** The films and loops, each with the arguments ffmpeg writes it by. */
import type { Film } from './film.ts';

export const FILMS = {
  /** High quality, at a speed that keeps up with drawing. */
  webm: {
    picture: [
      ...['-c:v', 'libvpx-vp9', '-pix_fmt', 'yuva420p', '-auto-alt-ref', '0', '-crf', '18', '-b:v', '0'],
      ...['-deadline', 'realtime', '-cpu-used', '6', '-row-mt', '1'],
    ],
    sound: ['-c:a', 'libopus', '-b:a', '160k'],
    container: ['-f', 'webm'],
  },

  /** Even sizes, and colours as HD television has them: all that players ask for. */
  mp4: {
    picture: [
      ...['-vf', 'pad=ceil(iw/2)*2:ceil(ih/2)*2,scale=out_color_matrix=bt709:out_range=tv,format=yuv420p'],
      ...['-c:v', 'libx264', '-crf', '16', '-preset', 'medium'],
      ...['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709'],
    ],
    sound: ['-c:a', 'aac', '-b:a', '192k'],
    container: ['-movflags', '+faststart', '-f', 'mp4'],
  },

  ffv1: {
    picture: ['-c:v', 'ffv1', '-level', '3', '-pix_fmt', 'bgra'],
    sound: ['-c:a', 'flac'],
    container: ['-f', 'matroska'],
  },

  apng: {
    picture: ['-c:v', 'apng', '-pix_fmt', 'rgba', '-plays', '0'],
    container: ['-f', 'apng'],
  },

  webp: {
    picture: ['-c:v', 'libwebp_anim', '-pix_fmt', 'bgra', '-lossless', '1', '-compression_level', '3', '-loop', '0'],
    container: ['-f', 'webp'],
  },
} as const satisfies Record<string, Film>;
