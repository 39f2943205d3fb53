/** Laying: every drawing of a starter, with pieces left out that live too short to be read. */
import { ringBox, ringPoints, type Box, doubleAreaOf } from '../geometry/index.ts';
import type { Ring } from '../document/index.ts';
import { isLine, type LaidFrame, type LaidMark, type Scene, type StarterKind } from './starter.ts';

/** Drawings a piece must live to be read. */
const SHORTEST_LIFE = 3;

interface Piece {
  readonly ring: Ring;
  readonly box: Box;
  readonly size: number;
  /** The longest run of drawings it is part of, filled in as they are linked. */
  life: number;
}

const near = (a: Box, b: Box, air: number): boolean =>
  a.left - air < b.right && b.left - air < a.right && a.top - air < b.bottom && b.top - air < a.bottom;

const areaOf = (ring: Ring): number => Math.abs(doubleAreaOf(ringPoints(ring, 4))) / 2;

/**
 * Marks how long the pieces of successive drawings live: a piece goes on in a piece of the next drawing that
 * lies on or beside it. What goes on in, or comes from, a piece that lives long enough, lives long enough.
 */
function live(drawings: readonly Piece[][], cycle: boolean): void {
  const count = drawings.length;
  const follows = (a: Piece, b: Piece) => near(a.box, b.box, 0.7 * Math.sqrt(Math.min(a.size, b.size)));
  // Forward then backward, twice round on a cycle: the longest chain through each piece.
  const forward = new Map<Piece, number>();
  const backward = new Map<Piece, number>();
  const turns = cycle ? 2 : 1;
  for (let step = 0; step < count * turns; step++) {
    const i = step % count;
    const before = step === 0 && !cycle ? [] : (drawings[(i - 1 + count) % count] ?? []);
    for (const piece of drawings[i]!) {
      const from =
        step === 0 ? 0 : Math.max(0, ...before.filter((b) => follows(b, piece)).map((b) => forward.get(b) ?? 0));
      forward.set(piece, Math.min(count, from + 1));
    }
    const j = count - 1 - i;
    const after = step === 0 && !cycle ? [] : (drawings[(j + 1) % count] ?? []);
    for (const piece of drawings[j]!) {
      const on =
        step === 0 ? 0 : Math.max(0, ...after.filter((a) => follows(piece, a)).map((a) => backward.get(a) ?? 0));
      backward.set(piece, Math.min(count, on + 1));
    }
  }
  for (const piece of drawings.flat()) piece.life = forward.get(piece)! + backward.get(piece)! - 1;
}

/** Leaves out of one paint of one output whatever lives under three drawings. */
function withoutPops(frames: readonly LaidFrame[], output: string, paint: string, cycle: boolean): Set<Ring> {
  const drawings = frames.map((frame) =>
    (frame[output] ?? []).flatMap((mark) =>
      isLine(mark) || mark.paint !== paint
        ? []
        : mark.rings.map((ring): Piece => ({ ring, box: ringBox(ring), size: areaOf(ring), life: 0 })),
    ),
  );
  live(drawings, cycle);
  return new Set(drawings.flat().flatMap(({ ring, life }) => (life < SHORTEST_LIFE ? [ring] : [])));
}

/**
 * Lays every drawing of a scene. Lines drawn along an area that is left out go with it.
 * @param onStep told after each drawing how many are done; returning false stops, and null is returned.
 */
export function layAll(
  kind: StarterKind,
  scene: Scene,
  onStep: (done: number) => boolean = () => true,
): LaidFrame[] | null {
  const frames: LaidFrame[] = [];
  for (let i = 0; i < scene.starts.length; i++) {
    frames.push(kind.draw(scene, i));
    if (!onStep(i + 1)) return null;
  }
  return readable(kind, frames, scene.cycle);
}

/** The drawings without pieces that would only flash up. */
export function readable(kind: Pick<StarterKind, 'pieces'>, frames: readonly LaidFrame[], cycle: boolean): LaidFrame[] {
  if (!kind.pieces || frames.length < SHORTEST_LIFE) return [...frames];
  const gone = new Set<Ring>();
  for (const output of kind.pieces) {
    const paints = new Set(frames.flatMap((f) => (f[output] ?? []).map((m) => m.paint)));
    for (const paint of paints) for (const ring of withoutPops(frames, output, paint, cycle)) gone.add(ring);
  }
  if (gone.size === 0) return [...frames];
  const keep = (mark: LaidMark): LaidMark[] => {
    if (isLine(mark)) return mark.along && gone.has(mark.along) ? [] : [mark];
    const rings = mark.rings.filter((ring) => !gone.has(ring));
    return rings.length > 0 ? [{ ...mark, rings }] : [];
  };
  return frames.map((frame) =>
    Object.fromEntries(Object.entries(frame).map(([key, marks]) => [key, marks.flatMap(keep)])),
  );
}
