/** Actions of tone. */
import { key, named, of } from '../actions/action.ts';
import { current } from '../selection/current.ts';
import { layToneHere, whyNotTone } from './tone.ts';

export const TONE_ACTIONS = named({
  toneAll: of('Tools')(
    'Light and shade on all drawings',
    [key('KeyM', { alt: true, shift: true })],
    () => {
      layToneHere('all');
    },
    { whyNot: () => whyNotTone(current()) },
  ),
});
