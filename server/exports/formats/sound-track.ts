/** The sounds of a stretch of the shot as one track: what playing makes heard, mixed by ffmpeg. */
import { shotOf, type AssetId, type ShotDocument } from '@tallow/core/document';
import { soundsOf, voicesOf, type Voice } from '@tallow/core/sound';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

/** Samples a second of the track. */
const RATE = 48_000;

/** ffmpeg's arguments for a track: what it is made of, to stand before encoders, and the mix. */
interface SoundTrack {
  readonly inputs: readonly string[];
  readonly mix: readonly string[];
}

/** How loud a voice is over its own time, as ffmpeg reckons it: straight lines from corner to corner. */
function loudnessText({ at: began, loudness }: Voice): string {
  const corners = loudness.map(({ at, is }) => ({ at: at - began, is }));
  return corners.slice(1).reduceRight(
    (rest, { at, is }, i) => {
      const from = corners[i]!;
      const slope = at > from.at ? (is - from.is) / (at - from.at) : 0;
      return `if(lt(t,${at}),${from.is}+(${slope})*(t-${from.at}),${rest})`;
    },
    String(corners.at(-1)?.is ?? 0),
  );
}

/** Channels of a FLAC file: three bits behind the 20 of the rate (RFC 9639, 8.2). */
const channelsOf = (flac: Buffer): number => ((flac[20]! >> 1) & 7) + 1;

/**
 * The track of a stretch, as long as it.
 * @param recording the bytes of a recording, or null where it is not there: then it is silent.
 * @param folder for files on their way. @returns null where nothing is heard.
 */
export async function soundTrack(
  doc: ShotDocument,
  { from, to }: { readonly from: number; readonly to: number },
  recording: (asset: AssetId) => Promise<Buffer | null>,
  folder: string,
): Promise<SoundTrack | null> {
  const { rate } = shotOf(doc);
  const voices: { voice: Voice; path: string; isMono: boolean }[] = [];
  for (const voice of voicesOf(soundsOf(doc), { from, length: to - from }, rate, 1)) {
    const bytes = await recording(voice.sound.asset);
    if (!bytes) continue;
    await mkdir(folder, { recursive: true });
    const path = join(folder, `${voices.length}.flac`);
    await writeFile(path, bytes);
    voices.push({ voice, path, isMono: channelsOf(bytes) === 1 });
  }
  if (voices.length === 0) return null;
  const filters = voices.map(({ voice, isMono }, i) =>
    [
      `[${i + 1}:a]atrim=start=${voice.offset}:duration=${voice.lasts}`,
      'asetpts=PTS-STARTPTS',
      `aresample=${RATE}`,
      // As loud on both sides as it was, as players do it too; ffmpeg's own way makes it fainter.
      isMono ? 'pan=stereo|c0=c0|c1=c0' : 'aformat=channel_layouts=stereo',
      `volume='${loudnessText(voice)}':eval=frame`,
      `adelay=${Math.round(voice.at * RATE)}S:all=1[v${i}]`,
    ].join(','),
  );
  const all = voices.map((_, i) => `[v${i}]`).join('');
  filters.push(
    `${all}amix=inputs=${voices.length}:normalize=0,apad,atrim=duration=${(to - from) / rate},asetpts=PTS-STARTPTS[heard]`,
  );
  return {
    inputs: voices.flatMap(({ path }) => ['-i', path]),
    mix: ['-filter_complex', filters.join(';'), '-map', '0:v', '-map', '[heard]'],
  };
}
