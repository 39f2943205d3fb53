/** All of it takes on a colour. */
import { copyOf, flood } from '../canvas/index.ts';
import { onMain, percent, type Look } from './look.ts';

export const tint: Look = {
  name: 'Tint',
  does: 'takes on a colour',
  colour: 'own',
  fields: [percent('strength', 'Strength', 50)],
  choices: [],
  role: 'body',
  keepsShape: true,
  acts: ({ strength }) => strength! > 0,
  paint: onMain((source, { numbers, swatch }, place) => {
    const out = copyOf(source, place.make);
    flood(out, place.colourOf(swatch ?? ''), 'source-atop', numbers['strength']! / 100);
    return out;
  }),
};
