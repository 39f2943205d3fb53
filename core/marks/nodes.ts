/** Nodes of shapes put in and taken away. */
import type { Ring } from '../document/index.ts';

type Pair = readonly [number, number];
const middle = (p: Pair, q: Pair): Pair => [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];

/**
 * A ring with a node in the middle of the pieces that begin at some of its nodes; the curve stays as it is.
 * Method: de Casteljau's.
 */
export function withNodes(ring: Ring, after: readonly number[]): Ring {
  const nodes = Array.from({ length: ring.length / 6 }, (_, i) => [...ring.subarray(i * 6, i * 6 + 6)]);
  for (const i of [...new Set(after)].sort((a, b) => b - a)) {
    const [a, b] = [nodes[i]!, nodes[(i + 1) % nodes.length]!];
    const pair = (node: readonly number[], at: number): Pair => [node[at]!, node[at + 1]!];
    const [ab, bc, cd] = [
      middle(pair(a, 0), pair(a, 4)),
      middle(pair(a, 4), pair(b, 2)),
      middle(pair(b, 2), pair(b, 0)),
    ];
    const [into, out] = [middle(ab, bc), middle(bc, cd)];
    a.splice(4, 2, ...ab);
    b.splice(2, 2, ...cd);
    nodes.splice(i + 1, 0, [...middle(into, out), ...into, ...out]);
  }
  return Float32Array.from(nodes.flat());
}

/** A ring without some nodes; one that would keep fewer than three stays as it is. */
export function withoutNodes(ring: Ring, gone: readonly number[]): Ring {
  const left = Array.from({ length: ring.length / 6 }, (_, i) => i).filter((i) => !gone.includes(i));
  return left.length < 3 ? ring : Float32Array.from(left.flatMap((i) => [...ring.subarray(i * 6, i * 6 + 6)]));
}
