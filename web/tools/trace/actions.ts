/** Actions of moved ghosts. */
import { alt, named, of } from '../../actions/action.ts';
import { ghostsBack, whyNotBack } from './trace.ts';

const onion = of('Onion skin');

export const TRACE_ACTIONS = named({
  ghostsBack: onion('Put all ghosts back', [alt('KeyK')], ghostsBack, { whyNot: whyNotBack }),
});
