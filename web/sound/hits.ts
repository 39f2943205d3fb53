/** Hits of the sounds as frames of the shot: marks to snap to and to go to. */
import { shotOf, type ShotDocument, type Sound } from '@tallow/core/document';
import { frameOfSecond, soundsOf, strongest } from '@tallow/core/sound';
import { useMemo } from 'react';
import { useDocument } from '../shot/document.ts';
import { useRecordings } from './recordings.ts';

/** A hit that is found a little early still belongs to its frame, frames. */
const EARLY = 0.2;

/** The frame of the shot that shows what hits. @param at frames, between two of them too. */
export const frameOfHit = (at: number): number => Math.floor(at + EARLY);

type Recordings = ReturnType<typeof useRecordings.getState>;

/** The hits of a sound that are heard, frames of the shot, the first of them first. */
export function hitsOf(sound: Sound, rate: number, recordings: Recordings): number[] {
  const { part } = sound;
  return strongest(recordings[sound.asset]?.hits ?? [], sound.hits)
    .filter(({ at }) => at >= part.from && at <= part.to)
    .map(({ at }) => frameOfSecond(sound, rate, at));
}

/** The frames of the shot on which anything hits, each once, the first of them first. */
function hitFrames(doc: ShotDocument, recordings: Recordings): number[] {
  const { rate, length } = shotOf(doc);
  const all = soundsOf(doc)
    .filter(({ heard }) => heard)
    .flatMap((sound) => hitsOf(sound, rate, recordings).map(frameOfHit))
    .filter((frame) => frame >= 0 && frame < length);
  return [...new Set(all)].sort((a, b) => a - b);
}

export const hitFramesNow = (): number[] => {
  const { doc } = useDocument.getState();
  return doc ? hitFrames(doc, useRecordings.getState()) : [];
};

export function useHitFrames(doc: ShotDocument): number[] {
  const recordings = useRecordings();
  return useMemo(() => hitFrames(doc, recordings), [doc, recordings]);
}
