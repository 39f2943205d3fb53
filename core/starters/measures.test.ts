/** What can be measured of how smoke and bursts move, drawing by drawing, over all their presets. */
import { coverOf, wayBetween } from '../checks/index.ts';
import { doubleAreaOf, isInside, ringBox, ringPoints, union, EMPTY_BOX, type Box } from '../geometry/index.ts';
import type { Ring } from '../document/index.ts';
import { BURST } from './burst.ts';
import { isLine, layAll, sceneFor, type LaidFrame, type StarterKind } from './index.ts';
import { SMOKE } from './smoke.ts';

const ringsOf = (frame: LaidFrame, output: string): readonly Ring[] =>
  (frame[output] ?? []).flatMap((mark) => (isLine(mark) ? [] : mark.rings));
const areaOf = (rings: readonly Ring[]): number =>
  rings.reduce((sum, ring) => sum + Math.abs(doubleAreaOf(ringPoints(ring, 4))) / 2, 0);

const laid = (kind: StarterKind) =>
  kind.presets.map((preset, i) => {
    const scene = sceneFor(kind, preset, 7 + i);
    return { name: preset.name, scene, frames: layAll(kind, scene)! };
  });

const SIDE = 56;
/** What areas cover of a box, on a grid. */
function coverIn(rings: readonly Ring[], { left, top, right, bottom }: Box) {
  const outlines = rings.map((ring) => ringPoints(ring, 3));
  const side = Math.max(right - left, bottom - top);
  const mask = new Uint8Array(SIDE * SIDE);
  for (let i = 0; i < mask.length; i++) {
    const at = { x: left + (((i % SIDE) + 0.5) * side) / SIDE, y: top + ((Math.floor(i / SIDE) + 0.5) * side) / SIDE };
    if (outlines.filter((outline) => isInside(outline, at)).length % 2 === 1) mask[i] = 255;
  }
  return coverOf(mask);
}

/** The mean way of what covers from each drawing to the next, in cells. */
function waysOf(frames: readonly LaidFrame[], output: string): number[] {
  const box = frames
    .flatMap((frame) => ringsOf(frame, output))
    .map(ringBox)
    .reduce(union, EMPTY_BOX);
  const covers = frames.map((frame) => coverIn(ringsOf(frame, output), box));
  return covers.slice(1).map((cover, i) => wayBetween(covers[i]!, cover));
}

const PLUMES = SMOKE.presets.filter((preset) => sceneFor(SMOKE, preset, 1).cycle);

test.each(PLUMES)('a plume never comes off its source, whatever its seed: $name', (preset) => {
  for (const seed of [1, 5, 6, 12]) {
    const scene = sceneFor(SMOKE, preset, seed);
    const { height, thin } = scene.settings as { height: number; thin: number };
    for (const frame of layAll(SMOKE, scene)!) {
      const foot = ringsOf(frame, 'body')
        .map(ringBox)
        .filter((box) => box.bottom > -0.05 * height && box.left < 0 && box.right > 0);
      // What stands on the source reaches up to where it thins.
      expect(Math.max(0, ...foot.map((box) => box.bottom - box.top)) / height).toBeGreaterThan(0.95 * (1 - thin / 100));
    }
  }
});

test.each(laid(BURST))('a burst never stands still while it lives: $name', ({ frames }) => {
  const drawn = frames.filter((frame) => ringsOf(frame, 'body').length > 0);
  const ways = waysOf(drawn, 'body');
  const middle = ways.slice(Math.floor(ways.length * 0.3), Math.ceil(ways.length * 0.75));
  // Of a cell of the grid, on the mean over all that is covered; most of that lies inside the mass, where no movement is seen.
  for (const way of middle) expect(way).toBeGreaterThan(0.09);
});

test.each([...laid(SMOKE), ...laid(BURST)].filter(({ scene }) => !scene.cycle))(
  'what falls apart has shrunk away by the end, and does not pop off: $name',
  ({ frames }) => {
    const bodies = frames.map((frame) => areaOf(ringsOf(frame, 'body')));
    const last = bodies.slice(-4);
    for (let i = 1; i < last.length; i++) expect(last[i]!).toBeLessThan(last[i - 1]!);
    expect(last.at(-1)!).toBeLessThan(0.02 * Math.max(...bodies));
  },
);

test.each([1, 8, 20, 33])('a puff ends in one piece, not in two alike side by side: seed %s', (seed) => {
  const scene = sceneFor(
    SMOKE,
    SMOKE.presets.find(({ name }) => name === 'Puff')!,
    seed,
  );
  const pieces = layAll(SMOKE, scene)!.map((frame) => ringsOf(frame, 'body').map((ring) => areaOf([ring])));
  // Smaller ones are crumbs, gone on the next drawing or the one after.
  const seen = 0.015 * Math.max(...pieces.flat());
  for (const areas of pieces.slice(-8)) {
    const [largest = 0, next = 0] = areas.filter((area) => area > seen).sort((a, b) => b - a);
    expect(next).toBeLessThan(0.5 * largest || 1);
  }
});

test.each([...laid(SMOKE), ...laid(BURST)])('light and shade do not flicker: $name', ({ frames }) => {
  for (const output of ['light', 'shade']) {
    const bodies = frames.map((frame) => areaOf(ringsOf(frame, 'body')));
    const whole = frames.filter((_, i) => bodies[i]! > 0.2 * Math.max(...bodies));
    const shares = whole.map((frame) => areaOf(ringsOf(frame, output)) / areaOf(ringsOf(frame, 'body')));
    // Up and down again: what goes one way, as when it falls apart, is no flicker.
    for (let i = 1; i + 1 < shares.length; i++)
      expect(Math.abs(shares[i]! - (shares[i - 1]! + shares[i + 1]!) / 2)).toBeLessThan(0.1);
  }
});

test.each([...laid(SMOKE), ...laid(BURST)])(
  'no line is left where its body is too small to carry it: $name',
  ({ frames }) => {
    for (const frame of frames)
      for (const mark of frame['line'] ?? []) {
        if (!isLine(mark) || !mark.along) continue;
        expect(Math.sqrt(areaOf([mark.along]))).toBeGreaterThan(2.5 * mark.width);
      }
  },
);
