/**
 * Stretch: one warp along the way. The leading end stays where it arrives, the trailing end reaches back to where it left;
 * between them shares of the way go evenly or crowd to one end. Across the way it is squeezed so that its area stays, down to
 * 45 %; from there on its area grows.
 */
import { choice, control } from '../controls/index.ts';
import type { Mark } from '../document/index.ts';
import { warpedMark } from '../marks/index.ts';
import { polygonsArea, type Pair, type Point, type Polygon } from '../geometry/index.ts';
import { leftBody } from './body.ts';
import type { Flow } from './flow.ts';
import { NOTHING_SMEARED, type SmearKind, type SmearScene } from './scene.ts';
import { denser } from './silhouette.ts';

/** No thinner than this, of its breadth. */
export const THINNEST = 0.45;

export interface Warp {
  readonly map: (point: Point) => Point;
  /** How far it is squeezed across the way, 0.45 to 1. */
  readonly squeeze: number;
  /** px² it covers, against what it covered. */
  readonly grown: number;
  /** Shares of the way from its trailing to its leading end, as it arrives. */
  readonly trailing: number;
  readonly leading: number;
}

const bisected = (low: number, high: number, tooMuch: (at: number) => boolean): number => {
  let [a, b] = [low, high];
  for (let i = 0; i < 24; i++) {
    const middle = (a + b) / 2;
    if (tooMuch(middle)) b = middle;
    else a = middle;
  }
  return (a + b) / 2;
};

/** How far a leading end goes beyond a line that stops it, in shares of the way. */
function beyondContact(flow: Flow, outlines: readonly Polygon[], contact: readonly Point[] | null): number {
  if (!contact || contact.length < 2) return 0;
  const line = contact.map(flow.to);
  let max = 0;
  for (const [x, y] of outlines.flat()) {
    const { along, across } = flow.to({ x, y });
    for (let i = 0; i + 1 < line.length; i++) {
      const [p, q] = [line[i]!, line[i + 1]!];
      const t = (across - p.across) / (q.across - p.across);
      if (!(t >= 0 && t <= 1)) continue;
      max = Math.max(max, along - (p.along + (q.along - p.along) * t));
    }
  }
  return Math.min(0.95, max);
}

/** Settings of the warp: how far back it reaches (1 to where it left), how it is spread, how much of the area is kept, how it thins to its trail. */
export interface Stretching {
  readonly amount: number;
  readonly spread: number;
  readonly volume: number;
  readonly thins: number;
}

/** The warp of a silhouette along a way. */
export function warpOf(scene: Pick<SmearScene, 'flow' | 'arrived' | 'contact'>, settings: Stretching): Warp {
  const { flow, arrived, contact } = scene;
  const { amount, spread, volume, thins } = settings;
  const size = Math.sqrt(Math.max(1, arrived.area));
  const points = denser(arrived.outlines, Math.max(2, size / 24)).map((outline) =>
    outline.map(([x, y]) => flow.to({ x, y })),
  );
  // A line's middle goes as far as it did, however wide the line is.
  const alongs = arrived.drawnBy.map(([x, y]) => flow.to({ x, y }).along);
  const [trailing, leading] = alongs.reduce(([a, b], v) => [Math.min(a, v), Math.max(b, v)], [Infinity, -Infinity]);
  const extent = Math.max(1e-6, leading - trailing);
  const stopped = beyondContact(flow, arrived.outlines, contact);
  // 1 is even; above, most of the form stays in front and a tail is drawn out of it.
  const power = Math.pow(2, spread);
  const reach = Math.max(0, amount - stopped);
  // Math.pow takes three times as long, and half of a stretch.
  const shift = (u: number) => -stopped - (u < 1 ? reach * Math.exp(power * Math.log(1 - u)) : 0);
  const shareAt = (along: number) => Math.min(1, Math.max(0, (along - trailing) / extent));
  // What turns about a place within itself has no breadth to be squeezed: its reach from that place is its form.
  const pivots = flow.about !== null && points.flat().some(({ across }) => reachLeft(flow, across) < 0.25);
  const narrowed = (u: number, squeeze: number) => squeeze * (1 - thins * (1 - u) * Math.sqrt(1 - u));
  const areaAt = (squeeze: number) =>
    polygonsArea(
      points.map((outline) =>
        outline.map(({ along, across }): Pair => {
          const u = shareAt(along);
          const p = flow.from(along + shift(u), across * narrowed(u, squeeze));
          return [p.x, p.y];
        }),
      ),
    );
  const wanted = Math.max(1e-6, arrived.area);
  const kept =
    pivots || areaAt(THINNEST) >= wanted ? (pivots ? 1 : THINNEST) : bisected(THINNEST, 1, (s) => areaAt(s) > wanted);
  const squeeze = 1 + (kept - 1) * volume;
  return {
    map: (point) => {
      const { along, across } = flow.to(point);
      const u = shareAt(along);
      return flow.from(along + shift(u), across * narrowed(u, squeeze));
    },
    squeeze,
    grown: areaAt(squeeze) / wanted,
    trailing,
    leading,
  };
}

/** How much of the radius is left at a distance beside an arc. */
function reachLeft(flow: Flow, across: number): number {
  const radius = flow.length / Math.max(1e-6, Math.abs(flow.turn));
  return (radius + (flow.turn > 0 ? -across : across)) / radius;
}

export const STRETCH: SmearKind = {
  form: 'stretch',
  name: 'Stretch',
  says: 'Drawn out from where it was to where it is',
  lies: () => 'in its place',
  controls: [
    control('amount', 'Amount', '%', [0, 120, 1], 80),
    control('spread', 'Drawn out behind', '%', [-100, 200, 5], 40),
    control('volume', 'Keeps its volume', '%', [0, 100, 5], 100),
    choice('keeps', 'What is seen', ['the form itself', 'a body it leaves'], 0),
    control('thins', 'Thins to its trail', '%', [0, 95, 5], 25, 'more'),
    control('line', 'Line thins too', '%', [0, 100, 5], 0, 'more'),
    control('hollow', 'Body: hollow', '%', [0, 90, 5], 0, 'more'),
    control('strands', 'Body: strands', '', [0, 9, 1], 0, 'more'),
    control('torn', 'Body: torn ends', '%', [0, 100, 5], 40, 'more'),
  ],
  draw: (scene, newId) => {
    const { settings, layers, rigid } = scene;
    if (scene.arrived.area === 0 || scene.flow.length < 1) return NOTHING_SMEARED;
    if (settings['keeps'] === 1) return leftBody(scene, newId);
    const warp = warpOf(scene, stretchingOf(settings));
    const thin = 1 - (settings['line']! / 100) * (1 - warp.squeeze);
    const own = layers.map(({ layerId, after }): [string, Mark[]] => [
      layerId,
      after.map((mark) => ({ ...(rigid.has(mark.id) ? mark : warpedMark(mark, warp, thin)), id: newId() })),
    ]);
    return { own: new Map(own), behind: [] };
  },
};

/** The warp's part of the settings. */
export const stretchingOf = (settings: Readonly<Record<string, number>>): Stretching => ({
  amount: settings['amount']! / 100,
  spread: settings['spread']! / 100,
  volume: settings['volume']! / 100,
  thins: settings['thins']! / 100,
});
