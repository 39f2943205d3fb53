/**
 * The first pencil and the first grain: flecks strewn along a stroke, more of them the harder the pen is pressed. Where they lie hangs on
 * the stroke's seed and the sample they follow, and their size on the width: texture stays with its stroke,
 * whatever is drawn after it, moved or scaled.
 */
import type { BrushSettings, Samples } from '../document/index.ts';
import { hashFraction } from '../geometry/index.ts';
import { breadths, leanOf } from './breadth.ts';
import type { PathSink } from '../canvas/index.ts';
import { tipOf } from './tips.ts';
import { along, chunkEnds, pieceAt } from './walk.ts';

/** A full turn in twelve: flecks are turned by whole steps, so that no engine rounds them its own way. */
const TURN = Array.from({ length: 12 }, (_, i): [number, number] => [
  Math.cos((i * Math.PI) / 6),
  Math.sin((i * Math.PI) / 6),
]);

/** Adds an irregular fleck around a place. @param pick gives numbers from 0 to 1. */
function fleck(path: PathSink, x: number, y: number, size: number, corners: number, pick: () => number): void {
  const turn = Math.floor(pick() * 12);
  const stride = 12 / corners;
  for (let k = 0; k < corners; k++) {
    const [cos, sin] = TURN[(turn + k * stride) % 12]!;
    const far = size * (0.55 + 0.45 * pick());
    if (k === 0) path.moveTo(x + cos * far, y + sin * far);
    else path.lineTo(x + cos * far, y + sin * far);
  }
}

/** Adds the flecks of one chunk of a stroke to a path, element space, to be filled by the non-zero rule; none where its tip has none. */
export function fleckChunk(path: PathSink, samples: Samples, brush: BrushSettings, seed: number, chunk: number): void {
  const tip = tipOf(brush).flecks;
  if (!tip) return;
  const { density, sizes, corners, lightest } = tip;
  const [first, last] = chunkEnds(samples, brush, chunk);
  const half = breadths(samples, brush, first, last);
  const strewn = (i: number, amount: number, place: (t: number) => [number, number, number, number, number]) => {
    let turns = 0;
    const pick = () => hashFraction(seed, i, turns++);
    const count = Math.floor(amount + pick());
    for (let k = 0; k < count; k++) {
      const [x, y, radius, nx, ny] = place(pick());
      const aside = (2 * pick() - 1) * (0.78 + 0.32 * pick()) * radius;
      const small = pick();
      const size = (sizes[0] + (sizes[1] - sizes[0]) * small * small) * brush.width;
      // A tapered end has smaller flecks, or they would make it blunt.
      fleck(path, x + nx * aside, y + ny * aside, Math.min(size, radius * 0.5), corners, pick);
    }
  };
  const fullness = (i: number): number => {
    const pressed = brush.pressure ? samples.pressure[i]! : 1;
    // A pen lying flat spreads what it lays.
    const spread = 1 + (brush.tilt ?? 0) * leanOf(samples.altitude[i]!);
    return (density * (lightest + (1 - lightest) * pressed * (0.4 + 0.6 * pressed))) / spread;
  };
  if (first === last) {
    strewn(first, fullness(first), (t) => {
      const [cos, sin] = TURN[Math.floor(t * 12)]!;
      return [samples.x[first]!, samples.y[first]!, half[0]!, cos, sin];
    });
    return;
  }
  for (let i = first; i < last; i++) {
    const piece = pieceAt(samples, i);
    if (piece.length === 0) continue;
    const amount = (piece.length / brush.width) * ((fullness(i) + fullness(i + 1)) / 2);
    const [nx, ny] = [-(piece.y[3] - piece.y[0]) / piece.length, (piece.x[3] - piece.x[0]) / piece.length];
    strewn(i, Math.min(4000, amount), (t) => [
      along(piece.x, t),
      along(piece.y, t),
      (1 - t) * half[i - first]! + t * half[i + 1 - first]!,
      nx,
      ny,
    ]);
  }
}
