/** Looks through a recording away from the main thread: its form, for drawing, and its hits. */
import { HitFinder, Peaks, type Hit, type PeakLevel } from '@tallow/core/sound';
import { expose, transfer } from 'comlink';

/** What is found in a recording. */
export interface RecordingFacts {
  readonly levels: readonly PeakLevel[];
  /** All that could be a hit, however faint. */
  readonly hits: readonly Hit[];
}

let peaks = new Peaks(0);
let finder = new HitFinder(1);

const recording = {
  /** @param length samples of one channel. @param rate samples a second. */
  begin(length: number, rate: number): void {
    peaks = new Peaks(length);
    finder = new HitFinder(rate);
  },

  /** Takes the samples that come next, a column for each channel. */
  take(channels: readonly Float32Array[]): void {
    const [first] = channels;
    if (!first) return;
    const mixed = channels.length === 1 ? first : first.map((_, i) => mean(channels, i));
    peaks.take(mixed);
    finder.take(mixed);
  },

  end(): RecordingFacts {
    const levels = peaks.levels();
    return transfer(
      { levels, hits: finder.found() },
      levels.map(({ pairs }) => pairs.buffer as ArrayBuffer),
    );
  },
};

function mean(channels: readonly Float32Array[], at: number): number {
  let sum = 0;
  for (const channel of channels) sum += channel[at]!;
  return sum / channels.length;
}

export type RecordingWorker = typeof recording;
expose(recording);
