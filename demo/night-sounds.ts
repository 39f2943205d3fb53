/** What is heard in *Night shift*: the furnace throughout, thunder a little after its lightning, the flask as it bursts. */
import { shotOf, type AssetId, type NewId, type ShotDocument } from '@tallow/core/document';
import { addSound, setSound } from '@tallow/core/edit';
import { MADE_SOUNDS, type MadeSoundName } from '@tallow/core/sound';

/** A sound that is made by code, as it is kept; null where it could not be made: then the demo is silent there. */
export type Recorded = (
  made: MadeSoundName,
  seed: number,
) => { readonly asset: AssetId; readonly seconds: number } | null;

interface Cue {
  readonly made: MadeSoundName;
  readonly seed: number;
  readonly name: string;
  /** Frame of the shot on which it hits, or begins where it has no hit. */
  readonly on: number;
  readonly loudness: number;
  readonly fadeIn?: number;
  readonly fadeOut?: number;
  /** How faint a hit is still found. */
  readonly hits?: number;
}

export const NIGHT_CUES: readonly Cue[] = [
  { made: 'roar', seed: 7, name: 'Furnace', on: 0, loudness: 0.7, fadeIn: 0.4, fadeOut: 0.5, hits: 0 },
  { made: 'strike', seed: 11, name: 'First strike', on: 22, loudness: 0.75 },
  { made: 'burst', seed: 3, name: 'Bench burst', on: 31, loudness: 1 },
  { made: 'burst', seed: 5, name: 'Small burst', on: 71, loudness: 0.55 },
  { made: 'strike', seed: 19, name: 'Second strike', on: 97, loudness: 0.5 },
  { made: 'burst', seed: 8, name: 'Burst on the bench top', on: 105, loudness: 0.8 },
];

/** Lays the sounds of the night on a shot. */
export const withNightSounds = (doc: ShotDocument, recorded: Recorded, newId: NewId): ShotDocument =>
  NIGHT_CUES.reduce((next, { made, seed, name, on, loudness, fadeIn = 0, fadeOut = 0, hits = 0.5 }) => {
    const recording = recorded(made, seed);
    if (!recording) return next;
    const start = on - (MADE_SOUNDS[made].hits[0] ?? 0) * shotOf(next).rate;
    const added = addSound(next, { name, ...recording }, start, newId);
    return setSound(added.doc, added.soundId, { loudness, fadeIn, fadeOut, hits });
  }, doc);
