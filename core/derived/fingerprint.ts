/** Fingerprints: of a drawing's marks with their paint, of their outlines alone, and of a path. */
import { marksInOrder } from '../document/index.ts';
import type { Drawing, Mark, Path } from '../document/index.ts';

type Marks = Pick<Drawing, 'marks' | 'order'>;

function printColumn(hash: number, column: Float32Array): number {
  const words = new Uint32Array(column.buffer, column.byteOffset, column.length);
  let h = hash;
  for (const word of words) h = Math.imul(h ^ word, 0x01000193) ^ (h >>> 15);
  return h;
}

function printText(hash: number, text: string): number {
  let h = hash;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h;
}

function printMark(hash: number, mark: Mark, painted: boolean): number {
  let h = printText(hash, mark.kind);
  if (mark.kind === 'shape') {
    h = printText(h, painted ? `${mark.swatch} ${mark.opacity} ${mark.rule}` : mark.rule);
    for (const ring of mark.rings) h = printColumn(h, ring);
    return h;
  }
  if (painted) h = printText(h, mark.kind === 'stroke' ? mark.swatch : '');
  h = printText(h, `${mark.brush.width} ${mark.brush.opacity}`);
  for (const column of [mark.samples.x, mark.samples.y, mark.samples.pressure]) h = printColumn(h, column);
  return h;
}

/** FNV-1a over words, from two seeds. */
function printMarks(marks: Iterable<Mark>, painted: boolean): string {
  let [a, b] = [0x811c9dc5, 0x2f0b4c27];
  for (const mark of marks) [a, b] = [printMark(a, mark, painted), printMark(b, mark, painted)];
  return [a, b].map((h) => (h >>> 0).toString(16).padStart(8, '0')).join('');
}

/** Drawings never change, so their fingerprints are worked out once. */
const known = { painted: new WeakMap<Marks, string>(), bare: new WeakMap<Marks, string>() };

function kept(drawing: Marks, painted: boolean): string {
  const map = painted ? known.painted : known.bare;
  const print = map.get(drawing) ?? printMarks(marksInOrder(drawing), painted);
  map.set(drawing, print);
  return print;
}

/** A short text that changes whenever a mark of the drawing does, or its paint. */
export const fingerprintOf = (drawing: Marks): string => kept(drawing, true);

/** A short text that changes whenever an outline or line of some drawings does, whatever their paint. */
export function outlinesOf(drawings: readonly Marks[]): string {
  if (drawings.length === 1) return kept(drawings[0]!, false);
  let h = 0x811c9dc5;
  for (const drawing of drawings) h = printText(h, kept(drawing, false));
  return (h >>> 0).toString(16).padStart(8, '0');
}

/** The same for one mark. */
export const outlineOf = (mark: Mark): string => printMarks([mark], false);

const textOf = (hash: number): string => (hash >>> 0).toString(16).padStart(8, '0');

/** A short text that changes whenever a longer one does. */
export const textFingerprint = (text: string): string => textOf(printText(0x811c9dc5, text));

/** A short text that changes whenever the way a path goes does. */
export const wayFingerprint = ({ nodes, closed }: Pick<Path, 'nodes' | 'closed'>): string =>
  textOf(printText(printColumn(0x811c9dc5, nodes), String(closed)));

/** A short text that changes whenever the way a path goes does, or its ticks, or what is seen on them. */
export function pathFingerprint(path: Path): string {
  const { from, ticks, hold, softStart, softEnd, slows, perspective, placed, standIn } = path;
  const { shape, ...form } = standIn;
  const slow = slows.map(({ at, width, amount }) => [at, width, amount]);
  const told = [wayFingerprint(path), from, ticks, hold, softStart, softEnd, slow, perspective, placed, form];
  return textOf(printColumn(printText(0x811c9dc5, JSON.stringify(told)), shape ?? new Float32Array()));
}
