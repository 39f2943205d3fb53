/** The separate pieces of one shape: each outer ring with the holes that lie in it. */
import type { Ring, Shape } from '../document/index.ts';
import type { Point } from '../geometry/index.ts';
import { isInside, doubleAreaOf } from '../geometry/index.ts';
import { ringWalk } from './outline.ts';

interface Known {
  readonly ring: Ring;
  readonly points: readonly Point[];
  readonly size: number;
}

const known = new WeakMap<Shape, readonly Shape[]>();

/**
 * A shape's pieces as shapes of their own, the largest first; itself when it is one. Ids are made from the
 * shape's. Rings are distinguished by how many others they lie in.
 */
export function islandsOf(shape: Shape): readonly Shape[] {
  const kept = known.get(shape);
  if (kept) return kept;
  const rings = shape.rings
    .map((ring): Known => {
      const { points } = ringWalk(ring);
      return { ring, points, size: Math.abs(doubleAreaOf(points)) };
    })
    .sort((a, b) => b.size - a.size);
  const groups: { outer: Known; rings: Ring[] }[] = [];
  rings.forEach((each, i) => {
    const around = rings.slice(0, i).filter((other) => isInside(other.points, each.points[0]!));
    const host = around.length % 2 === 1 ? groups.findLast(({ outer }) => outer === around.at(-1)) : undefined;
    if (host) host.rings.push(each.ring);
    else groups.push({ outer: each, rings: [each.ring] });
  });
  const islands =
    groups.length < 2
      ? [shape]
      : groups.map(({ rings: own }, i): Shape => ({ ...shape, id: `${shape.id}/${i}`, rings: own }));
  known.set(shape, islands);
  return islands;
}
