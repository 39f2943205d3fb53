/** Actions of sound: heard or not, and going from hit to hit. */
import { soundsOf } from '@tallow/core/sound';
import { key, named, of } from '../actions/action.ts';
import { playback, stopPlaying } from '../playback/playback.ts';
import { goToShotFrame, shotFrameNow } from '../playback/shot-time.ts';
import { useDocument } from '../shot/document.ts';
import { setMuted, useHearing } from './hearing.ts';
import { hitFramesNow } from './hits.ts';
import { know, useRecordings } from './recordings.ts';

const sound = of('Time');

const whyNotSound = (): string | null => {
  const { doc } = useDocument.getState();
  return doc && soundsOf(doc).length > 0 ? null : 'The shot has no sound: bring one in where it is assembled.';
};
/** Hits are known once a sound has been looked through: where nobody has asked for that yet, it is begun. */
function whyNotHit(): string | null {
  const why = whyNotSound();
  const { doc } = useDocument.getState();
  if (why || !doc) return why;
  const heard = soundsOf(doc).filter((each) => each.heard);
  for (const { asset } of heard) know(asset);
  const known = useRecordings.getState();
  if (heard.some(({ asset }) => known[asset]?.state === 'coming'))
    return 'The sounds are being looked through for hits: try again in a moment.';
  return hitFramesNow().length > 0 ? null : 'No hit is found in what is heard: raise “Hits as faint as” of a sound.';
}

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
