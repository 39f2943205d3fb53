export { frameOfSecond, loudnessAt, secondOn, soundsOf, spanOfSound } from './time.ts';
export { stretchesOf, type Voice, voicesOf } from './voices.ts';
export { FINEST, peakBetween, type PeakLevel, Peaks } from './peaks.ts';
export { type Hit, HitFinder, strongest } from './hits.ts';
export { wavOf } from './wav.ts';
export { MADE_RATE, MADE_SOUNDS, type MadeSoundName } from './made/index.ts';
