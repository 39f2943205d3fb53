/** A fingerprint of a drawing's marks. */
import type { Drawing, Mark } from '../document/index.ts';

function printColumn(hash: number, column: Float32Array): number {
  const words = new Uint32Array(column.buffer, column.byteOffset, column.length);
  let h = hash;
  for (const word of words) h = Math.imul(h ^ word, 0x01000193) ^ (h >>> 15);
  return h;
}

/** Drawings never change, so their prints are worked out once. */
const known = new WeakMap<Pick<Drawing, 'marks' | 'order'>, string>();

/** A short text that changes whenever a mark of the drawing does: FNV-1a over words, from two seeds. */
export function printOf(drawing: Pick<Drawing, 'marks' | 'order'>): string {
  const print = known.get(drawing) ?? workedOut(drawing);
  known.set(drawing, print);
  return print;
}

function workedOut(drawing: Pick<Drawing, 'marks' | 'order'>): string {
  const from = (seed: number): string => {
    let h = seed;
    const text = (value: string) => {
      for (let i = 0; i < value.length; i++) h = Math.imul(h ^ value.charCodeAt(i), 0x01000193);
    };
    for (const id of drawing.order) {
      const mark: Mark = drawing.marks[id]!;
      text(mark.kind);
      if (mark.kind === 'shape') {
        text(`${mark.swatch} ${mark.opacity} ${mark.rule}`);
        for (const ring of mark.rings) h = printColumn(h, ring);
      } else {
        text(mark.kind === 'stroke' ? mark.swatch : '');
        text(`${mark.brush.width} ${mark.brush.opacity}`);
        for (const column of [mark.samples.x, mark.samples.y, mark.samples.pressure]) h = printColumn(h, column);
      }
    }
    return (h >>> 0).toString(16).padStart(8, '0');
  };
  return from(0x811c9dc5) + from(0x2f0b4c27);
}
