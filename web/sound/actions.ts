/** Actions of sound: heard or not, and going from hit to hit. */
import { soundsOf } from '@tallow/core/sound';
import { key, named, of } from '../actions/action.ts';
import { playback, stopPlaying } from '../playback/playback.ts';
import { goToShotFrame, shotFrameNow } from '../playback/shot-time.ts';
import { useDocument } from '../shot/document.ts';
import { setMuted, useHearing } from './hearing.ts';
import { hitFramesNow } from './hits.ts';

const sound = of('Time');

const whyNotSound = (): string | null => {
  const { doc } = useDocument.getState();
  return doc && soundsOf(doc).length > 0 ? null : 'The shot has no sound: bring one in where it is assembled.';
};
const whyNotHit = (): string | null =>
  whyNotSound() ?? (hitFramesNow().length > 0 ? null : 'No hit is found in what is heard.');

/** Goes to the next hit, past the last to the first. */
const toHit = (by: 1 | -1) => (): void => {
  if (playback().playing) stopPlaying();
  const frames = hitFramesNow();
  const here = shotFrameNow();
  const next = by > 0 ? frames.find((frame) => frame > here) : frames.findLast((frame) => frame < here);
  const round = by > 0 ? frames[0] : frames.at(-1);
  const to = next ?? round;
  if (to !== undefined) goToShotFrame(to);
};

export const SOUND_ACTIONS = named({
  mute: sound(
    'Hear the sound, or play in silence',
    [key('KeyU', { alt: true, shift: true })],
    () => {
      setMuted(!useHearing.getState().muted);
    },
    { whyNot: whyNotSound },
  ),
  nextHit: sound('Go to the next hit', [key('KeyN', { alt: true, shift: true })], toHit(1), { whyNot: whyNotHit }),
  previousHit: sound('Go to the hit before', [key('KeyP', { alt: true, shift: true })], toHit(-1), {
    whyNot: whyNotHit,
  }),
});
