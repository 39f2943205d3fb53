/** What bounds regions, drawn from the lines of some drawings. */
import { marksInOrder } from '../document/index.ts';
import type { Drawing, Mark, Stroke } from '../document/index.ts';
import { EMPTY_BOX, multiply, union, type Box, type Matrix, type Point } from '../geometry/index.ts';
import type { Barrier, Lattice } from '../paint/index.ts';
import { drawDrawing, markBox } from './marks.ts';
import type { PaintOf } from './paint.ts';
import { layPicture } from './lay.ts';
import { Scratch, wipe, type MakeSurface } from '../canvas/index.ts';

/** How wide a line that closes a gap is, px of the lattice: so that no pixel of it is left open. */
const CLOSING = 1.75;
const CLOSING_COLOUR = '#808080';

/** Lines of one width along ways. */
function drawingOfWays(ways: readonly (readonly Point[])[], width: number): Drawing {
  const strokes = ways.map((way, i): Stroke => {
    const column = (of: (point: Point) => number) => Float32Array.from(way, of);
    return {
      kind: 'stroke',
      id: String(i),
      swatch: '',
      brush: { kind: 'ink', width, opacity: 1, pressure: false },
      seed: 0,
      samples: {
        x: column(({ x }) => x),
        y: column(({ y }) => y),
        pressure: column(() => 1),
        altitude: column(() => Math.PI / 2),
        azimuth: column(() => 0),
      },
    };
  });
  return {
    kind: 'drawing',
    id: '',
    order: strokes.map(({ id }) => id),
    marks: Object.fromEntries(strokes.map((stroke) => [stroke.id, stroke])),
  };
}

/** A drawing whose lines bound, and where it lies. */
interface Bounding {
  readonly drawing: Drawing;
  /** From its own space to that of the regions. */
  readonly matrix: Matrix;
  readonly paintOf: PaintOf;
}

const seen = (mark: Mark): Mark => {
  if (mark.kind !== 'stroke' || !mark.unseen) return mark;
  const shown = { ...mark };
  Reflect.deleteProperty(shown, 'unseen');
  return shown;
};

/** The lines of a drawing, those that are never seen on top of what rubs out. */
function linesOnly(drawing: Drawing): Drawing {
  const marks = marksInOrder(drawing).filter((mark) => mark.kind !== 'shape');
  const isUnseen = (mark: Mark) => mark.kind === 'stroke' && mark.unseen === true;
  const ordered = [...marks.filter((mark) => !isUnseen(mark)), ...marks.filter(isUnseen)].map(seen);
  return {
    ...drawing,
    order: ordered.map(({ id }) => id),
    marks: Object.fromEntries(ordered.map((mark) => [mark.id, mark])),
  };
}

/** The box around the lines of a drawing, its own space. */
export const linesBox = (drawing: Drawing): Box =>
  Object.values(linesOnly(drawing).marks).map(markBox).reduce(union, EMPTY_BOX);

/**
 * Draws a barrier on a lattice.
 * @param closings lines that close gaps, in the regions' space: as thin as holds.
 * @param frame px of the regions' space; where lines alone do not hold, the edge of the picture may bound too.
 */
export function drawBarrier(
  lattice: Lattice,
  bounding: readonly Bounding[],
  makeSurface: MakeSurface,
  frame: Box | null = null,
  closings: readonly (readonly Point[])[] = [],
): Barrier {
  const { width, height, left, top, scale } = lattice;
  const view: Matrix = [scale, 0, 0, scale, -left * scale, -top * scale];
  const [whole, one] = [makeSurface(width, height), makeSurface(width, height)];
  const scratch = new Scratch(makeSurface);
  for (const { drawing, matrix, paintOf } of bounding) {
    wipe(one);
    drawDrawing(one, scratch, linesOnly(drawing), paintOf, multiply(view, matrix));
    layPicture(whole, one.picture, 1, 'normal');
  }
  if (closings.length > 0) {
    wipe(one);
    drawDrawing(one, scratch, drawingOfWays(closings, CLOSING / scale), () => CLOSING_COLOUR, view);
    layPicture(whole, one.picture, 1, 'normal');
  }
  if (frame) {
    const { context } = whole;
    context.setTransform(...view);
    context.fillStyle = '#000000';
    const thick = 2 / scale;
    const [w, h] = [frame.right - frame.left, frame.bottom - frame.top];
    context.fillRect(frame.left, frame.top, w, thick);
    context.fillRect(frame.left, frame.bottom - thick, w, thick);
    context.fillRect(frame.left, frame.top, thick, h);
    context.fillRect(frame.right - thick, frame.top, thick, h);
  }
  const { data } = whole.context.getImageData(0, 0, width, height);
  const cover = new Uint8Array(width * height);
  const colour = new Uint8Array(width * height * 3);
  for (let i = 0; i < cover.length; i++) {
    cover[i] = data[i * 4 + 3]!;
    if (cover[i] === 0) continue;
    colour[i * 3] = data[i * 4]!;
    colour[i * 3 + 1] = data[i * 4 + 1]!;
    colour[i * 3 + 2] = data[i * 4 + 2]!;
  }
  return { ...lattice, cover, colour };
}
