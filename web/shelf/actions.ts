/** Actions of the shelf. */
import { named, of } from '../actions/action.ts';
import { togglePanel } from '../screen/panels.ts';
import { current } from '../selection/current.ts';
import { startKeeping } from './shelf.ts';

const picture = of('Picture');

export const SHELF_ACTIONS = named({
  shelf: picture('The shelf: effects to put into the shot', [{ code: 'KeyH', alt: true, shift: true }], () => {
    togglePanel('shelf');
  }),
  keepElement: picture(
    'Keep the element on the shelf',
    [{ code: 'KeyL', alt: true, shift: true }],
    () => {
      startKeeping(current()?.element.id ?? null);
    },
    { whyNot: () => (current() ? null : 'There is no element here.') },
  ),
});
