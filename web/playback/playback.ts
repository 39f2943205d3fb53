/** What is played and how. Never saved with the shot. */
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { keptAs } from '../memory/memory.ts';
import { atOpening } from '../shot/opening.ts';

export const SPEEDS = [0.25, 0.5, 1, 2] as const;
export type Speed = (typeof SPEEDS)[number];

export interface Playback {
  readonly playing: boolean;
  /** Plays all of the shot, or the active element alone; null goes by the step: all of it where it is assembled. */
  readonly playsShot: boolean | null;
  /** Frames per second really reached while playing. */
  readonly reached: number | null;
  readonly speed: Speed;
  /** Frames are played at half their size: a heavy shot gets ready in a quarter of the time. */
  readonly half: boolean;
  /** To and fro in place of round and round. */
  readonly pingPong: boolean;
  /** Frames of the active element that are played, or null for all. */
  readonly range: { readonly from: number; readonly length: number } | null;
  /** Plays only the picked layers. */
  readonly playsLayers: boolean;
  /** Plays the element's variants one after another. */
  readonly inTurn: boolean;
  /** Whether playing begins again at the end. */
  readonly loops: boolean;
  /** Plays only what is picked. */
  readonly playsSelected: boolean;
  /** Whether the picture shows a neighbour for as long as a key is held: as it is, without ghosts. */
  readonly flipping: boolean;
  /** Whether the loop in the hub runs while nothing is played. */
  readonly hubRuns: boolean;
}

/** As it is when a shot opens. */
const FRESH = {
  playing: false,
  playsShot: null,
  range: null,
  playsLayers: false,
  inTurn: false,
  playsSelected: false,
  flipping: false,
} as const satisfies Partial<Playback>;

export const usePlayback = create<Playback>()(
  persist(
    (): Playback => ({
      ...FRESH,
      reached: null,
      speed: 1,
      half: false,
      pingPong: false,
      loops: true,
      hubRuns: true,
    }),
    keptAs<Playback>('tallow-playback', ['hubRuns', 'loops', 'speed', 'pingPong']),
  ),
);
export const playback = usePlayback.getState;
export const setPlayback = usePlayback.setState;

/** Stops playing; whoever plays sees it. */
export function stopPlaying(): void {
  setPlayback({ playing: false });
}

atOpening(() => {
  setPlayback(FRESH);
});
