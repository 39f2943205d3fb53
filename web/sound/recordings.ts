/** Recordings of the open shot: fetched and decoded for hearing, looked through for drawing; each once by its content. */
import type { AssetId } from '@tallow/core/document';
import { ByteCache } from '@tallow/core/render';
import type { Hit, PeakLevel } from '@tallow/core/sound';
import { create } from 'zustand';
import { lookThrough } from '../workers/sound-client.ts';

/** What is known of a recording. */
export interface Recording {
  readonly state: 'coming' | 'there' | 'missing';
  readonly levels: readonly PeakLevel[];
  /** All that could be a hit, however faint, s from its beginning. */
  readonly hits: readonly Hit[];
  /** Samples a second of its levels. */
  readonly rate: number;
}

const COMING: Recording = { state: 'coming', levels: [], hits: [], rate: 1 };
/** Samples a second that everything is decoded to. */
const RATE = 48_000;
/** ms until a server that could not be reached is asked again. */
const RETRY_MS = 3000;
/** Bytes of decoded recordings kept at most: about eleven minutes in stereo. */
const BUFFER_BYTES = 256 * 1024 * 1024;

export const useRecordings = create<Readonly<Record<AssetId, Recording>>>(() => ({}));

const buffers = new ByteCache<AudioBuffer>(BUFFER_BYTES);
const decoding = new Map<AssetId, Promise<AudioBuffer>>();

async function decoded(asset: AssetId): Promise<AudioBuffer> {
  const answer = await fetch(`/api/assets/${asset}`);
  if (!answer.ok) throw new Error('The sound is not there.');
  // Decoding needs a context, not one that is heard.
  const buffer = await new OfflineAudioContext(1, 1, RATE).decodeAudioData(await answer.arrayBuffer());
  buffers.set(asset, buffer, 4 * buffer.length * buffer.numberOfChannels);
  return buffer;
}

/** A recording for hearing: at once where it is there, else it is fetched. @param arrived called once it has come. */
export function bufferOf(asset: AssetId, arrived: () => void): AudioBuffer | null {
  const known = buffers.get(asset);
  if (known) return known;
  if (useRecordings.getState()[asset]?.state === 'missing') return null;
  let coming = decoding.get(asset);
  if (!coming) {
    coming = decoded(asset).finally(() => decoding.delete(asset));
    decoding.set(asset, coming);
  }
  coming.then(arrived, () => undefined);
  return null;
}

/** Sees to it that a recording is known; it is looked through once. */
export function know(asset: AssetId): void {
  if (useRecordings.getState()[asset]) return;
  const set = (recording: Recording): void => {
    useRecordings.setState({ [asset]: recording });
  };
  const look = async (): Promise<void> => {
    try {
      const buffer = buffers.get(asset) ?? (await (decoding.get(asset) ?? decoded(asset)));
      set({ state: 'there', ...(await lookThrough(buffer)), rate: buffer.sampleRate });
    } catch (error) {
      // A server that cannot be reached says nothing of the sound: it is asked again.
      if (error instanceof TypeError) setTimeout(() => void look(), RETRY_MS);
      else set({ ...COMING, state: 'missing' });
    }
  };
  set(COMING);
  void look();
}
