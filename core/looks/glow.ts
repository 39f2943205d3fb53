/** Light around what is drawn, at several radii, at reduced size. */
import {
  blurredSmall,
  copyOf,
  flood,
  halvingsFor,
  layReduced,
  plain,
  reduced,
  type Blend,
  type Surface,
} from '../canvas/index.ts';
import { scaleOf } from '../geometry/index.ts';
import { percent, px, type Look, type LookNow, type LookPlace, type Part } from './look.ts';

function lightOf(source: Surface, now: LookNow, place: LookPlace): Part {
  const { numbers, swatch, choices } = now;
  const scale = scaleOf(place.matrix);
  const { make, rough } = place;
  const radii = Math.round(numbers['radii']!);
  const bright = numbers['bright']! / 100;
  const first = Math.max(0.3, numbers['radius']! * scale * 0.6);
  const min = halvingsFor(first, rough);
  const light = min > 0 ? reduced(source, min, make) : copyOf(source, make);
  if (bright > 0) onlyBright(light, bright);
  if (swatch) flood(light, place.colourOf(swatch), 'source-in');
  const strength = numbers['strength']! / 100;
  // From the widest on, each laid on the next at its own size: only the sum is laid at full size.
  let sum: { readonly on: Surface; readonly halvings: number } | null = null;
  for (let i = radii - 1; i >= 0; i--) {
    const deviation = (first * 2 ** i) / 2 ** min;
    const { small, halvings } = blurredSmall(light, deviation, halvingsFor(deviation, false), make);
    const on = make(small.width, small.height);
    if (sum) layReduced(on, sum.on.picture, sum.on.width, sum.on.height, sum.halvings - halvings);
    on.context.globalCompositeOperation = 'lighter';
    // Each radius adds the same light; wider ones spread it thinner by themselves.
    for (let left = strength / Math.sqrt(radii); left > 0.001; left -= 1) {
      on.context.globalAlpha = Math.min(1, left);
      on.context.drawImage(small.picture, 0, 0);
    }
    plain(on);
    sum = { on, halvings };
  }
  const out = make(source.width, source.height);
  if (sum) layReduced(out, sum.on.picture, sum.on.width, sum.on.height, min + sum.halvings);
  return { picture: out, blend: (choices['blend'] ?? 'lighter') as Blend, opacity: 1 };
}

/** Keeps what is brighter than a limit, softly, by relative luminance of the colour. */
function onlyBright(target: Surface, limit: number): void {
  const { context, width, height } = target;
  const pixels = context.getImageData(0, 0, width, height);
  const { data } = pixels;
  const room = Math.max(0.04, (1 - limit) * 0.5);
  for (let i = 0; i < data.length; i += 4) {
    if (data[i + 3] === 0) continue;
    const y = (0.2126 * data[i]! + 0.7152 * data[i + 1]! + 0.0722 * data[i + 2]!) / 255;
    data[i + 3] = data[i + 3]! * Math.min(1, Math.max(0, (y - limit) / room));
  }
  context.putImageData(pixels, 0, 0);
}

export const glow: Look = {
  name: 'Glow',
  does: 'light around it',
  colour: 'may',
  fields: [
    px('radius', 'Radius', 36, 400, 1),
    percent('strength', 'Strength', 70, 300),
    { key: 'radii', label: 'Radii added', unit: '', min: 1, max: 4, default: 2 },
    percent('bright', 'Brighter than', 0, 95),
  ],
  choices: [{ key: 'blend', label: 'Blend', options: ['lighter', 'screen', 'color-dodge', 'normal'] }],
  keepsShape: true,
  acts: ({ strength }) => strength! > 0,
  // Beyond 2.4 standard deviations nothing of a blur is left that could be seen.
  reach: ({ radius, radii }) => 2.4 * 0.6 * radius! * 2 ** (Math.round(radii!) - 1),
  paint: ({ main, lights }, now, place) => ({ main, lights: [...lights, lightOf(main, now, place)] }),
};
