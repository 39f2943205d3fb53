/**
 * Liquid: a gob along a path (head, neck, a tail as long as it is fast; it squashes where it lands, and spreads),
 * the crown of a splash with its ring, streams that meet, and a surface that waves. A gob keeps its area: what goes
 * into the tail is taken from the head. Drops leave fast, slow down, shrink, and break in two.
 */
import { gridOver, ringsAt, type Grid } from '../geometry/index.ts';
import type { Ring } from '../document/index.ts';
import { GUIDE_PAINT, circleLine } from './circles.ts';
import { discsBox, FIELD_OUTSIDE, softMax, unionField, withinBall } from './field.ts';
import { gobAt } from './gob.ts';
import { outlinedLine } from './line.ts';
import { crownAt, streamsAt, surfaceAt, type Liquid } from './liquid-forms.ts';
import { choice, control } from '../controls/index.ts';
import { ageOf, starterFill, phaseOf, type LaidFrame, type Scene, type StarterKind } from './starter.ts';

const GOB = 0;
const CROWN = 1;
const STREAMS = 2;
const SURFACE = 3;

/** What of a field lies along the rim that faces a way: inside, and outside once moved that way. */
function rimOf(field: Float64Array, { columns, cell }: Grid, dx: number, dy: number, inset: number): Float64Array {
  const step = Math.round(dy / cell) * columns + Math.round(dx / cell);
  return field.map((v, i) => Math.min(v - inset, inset * 1.4 - (field[i + step] ?? FIELD_OUTSIDE)));
}

function ringsOf({ balls, drops, blend, rims, more }: Liquid): {
  body: Ring[];
  drops: Ring[];
  light: Ring[];
  shade: Ring[];
} {
  if (balls.length === 0) return { body: [], drops: [], light: [], shade: [] };
  const grid = gridOver(discsBox(balls), 1.4, 260);
  let field = unionField(balls, grid, blend);
  if (more)
    field = field.map((v, i) => {
      const x = grid.left + (i % grid.columns) * grid.cell;
      const y = grid.top + Math.floor(i / grid.columns) * grid.cell;
      return softMax(v, more(x, y), blend);
    });
  const own = drops.length > 0 ? gridOver(discsBox(drops), 1.2, 260) : null;
  const body = ringsAt(field, grid, 0, 24);
  const free = own ? ringsAt(unionField(drops, own, 4), own, 0, 12) : [];
  if (rims !== null) {
    const smallest = Math.max(60, rims * rims * 2.5);
    return {
      body,
      drops: free,
      light: ringsAt(rimOf(field, grid, -rims * 0.6, -rims * 1.1, rims * 0.32), grid, 0, smallest),
      shade: ringsAt(rimOf(field, grid, rims * 0.7, rims * 1.4, 0), grid, 0, smallest),
    };
  }
  const thick = Math.max(...balls.map((b) => b.r), 4);
  const moved = (dx: number, dy: number, factor: number): Float64Array =>
    unionField(
      balls.map((b) => ({ x: b.x + dx * b.r, y: b.y + dy * b.r, r: b.r * factor })),
      grid,
      blend,
    );
  const inset = field.map((v) => v - thick * 0.1);
  const smallest = Math.max(40, thick * thick * 0.12);
  return {
    body,
    drops: free,
    light: ringsAt(withinBall(moved(-0.26, -0.34, 0.46), inset), grid, 0, smallest),
    shade: ringsAt(
      moved(-0.14, -0.24, 0.98).map((v, i) => Math.min(-v, inset[i]! + thick * 0.05)),
      grid,
      0,
      smallest,
    ),
  };
}

function draw(scene: Scene, index: number): LaidFrame {
  const { settings } = scene;
  const form = Math.round(settings['form']!);
  const width = Math.max(2.5, settings['size']! * 0.022);
  const age = ageOf(scene, index);
  const liquid =
    form === GOB
      ? gobAt(scene, index)
      : form === CROWN
        ? crownAt(scene, age)
        : form === STREAMS
          ? streamsAt(scene, age)
          : surfaceAt(scene, phaseOf(scene, index));
  const { body, drops, light, shade } = ringsOf(liquid);
  const head = liquid.balls.filter((_, i) => i % 3 === 0 && liquid.balls[i]!.r > 4);
  return {
    balls: head.map((ball) => circleLine('guide', ball, 3)),
    line: [...body, ...drops].map((ring) => outlinedLine(ring, 'line', width)),
    light: starterFill('light', light),
    shade: starterFill('shade', shade),
    drops: starterFill('body', drops),
    body: starterFill('body', body),
  };
}

export const LIQUID: StarterKind = {
  effect: 'liquid',
  name: 'Liquid',
  says: 'A gob on its way, a crown, streams that meet, a surface',
  offered: 'first',
  telling: 0.3,
  cycles: ({ form }) => form === SURFACE,
  follows: 'path',
  stands: 'middle',
  length: 32,
  hold: 2,
  controls: [
    choice('form', 'What', ['gob', 'crown of a splash', 'streams that meet', 'surface'], GOB),
    control('size', 'Size', 'px', [20, 1200, 2], 150),
    control('trail', 'Tail by speed', '%', [0, 200, 1], 100),
    control('neck', 'Neck', '%', [0, 90, 1], 45),
    control('spread', 'Spreads', '%', [0, 100, 1], 60),
    control('drops', 'Drops', '', [0, 24, 1], 7),
    control('fingers', 'Fingers of the crown', '', [4, 24, 1], 11, 'more'),
    control('waves', 'Waves', '', [1, 8, 1], 3, 'more'),
    control('height', 'Height of waves', 'px', [2, 300, 1], 40, 'more'),
  ],
  outputs: [
    { key: 'balls', name: 'Liquid balls', role: 'guide', hidden: true },
    { key: 'line', name: 'Liquid line', role: 'line' },
    { key: 'light', name: 'Liquid light', role: 'tone' },
    { key: 'shade', name: 'Liquid shade', role: 'tone' },
    { key: 'drops', name: 'Drops', role: 'body' },
    { key: 'body', name: 'Liquid body', role: 'body' },
  ],
  paints: [
    { key: 'line', name: 'glass line', role: 'outline', colour: '#7a2a12' },
    { key: 'body', name: 'molten', role: 'body', colour: '#f28a2e' },
    { key: 'light', name: 'molten light', role: 'light', colour: '#ffe3a1' },
    { key: 'shade', name: 'molten shade', role: 'shade', colour: '#c9531c' },
    GUIDE_PAINT,
  ],
  presets: [
    { name: 'Gob', settings: {} },
    { name: 'Crown', settings: { form: CROWN, size: 320 } },
    { name: 'Streams', settings: { form: STREAMS, size: 260, drops: 10 } },
    { name: 'Surface', settings: { form: SURFACE, size: 420 }, length: 24 },
  ],
  draw,
  pieces: ['light', 'shade'],
};
