/**
 * Ink: a solid line as wide as the pen is pressed. A stroke is drawn as fixed chunks of samples,
 * each one filled path; live, settled and exported strokes are all drawn by `inkChunk`, which is
 * what makes them equal to the pixel.
 */
import type { BrushSettings, Samples } from '../document/index.ts';
import type { Box } from '../geometry/index.ts';

/** Samples per chunk; neighbouring chunks share the sample between them. */
export const CHUNK = 32;
/** The share of the width that the lightest touch leaves. */
const LIGHTEST = 0.1;

/** What a path can be built on: a canvas context or a Path2D. */
export interface PathSink {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  arc(x: number, y: number, radius: number, from: number, to: number): void;
  closePath(): void;
}

/** Half the width at a pressure of 0 to 1, px of element space. */
export const inkRadius = (brush: BrushSettings, pressure: number): number =>
  (brush.width / 2) * (brush.pressure ? LIGHTEST + (1 - LIGHTEST) * pressure : 1);

/** How many chunks a stroke of so many samples has; at least one. */
export const chunkCount = (samples: number): number => Math.max(1, Math.ceil((samples - 1) / CHUNK));

/** The first chunk that a sample at this index can still change. A chunk reaches one sample past its end for its curve. */
export const firstOpenChunk = (settledSamples: number): number => Math.max(0, Math.floor((settledSamples - 2) / CHUNK));

type Visit = (x: number, y: number, radius: number) => void;

/**
 * Walks the curve of one piece, from sample i to i+1, without its first point. A Catmull-Rom curve
 * whose handles are never longer than half the piece, so that uneven sampling makes no loops.
 */
function walkPiece({ x, y, pressure }: Samples, brush: BrushSettings, i: number, visit: Visit): void {
  const last = x.length - 1;
  const x1 = x[i]!;
  const y1 = y[i]!;
  const x2 = x[i + 1]!;
  const y2 = y[i + 1]!;
  const before = Math.max(0, i - 1);
  const after = Math.min(last, i + 2);
  const length = Math.sqrt((x2 - x1) * (x2 - x1) + (y2 - y1) * (y2 - y1));
  const handle = (dx: number, dy: number) => {
    const size = Math.sqrt(dx * dx + dy * dy) / 6;
    const factor = size > length / 2 ? length / 2 / size / 6 : 1 / 6;
    return { x: dx * factor, y: dy * factor };
  };
  const out = handle(x2 - x[before]!, y2 - y[before]!);
  const into = handle(x[after]! - x1, y[after]! - y1);
  const r1 = inkRadius(brush, pressure[i]!);
  const r2 = inkRadius(brush, pressure[i + 1]!);
  const step = Math.min(4, Math.max(1, Math.min(r1, r2) * 0.6));
  const steps = Math.min(64, Math.max(1, Math.ceil(length / step)));
  for (let s = 1; s <= steps; s++) {
    const t = s / steps;
    const u = 1 - t;
    const b0 = u * u * u;
    const b1 = 3 * u * u * t;
    const b2 = 3 * u * t * t;
    const b3 = t * t * t;
    visit(
      b0 * x1 + b1 * (x1 + out.x) + b2 * (x2 - into.x) + b3 * x2,
      b0 * y1 + b1 * (y1 + out.y) + b2 * (y2 - into.y) + b3 * y2,
      u * r1 + t * r2,
    );
  }
}

function walkChunk(samples: Samples, brush: BrushSettings, chunk: number, visit: Visit): void {
  const first = chunk * CHUNK;
  const last = Math.min(samples.x.length - 1, first + CHUNK);
  visit(samples.x[first]!, samples.y[first]!, inkRadius(brush, samples.pressure[first]!));
  for (let i = first; i < last; i++) walkPiece(samples, brush, i, visit);
}

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
  path.closePath();
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
  path.closePath();
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

/** The box one chunk covers, element space. */
export function inkChunkBox(samples: Samples, brush: BrushSettings, chunk: number): Box {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  walkChunk(samples, brush, chunk, (x, y, r) => {
    left = Math.min(left, x - r);
    right = Math.max(right, x + r);
    top = Math.min(top, y - r);
    bottom = Math.max(bottom, y + r);
  });
  return { left, top, right, bottom };
}

/** Points of the stroke's middle line, element space. */
export function middleLine(samples: Samples, brush: BrushSettings): { x: number; y: number }[] {
  const points: { x: number; y: number }[] = [];
  for (let chunk = 0; chunk < chunkCount(samples.x.length); chunk++) {
    walkChunk(samples, brush, chunk, (x, y) => {
      points.push({ x, y });
    });
  }
  return points;
}
