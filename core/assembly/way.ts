/** Where a path takes what goes along it: from tick to tick, turned with it. */
import type { Path } from '../document/index.ts';
import { ticksOf, wayOf, type Spot } from '../plan/index.ts';

/** The spots of a path's ticks; a path does not change once it is there. */
const known = new WeakMap<Path, readonly Spot[]>();

function spotsOf(path: Path): readonly Spot[] {
  const kept = known.get(path);
  if (kept) return kept;
  const way = wayOf(path);
  const spots = ticksOf(path).map((share) => way.at(share));
  known.set(path, spots);
  return spots;
}

/**
 * Where on a path something is, and how far it has turned since the first tick, radians.
 * @param since frames since it began; it stands on its first tick until the path's first frame, and on the last one after it.
 */
export function onWay(path: Path, since: number): { readonly x: number; readonly y: number; readonly angle: number } {
  const spots = spotsOf(path);
  const tick = Math.min(spots.length - 1, Math.max(0, Math.floor((since - path.from) / path.hold)));
  const [first, here] = [spots[0]!, spots[tick]!];
  const angle = Math.atan2(first.dx * here.dy - first.dy * here.dx, first.dx * here.dx + first.dy * here.dy);
  return { x: here.x, y: here.y, angle };
}
