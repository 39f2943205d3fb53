/** See-through along the axis. */
import { copyOf, flood, type Surface } from '../canvas/index.ts';
import { alongAxis } from './along-axis.ts';
import { onAll, percent, type Look, type LookNow, type LookPlace } from './look.ts';

function faded(source: Surface, { numbers }: LookNow, place: LookPlace): Surface {
  const out = copyOf(source, place.make);
  const [from, to] = [numbers['from']! / 100, numbers['to']! / 100];
  const ends: (readonly [number, string])[] =
    from <= to
      ? [
          [from, '#00000000'],
          [to, '#000000'],
        ]
      : [
          [to, '#000000'],
          [from, '#00000000'],
        ];
  flood(out, alongAxis(out, place, ends), 'destination-in');
  return out;
}

export const fade: Look = {
  name: 'Fade',
  does: 'see-through along the axis',
  colour: 'none',
  fields: [percent('from', 'Gone at', 0, 150, -50), percent('to', 'Whole at', 35, 150, -50)],
  choices: [],
  runsAlongAxis: () => true,
  acts: () => true,
  paint: onAll(faded),
};
