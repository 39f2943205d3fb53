/** A texture inside what is drawn: still, boiling, or drifting along the axis. */
import { copyOf, coveredIn, plain, type Surface } from '../canvas/index.ts';
import { apply, invert, mapBox, type Point } from '../geometry/index.ts';
import { ONCE, onMain, percent, px, type Look, type LookNow, type LookPlace } from './look.ts';
import { drawTexture } from './texture-cells.ts';

function textured(source: Surface, now: LookNow, place: LookPlace): Surface {
  const { make, matrix, axis } = place;
  const out = copyOf(source, make);
  const colour = place.colourOf(now.swatch ?? '');
  const { context, width, height } = out;
  const strength = now.numbers['strength']! / 100;
  const box = mapBox(invert(matrix), { left: 0, top: 0, right: width, bottom: height });
  const far = Math.hypot(axis.to.x - axis.from.x, axis.to.y - axis.from.y) || 1;
  const unit = { x: (axis.to.x - axis.from.x) / far, y: (axis.to.y - axis.from.y) / far };
  context.globalCompositeOperation = 'source-atop';
  context.globalAlpha = strength;
  context.setTransform(...matrix);
  const fade = context.createRadialGradient(0, 0, 0, 0, 0, 1);
  fade.addColorStop(0, colour);
  fade.addColorStop(0.45, `${colour}8c`);
  fade.addColorStop(1, `${colour}00`);
  // Once for all discs: a gradient takes as long to set as a disc to fill.
  context.fillStyle = now.choices['form'] === 'smoke' ? fade : colour;
  const [a, b, c, d] = matrix;
  const soft = (at: Point, radius: number, opacity: number): void => {
    const middle = apply(matrix, at);
    context.globalAlpha = strength * opacity * 0.5;
    context.setTransform(a * radius, b * radius, c * radius, d * radius, middle.x, middle.y);
    context.fillRect(-1, -1, 2, 2);
  };
  // Hatching does not ask.
  let isCovered: ReturnType<typeof coveredIn> | null = null;
  const [wide, high] = [Math.abs(a) + Math.abs(c), Math.abs(b) + Math.abs(d)];
  drawTexture(context, now, box, unit, soft, (at, radius) => {
    const { x, y } = apply(matrix, at);
    // A px more: edges are soft.
    const [dx, dy] = [wide * radius + 1, high * radius + 1];
    isCovered ??= coveredIn(source);
    return isCovered({ left: x - dx, top: y - dy, right: x + dx, bottom: y + dy });
  });
  plain(out);
  return out;
}

export const texture: Look = {
  name: 'Texture',
  does: 'inside only, seeded',
  colour: 'own',
  fields: [
    percent('strength', 'Strength', 35),
    px('scale', 'Scale', 14, 300, 2),
    { key: 'every', label: 'New every', unit: 'f', min: 1, max: 48, default: 2 },
    { key: 'angle', label: 'Angle', unit: '°', min: -3600, max: 3600, default: 45 },
  ],
  choices: [
    { key: 'form', label: 'Form', options: ['grain', 'smoke', 'spatter', 'hatching'] },
    { key: 'moves', label: 'It', options: ['holds still', 'boils', 'drifts'] },
  ],
  role: 'shade',
  seeded: true,
  uses: (key, { moves, form }) => (key !== 'every' || moves === 'boils') && (key !== 'angle' || form === 'hatching'),
  keepsShape: true,
  acts: ({ strength }) => strength! > 0,
  at: ({ moves }, { every }, frame, turn) =>
    moves === 'drifts'
      ? frame / (turn ?? ONCE)
      : moves === 'boils'
        ? Math.floor(frame / Math.max(1, Math.round(every!)))
        : 0,
  paint: onMain(textured),
};
