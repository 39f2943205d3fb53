/** Actions of what the picture shows: the onion skin, looks, the silhouette. */
import { alt, key, named, of, shift } from '../actions/action.ts';
import { current, shownNow } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { ranges } from './onion.ts';
import { setShowing, showing, type Onion } from './showing.ts';

const onion = of('Onion skin');
const picture = of('Picture');

const setOnion = (settings: Partial<Onion>): void => {
  setShowing({ onion: { ...showing().onion, ...settings } });
};

const pinHere = (): void => {
  const now = current();
  const shown = now && shownNow(now, selection().frame);
  if (!shown) return;
  const { pinned } = showing();
  const { drawingId } = shown;
  setShowing({ pinned: pinned.includes(drawingId) ? pinned.filter((id) => id !== drawingId) : [...pinned, drawingId] });
};

export const PICTURE_ACTIONS = named({
  onion: onion('On or off', [key('KeyW')], () => {
    setOnion({ on: !showing().onion.on });
  }),
  onionRange: onion('Range: before only, one each side, three each side', [shift('KeyW')], () => {
    setOnion({ on: true, ...ranges.next(showing().onion) });
  }),
  onionLook: onion('Outline only or full', [alt('KeyW')], () => {
    setOnion({ on: true, look: showing().onion.look === 'full' ? 'outline' : 'full' });
  }),
  onionRides: onion(
    'Ghosts ride on what is moved in the shot, or stand where it was',
    [{ code: 'KeyW', alt: true, shift: true }],
    () => {
      setOnion({ on: true, rides: !showing().onion.rides });
    },
  ),
  pin: onion('Pin this drawing as a ghost, or unpin it', [key('KeyK')], pinHere, {
    whyNot: () => (current() && shownNow(current()!, selection().frame) ? null : 'There is no drawing here to pin.'),
  }),
  planMarks: picture(
    'Hold for Plan’s marks while drawing',
    [key('KeyY')],
    () => {
      setShowing({ planHeld: true });
    },
    {
      release: () => {
        setShowing({ planHeld: false });
      },
    },
  ),
  silhouette: picture(
    'Hold for the silhouette',
    [key('KeyB')],
    () => {
      setShowing({ silhouette: true });
    },
    {
      release: () => {
        setShowing({ silhouette: false });
      },
    },
  ),
  looks: picture('Looks on or off while drawing', [alt('KeyZ')], () => {
    setShowing({ looks: !showing().looks });
  }),
  finished: picture('Finished look: what will be taken away', [shift('KeyY')], () => {
    setShowing({ finished: !showing().finished });
  }),
});
