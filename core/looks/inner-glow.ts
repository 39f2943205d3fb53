/** Colour from the edge inwards, or from the base up. */
import { copyOf, flood, plain, type Surface } from '../canvas/index.ts';
import { scaleOf } from '../geometry/index.ts';
import { alongAxis, outsideOf } from './along-axis.ts';
import { onMain, percent, px, type Look, type LookNow, type LookPlace } from './look.ts';

function glowInside(source: Surface, now: LookNow, place: LookPlace): Surface {
  const { numbers, choices } = now;
  const colour = place.colourOf(now.swatch ?? '');
  const strength = numbers['strength']! / 100;
  const out = copyOf(source, place.make);
  if (choices['where'] === 'base') {
    flood(
      out,
      alongAxis(out, place, [
        [0, colour],
        [numbers['reach']! / 100, `${colour}00`],
      ]),
      'source-atop',
      strength,
    );
    return out;
  }
  const edge = outsideOf(source, (numbers['radius']! * scaleOf(place.matrix)) / 2, place);
  flood(edge, colour, 'source-in');
  out.context.globalCompositeOperation = 'source-atop';
  // Half the light lies outside, so twice as much is laid inside.
  for (let left = 2 * strength; left > 0.001; left -= 1) {
    out.context.globalAlpha = Math.min(1, left);
    out.context.drawImage(edge.picture, 0, 0);
  }
  plain(out);
  return out;
}

export const innerGlow: Look = {
  name: 'Colour from the edge',
  does: 'or from its base',
  colour: 'own',
  fields: [
    px('radius', 'Width', 30, 400, 1),
    percent('strength', 'Strength', 70),
    percent('reach', 'Reach', 40, 150, 5),
  ],
  choices: [{ key: 'where', label: 'From', options: ['edge', 'base'] }],
  role: 'light',
  uses: (key, { where }) => key !== (where === 'base' ? 'radius' : 'reach'),
  runsAlongAxis: ({ where }) => where === 'base',
  keepsShape: true,
  acts: ({ strength }) => strength! > 0,
  reach: ({ radius }, { where }) => (where === 'base' ? 0 : 1.2 * radius!),
  paint: onMain(glowInside),
};
