/** A soft edge, inwards. */
import { copyOf, plain, type Surface } from '../canvas/index.ts';
import { scaleOf } from '../geometry/index.ts';
import { outsideOf } from './along-axis.ts';
import { onMain, px, type Look, type LookNow, type LookPlace } from './look.ts';

function feathered(source: Surface, { numbers }: LookNow, place: LookPlace): Surface {
  const edge = outsideOf(source, (numbers['radius']! * scaleOf(place.matrix)) / 2, place);
  // Half of what is outside reaches the edge itself: twice as much leaves nothing there.
  const twice = copyOf(edge, place.make);
  twice.context.globalCompositeOperation = 'lighter';
  twice.context.drawImage(edge.picture, 0, 0);
  plain(twice);
  const out = copyOf(source, place.make);
  out.context.globalCompositeOperation = 'destination-out';
  out.context.drawImage(twice.picture, 0, 0);
  plain(out);
  return out;
}

export const feather: Look = {
  name: 'Soft rim',
  does: 'a soft edge, inwards',
  colour: 'none',
  fields: [px('radius', 'Width', 16, 300, 1)],
  choices: [],
  acts: ({ radius }) => radius! > 0,
  reach: ({ radius }) => 1.2 * radius!,
  paint: onMain(feathered),
};
