/** Ink: a solid line as wide as the pen is pressed, each chunk one filled path. */
import type { BrushSettings, Samples } from '../document/index.ts';
import type { PathSink } from '../canvas/index.ts';
import { walkChunk } from './walk.ts';

/** A bend of more than about 20 degrees gets a round joint of its own. */
const SMOOTH = 0.94;

interface Step {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}
/** From one step to the next: its unit normal and its length. */
interface Band {
  readonly nx: number;
  readonly ny: number;
  readonly length: number;
}

function bandBetween(a: Step, b: Step): Band | null {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const length = Math.sqrt(dx * dx + dy * dy);
  return length > 0 ? { nx: -dy / length, ny: dx / length, length } : null;
}

/** Whether two bands can share their corners: the bend is slight, and so short that neither folds over. */
function joinsSmoothly(before: Band, after: Band, radius: number): boolean {
  const cosine = before.nx * after.nx + before.ny * after.ny;
  const sine = Math.abs(before.nx * after.ny - before.ny * after.nx);
  return cosine > SMOOTH && Math.min(before.length, after.length) > radius * sine;
}

function disc(path: PathSink, { x, y, r }: Step): void {
  path.moveTo(x + r, y);
  path.arc(x, y, r, 0, 2 * Math.PI);
}

/** One outline round a row of smoothly joined bands. `normals` holds one normal per step. */
function ribbon(path: PathSink, steps: readonly Step[], normals: readonly Band[]): void {
  steps.forEach(({ x, y, r }, i) => {
    const { nx, ny } = normals[i]!;
    if (i === 0) path.moveTo(x - nx * r, y - ny * r);
    else path.lineTo(x - nx * r, y - ny * r);
  });
  for (let i = steps.length - 1; i >= 0; i--) {
    const { x, y, r } = steps[i]!;
    const { nx, ny } = normals[i]!;
    path.lineTo(x + nx * r, y + ny * r);
  }
}

function between(a: Band, b: Band): Band {
  const [nx, ny] = [a.nx + b.nx, a.ny + b.ny];
  const size = Math.sqrt(nx * nx + ny * ny);
  return { nx: nx / size, ny: ny / size, length: 0 };
}

/**
 * Adds one chunk to a path, in element space: ribbons along the curve with round ends and joints,
 * all turning the same way, to be filled by the non-zero rule.
 */
export function inkChunk(path: PathSink, samples: Samples, brush: BrushSettings, chunk: number): void {
  let row: Step[] = [];
  let normals: Band[] = [];
  let last: Step | null = null;
  let band: Band | null = null;
  const finish = () => {
    if (last && band) ribbon(path, [...row, last], [...normals, band]);
  };
  walkChunk(samples, brush, chunk, (x, y, r) => {
    const step: Step = { x, y, r };
    const next = last && bandBetween(last, step);
    if (!last || !next) {
      disc(path, step);
      last ??= step;
      return;
    }
    if (band && joinsSmoothly(band, next, last.r)) {
      row.push(last);
      normals.push(between(band, next));
    } else {
      finish();
      if (band) disc(path, last);
      row = [last];
      normals = [next];
    }
    last = step;
    band = next;
  });
  finish();
  if (last && band) disc(path, last);
}
