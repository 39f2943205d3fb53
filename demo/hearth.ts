/** The brick arch round the furnace's mouth: a still drawing, lit by the fire through the choice of brick swatches. */
import type { Id, Mark, NewId } from '@tallow/core/document';
import { polygonRing, seededRandom } from '@tallow/core/geometry';

/** Swatches the arch is drawn with, dim to warm. */
interface HearthSwatches {
  readonly mortar: Id;
  readonly bricks: readonly Id[];
  readonly arch: Id;
  readonly archLit: Id;
  readonly glow: readonly Id[];
  readonly anvil: Id;
  readonly anvilTop: Id;
}

type Pair = [number, number];
const SPAN = { left: 640, right: 1280, spring: 560, foot: 900 };
const MIDDLE = (SPAN.left + SPAN.right) / 2;

function archPoints(inset: number, foot: number): Pair[] {
  const radius = (SPAN.right - SPAN.left) / 2 - inset;
  const round = Array.from({ length: 33 }, (_, i): Pair => {
    const angle = Math.PI + (i / 32) * Math.PI;
    return [MIDDLE + radius * Math.cos(angle), SPAN.spring + radius * Math.sin(angle)];
  });
  return [[SPAN.left + inset, foot], ...round, [SPAN.right - inset, foot]];
}

/** A brick with slightly uneven corners. */
function brick(x: number, y: number, width: number, height: number, random: () => number): Pair[] {
  const off = () => (random() - 0.5) * 5;
  return [
    [x + off(), y + off()],
    [x + width + off(), y + off()],
    [x + width + off(), y + height + off()],
    [x + off(), y + height + off()],
  ];
}

/** The marks of the wall in shot px, lowest first. */
export function hearthMarks(swatches: HearthSwatches, newId: NewId): Mark[] {
  const random = seededRandom(41);
  const marks: Mark[] = [];
  const fill = (swatch: Id, ...rings: Pair[][]) =>
    marks.push({ kind: 'shape', id: newId(), swatch, rings: rings.map(polygonRing), rule: 'evenodd', opacity: 1 });
  const box = (left: number, top: number, right: number, bottom: number): Pair[] => [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ];
  fill(swatches.mortar, box(-60, -60, 1980, 1140));
  const byLight = swatches.bricks.map((): Pair[][] => []);
  for (let row = 0; row < 19; row++) {
    for (let column = -1; column < 17; column++) {
      const x = column * 128 + (row % 2) * 64 - 20;
      const y = row * 60 - 24;
      const distance = Math.hypot(x + 60 - MIDDLE, (y + 26 - 640) * 0.9);
      const light = Math.max(0, Math.min(1, 1.18 - distance / 950)) + (random() - 0.5) * 0.22;
      const step = Math.max(0, Math.min(byLight.length - 1, Math.floor(light * byLight.length)));
      byLight[step]!.push(brick(x + 4, y + 4, 118, 50, random));
    }
  }
  byLight.forEach((bricks, i) => fill(swatches.bricks[i]!, ...bricks));
  // The voussoirs of the arch, then its dark mouth, glowing in steps towards the fire.
  const outer = (SPAN.right - SPAN.left) / 2 + 62;
  const inner = outer - 62;
  for (let i = 0; i < 15; i++) {
    const stone = [i / 15 + 0.004, (i + 1) / 15 - 0.004].map((t) => Math.PI * (1 + t));
    const at = (r: number, angle: number): Pair => [MIDDLE + r * Math.cos(angle), SPAN.spring + r * Math.sin(angle)];
    const lit = i % 3 === 1 || random() > 0.7;
    const middle = (stone[0]! + stone[1]!) / 2;
    fill(lit ? swatches.archLit : swatches.arch, [
      at(inner, stone[0]!),
      at(outer, stone[0]!),
      at(outer, middle),
      at(outer, stone[1]!),
      at(inner, stone[1]!),
      at(inner, middle),
    ]);
  }
  for (const side of [0, 1]) {
    for (let i = 0; i < 6; i++) {
      const top = SPAN.spring + 3 + i * 58;
      const left = side === 0 ? SPAN.left - 62 : SPAN.right;
      fill(random() > 0.45 ? swatches.archLit : swatches.arch, brick(left, top, 62, 53, random));
    }
  }
  swatches.glow.forEach((swatch, i) => fill(swatch, archPoints(i * 56, SPAN.foot)));
  // Hearth stone and the anvil beside it.
  fill(swatches.arch, box(SPAN.left - 110, SPAN.foot, SPAN.right + 110, SPAN.foot + 46));
  fill(swatches.archLit, box(SPAN.left - 110, SPAN.foot, SPAN.right + 110, SPAN.foot + 9));
  fill(swatches.anvil, [
    [170, 1140],
    [196, 930],
    [250, 900],
    [250, 870],
    [150, 856],
    [150, 812],
    [520, 812],
    [600, 838],
    [520, 872],
    [450, 884],
    [450, 906],
    [500, 934],
    [530, 1140],
  ]);
  fill(swatches.anvilTop, box(150, 812, 520, 822));
  return marks;
}
