/** Ink: a solid line as wide as the pen is pressed, each chunk one filled path. */
import type { BrushSettings, Samples } from '../document/index.ts';
import type { PathSink } from '../canvas/index.ts';
import { walkChunk } from './walk.ts';

/** A bend of more than about 20 degrees gets a round joint of its own. */
const SMOOTH = 0.94;

/**
 * The row of steps that one outline runs around, each with its place, half its width and its normal: numbers in arrays that are
 * used again, as a stroke takes thousands of steps.
 */
class Row {
  private room = 256;
  private x = new Float64Array(this.room);
  private y = new Float64Array(this.room);
  private r = new Float64Array(this.room);
  private nx = new Float64Array(this.room);
  private ny = new Float64Array(this.room);
  private count = 0;

  begin(): void {
    this.count = 0;
  }

  add(x: number, y: number, r: number, nx: number, ny: number): void {
    if (this.count === this.room) this.grow();
    const at = this.count++;
    this.x[at] = x;
    this.y[at] = y;
    this.r[at] = r;
    this.nx[at] = nx;
    this.ny[at] = ny;
  }

  /** One outline round the smoothly joined bands. */
  outline(path: PathSink): void {
    const { x, y, r, nx, ny, count } = this;
    path.moveTo(x[0]! - nx[0]! * r[0]!, y[0]! - ny[0]! * r[0]!);
    for (let i = 1; i < count; i++) path.lineTo(x[i]! - nx[i]! * r[i]!, y[i]! - ny[i]! * r[i]!);
    for (let i = count - 1; i >= 0; i--) path.lineTo(x[i]! + nx[i]! * r[i]!, y[i]! + ny[i]! * r[i]!);
  }

  private grow(): void {
    this.room *= 2;
    const grown = (before: Float64Array): Float64Array<ArrayBuffer> => {
      const next = new Float64Array(this.room);
      next.set(before);
      return next;
    };
    this.x = grown(this.x);
    this.y = grown(this.y);
    this.r = grown(this.r);
    this.nx = grown(this.nx);
    this.ny = grown(this.ny);
  }
}

const row = new Row();

function disc(path: PathSink, x: number, y: number, r: number): void {
  path.moveTo(x + r, y);
  path.arc(x, y, r, 0, 2 * Math.PI);
}

/**
 * Adds one chunk to a path, in element space: ribbons along the curve with round ends and joints,
 * all turning the same way, to be filled by the non-zero rule.
 */
export function inkChunk(path: PathSink, samples: Samples, brush: BrushSettings, chunk: number): void {
  let hasBegun = false;
  /** The last step, and the band that leads to it: its unit normal and its length, 0 before there is one. */
  let lastX = 0;
  let lastY = 0;
  let lastR = 0;
  let bandX = 0;
  let bandY = 0;
  let bandLength = 0;
  const finish = (): void => {
    if (bandLength === 0) return;
    row.add(lastX, lastY, lastR, bandX, bandY);
    row.outline(path);
  };
  row.begin();
  walkChunk(samples, brush, chunk, (x, y, r) => {
    const dx = x - lastX;
    const dy = y - lastY;
    const length = hasBegun ? Math.sqrt(dx * dx + dy * dy) : 0;
    if (!(length > 0)) {
      disc(path, x, y, r);
      if (hasBegun) return;
      hasBegun = true;
      lastX = x;
      lastY = y;
      lastR = r;
      return;
    }
    const nx = -dy / length;
    const ny = dx / length;
    const cosine = bandX * nx + bandY * ny;
    const sine = Math.abs(bandX * ny - bandY * nx);
    // Two bands share their corners where the bend is slight, and so short that neither folds over.
    if (bandLength > 0 && cosine > SMOOTH && Math.min(bandLength, length) > lastR * sine) {
      const mx = bandX + nx;
      const my = bandY + ny;
      const size = Math.sqrt(mx * mx + my * my);
      row.add(lastX, lastY, lastR, mx / size, my / size);
    } else {
      finish();
      if (bandLength > 0) disc(path, lastX, lastY, lastR);
      row.begin();
      row.add(lastX, lastY, lastR, nx, ny);
    }
    lastX = x;
    lastY = y;
    lastR = r;
    bandX = nx;
    bandY = ny;
    bandLength = length;
  });
  finish();
  if (bandLength > 0) disc(path, lastX, lastY, lastR);
}
