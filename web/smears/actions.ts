/** Actions of smears that need no active tool. */
import { alt, named, of } from '../actions/action.ts';
import { smearFast, whyNotFast } from './fast.ts';

const marks = of('Marks');

export const SMEAR_ACTIONS = named({
  smearFast: marks('Smear the fast ones', [alt('KeyA')], () => void smearFast(), { whyNot: whyNotFast }),
});
