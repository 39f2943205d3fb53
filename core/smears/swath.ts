/**
 * Swath: the area that a swung thing sweeps. Its tip and its root are followed through the drawings on the arcs they go; the area
 * between them is filled, whole, from the old tip alone, or bitten away from behind to a crescent that is gone some drawings later.
 */
import { powerOf, similarityBetween } from '../between/index.ts';
import { choice, control } from '../controls/index.ts';
import type { Mark, NewId, Shape } from '../document/index.ts';
import { apply, fitRing, mix, partBetween, seek, type Pair, type Point } from '../geometry/index.ts';
import { NOTHING_SMEARED, type SmearKind, type SmearScene, type Stop } from './scene.ts';

/** Places on the way between two drawings. */
const STEPS = 24;
/** px the outline may leave the arcs. */
const TOLERANCE = 0.1;

/** A place of the swing: where tip and root are. */
export interface SwingBar {
  readonly tip: Point;
  readonly root: Point;
}

/** Tip and root on the way between two drawings: turned and scaled as the bar between them is, so that both go their arcs. @param share 0 to 1. */
export function barAt(from: SwingBar, to: SwingBar, share: number): SwingBar {
  if (share === 0) return from;
  if (share === 1) return to;
  const move = powerOf(similarityBetween([from.root, from.tip], [to.root, to.tip]), share);
  const back = powerOf(similarityBetween([from.root, from.tip], [to.root, to.tip]), share - 1);
  const meet = (a: Point, b: Point): Point => ({ x: mix(a.x, b.x, share), y: mix(a.y, b.y, share) });
  return {
    tip: meet(apply(move, from.tip), apply(back, to.tip)),
    root: meet(apply(move, from.root), apply(back, to.root)),
  };
}

/** The bars of a swing from its first drawing to its last, evenly in each step. */
const barsOf = (stops: readonly SwingBar[]): SwingBar[] =>
  stops.flatMap((stop, i) => {
    const next = stops[i + 1];
    return next ? Array.from({ length: STEPS }, (_, k) => barAt(stop, next, k / STEPS)) : [stop];
  });

/** The bar at a place between the bars, which are evenly spaced in time. */
function barBetween(bars: readonly SwingBar[], at: number): SwingBar {
  const i = Math.min(bars.length - 2, Math.max(0, Math.floor(at)));
  const t = Math.min(1, Math.max(0, at - i));
  const [a, b] = [bars[i]!, bars[i + 1]!];
  const point = (p: Point, q: Point): Point => ({ x: mix(p.x, q.x, t), y: mix(p.y, q.y, t) });
  return { tip: point(a.tip, b.tip), root: point(a.root, b.root) };
}

/** How a swath is cut. */
export interface SwathForm {
  readonly from: 'all of it' | 'the old tip';
  /** How much of the time is gone from behind: at the tip, and at the root, where it is gone first; 0 to 1. */
  readonly tipGone: number;
  readonly rootGone: number;
}

/** The outline of a swath; none where it is gone. */
export function swathOutline(stops: readonly SwingBar[], form: SwathForm): Pair[] {
  const bars = barsOf(stops);
  const last = bars.length - 1;
  const [tipFrom, rootFrom] = [form.tipGone * last, form.rootGone * last];
  if (tipFrom >= last - 1e-6) return [];
  const count = 40 * Math.max(1, stops.length - 1);
  const along = (from: number) => Array.from({ length: count + 1 }, (_, k) => from + ((last - from) * k) / count);
  const tips = along(tipFrom).map((at) => barBetween(bars, at).tip);
  const start = barBetween(bars, tipFrom).tip;
  const roots = along(rootFrom).map((at): Point => {
    const bar = barBetween(bars, at);
    if (form.from === 'all of it') return bar.root;
    // From the old tip alone: the root's side opens from there.
    const open = rootFrom >= last ? 1 : (at - rootFrom) / (last - rootFrom);
    const eased = Math.sin((open * Math.PI) / 2);
    return { x: mix(start.x, bar.root.x, eased), y: mix(start.y, bar.root.y, eased) };
  });
  // The end behind: bitten, it is hollow, led in from the tip to the root by how both lag.
  const behind =
    form.from === 'all of it'
      ? Array.from({ length: 15 }, (_, k): Point => {
          const t = (k + 1) / 16;
          const bar = barBetween(bars, mix(rootFrom, tipFrom, t * t));
          return { x: mix(bar.root.x, bar.tip.x, t), y: mix(bar.root.y, bar.tip.y, t) };
        })
      : [];
  return [...tips, ...roots.reverse(), ...behind].map(({ x, y }): Pair => [x, y]);
}

/** Where a crescent that was let go is, and which way it flies. */
interface Flight {
  readonly at: Point;
  /** Unit vector. */
  readonly way: Point;
}

/** Straight on the way its tip went. @param far px from where it was let go. */
function flightOn([before, last]: readonly [Stop, Stop], from: Point): (far: number) => Flight {
  const [dx, dy] = [last.tip.x - before.tip.x, last.tip.y - before.tip.y];
  // The way the tip goes at the end is across the bar, not along the chord.
  const [bx, by] = [last.tip.x - last.root.x, last.tip.y - last.root.y];
  const size = Math.hypot(bx, by) || 1;
  const side = Math.sign(dx * -by + dy * bx) || 1;
  const way = { x: (-by / size) * side, y: (bx / size) * side };
  return (far) => ({ at: { x: from.x + way.x * far, y: from.y + way.y * far }, way });
}

/** px of a path over which its direction is felt. */
const FELT = 4;

/** Along a path, taken to where it is let go: from the place of the path nearest to there; past its end straight on. */
function flightAlong(line: readonly Point[], from: Point): (far: number) => Flight {
  const way = partBetween(line, from, line.at(-1)!);
  const spot = (run: number): Point => {
    const { at, share } = seek(way, Math.min(way.length, Math.max(0, run)));
    const [p, q] = [way.points[at]!, way.points[at + 1] ?? way.points[at]!];
    return { x: mix(p.x, q.x, share), y: mix(p.y, q.y, share) };
  };
  const start = spot(0);
  return (far) => {
    const run = Math.min(far, Math.max(0, way.length - FELT));
    const [p, q] = [spot(run), spot(run + FELT)];
    const size = Math.hypot(q.x - p.x, q.y - p.y) || 1;
    const along = { x: (q.x - p.x) / size, y: (q.y - p.y) / size };
    const over = far - run;
    return {
      at: { x: from.x + p.x - start.x + along.x * over, y: from.y + p.y - start.y + along.y * over },
      way: along,
    };
  };
}

/** A crescent let go: moved on at the speed of its tip, turned as its way turns. @param gone drawings since, from 1. @param thins below 0 it grows. */
function letGo(
  stops: readonly Stop[],
  line: readonly Point[] | null,
  outline: readonly Pair[],
  gone: number,
  thins: number,
): Pair[] {
  const [before, last] = [stops.at(-2)!, stops.at(-1)!];
  const speed = Math.hypot(last.tip.x - before.tip.x, last.tip.y - before.tip.y) || 1;
  const [x, y] = outline.reduce(([a, b], p) => [a + p[0] / outline.length, b + p[1] / outline.length], [0, 0]);
  const middle = { x, y };
  const flight = line && line.length > 1 ? flightAlong(line, middle) : flightOn([before, last], middle);
  const [u, { at, way: v }] = [flight(0).way, flight(speed * gone)];
  // It thins along its flight and keeps its breadth; growing, both grow.
  const along = Math.max(0.05, 1 - thins * gone);
  const aside = Math.max(1, along);
  return outline.map(([px, py]): Pair => {
    const [ox, oy] = [px - middle.x, py - middle.y];
    const run = (ox * u.x + oy * u.y) * along;
    const off = (oy * u.x - ox * u.y) * aside;
    return [at.x + v.x * run - v.y * off, at.y + v.y * run + v.x * off];
  });
}

const shapeOf = (outline: readonly Pair[], { swatch }: SmearScene, opacity: number, newId: NewId): Shape[] =>
  outline.length < 3
    ? []
    : [
        {
          kind: 'shape',
          id: newId(),
          swatch,
          rings: [
            fitRing(
              outline.map((p): Pair => [...p]),
              TOLERANCE,
            ),
          ],
          rule: 'nonzero',
          opacity,
        },
      ];

export const SWATH: SmearKind = {
  form: 'swath',
  name: 'Swath',
  says: 'What tip and root sweep between the drawings',
  lies: () => 'behind',
  controls: [
    choice('from', 'Filled', ['all of it', 'from the old tip'], 0),
    control('bite', 'Bitten from behind', '%', [0, 95, 5], 30),
    control('opacity', 'Opacity', '%', [5, 100, 5], 100),
    control('steps', 'Through the last', 'drawings', [1, 12, 1], 1, 'more'),
    control('lasts', 'Gone after', 'drawings', [0, 8, 1], 2, 'more'),
    choice('end', 'It then', ['is bitten away', 'flies on'], 0),
    control('thins', 'Flying, thins', '%', [-60, 60, 5], 25, 'more'),
  ],
  draw: (scene, newId) => {
    const { settings, stops, room } = scene;
    const own = stops.slice(-1 - settings['steps']!);
    if (
      own.length < 2 ||
      own.every(({ tip }, i) => i === 0 || Math.hypot(tip.x - own[i - 1]!.tip.x, tip.y - own[i - 1]!.tip.y) < 1)
    )
      return NOTHING_SMEARED;
    const bite = settings['bite']! / 100;
    const from = settings['from'] === 1 ? 'the old tip' : 'all of it';
    const opacity = settings['opacity']! / 100;
    const lasts = Math.min(room, settings['lasts']!);
    const outlineAt = (gone: number): Pair[] => {
      // The bite grows evenly until nothing is left; its root is ahead of its tip.
      const share = lasts === 0 ? 0 : gone / (lasts + 1);
      const tipGone = mix(0, 1, share);
      const rootGone = Math.min(1, mix(bite, 1, Math.min(1, share * 1.6)));
      return swathOutline(own, {
        from,
        tipGone,
        rootGone: from === 'all of it' ? Math.max(tipGone, rootGone) : tipGone,
      });
    };
    const behind = Array.from({ length: lasts + 1 }, (_, gone): Mark[] => {
      const outline =
        settings['end'] === 1 && gone > 0
          ? letGo(own, scene.line, outlineAt(0), gone, settings['thins']! / 100)
          : outlineAt(gone);
      return shapeOf(outline, scene, opacity, newId);
    });
    return { own: new Map(), behind };
  },
};
