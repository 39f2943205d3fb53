/** Lines take the colour of the fill beside them, darker. */
import { blurred, copyOf, flood, plain, type Surface } from '../canvas/index.ts';
import { scaleOf } from '../geometry/index.ts';
import { onMain, percent, type Look, type LookNow, type LookPlace } from './look.ts';

/** px by which the colours of fills are carried under the lines beside them. */
const SPREAD = 9;

function lineColoured(source: Surface, { numbers }: LookNow, place: LookPlace): Surface {
  const below = place.below();
  if (!below) return source;
  const { make } = place;
  const fills = make(source.width, source.height);
  fills.context.drawImage(below, 0, 0);
  const wide = blurred(fills, SPREAD * scaleOf(place.matrix), true, make);
  const out = copyOf(source, make);
  const colours = make(source.width, source.height);
  // Laid on itself again and again its soft rim becomes solid: the nearest colour, carried outwards.
  for (let i = 0; i < 6; i++) colours.context.drawImage(wide.picture, 0, 0);
  colours.context.drawImage(below, 0, 0);
  flood(colours, '#000000', 'source-atop', numbers['darker']! / 100);
  out.context.globalCompositeOperation = 'source-atop';
  out.context.drawImage(colours.picture, 0, 0);
  plain(out);
  return out;
}

export const lineColour: Look = {
  name: 'Line colour',
  does: 'lines take the colour of the fill beside them, darker',
  colour: 'none',
  fields: [percent('darker', 'Darker', 45)],
  choices: [],
  forLayers: true,
  keepsShape: true,
  acts: () => true,
  takesBelow: true,
  paint: onMain(lineColoured),
};
