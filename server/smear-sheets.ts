/** Draws sheets of each kind of smear by the engine itself: a gob of glass on a blowpipe's end, from where it left to where it arrives. */
import { createCanvas, type SKRSContext2D } from '@napi-rs/canvas';
import { fitRing, IDENTITY, seededIds, type Matrix, type Pair } from '@tallow/core/geometry';
import { outlined, transformed } from '@tallow/core/marks';
import { drawDrawing, Scratch } from '@tallow/core/render';
import { computeSmear, type SmearKind, type SmearWork } from '@tallow/core/smears';
import { drawingOf } from '@tallow/core/starters';
import type { Mark, Shape } from '@tallow/core/document';
import { makeSurface } from './render/canvas.ts';

const CELL = { width: 320, height: 190 };
const COLUMNS = 4;
const COLOURS: Readonly<Record<string, string>> = { body: '#f4a640', line: '#2b1710', light: '#ffe9bd' };
const newId = seededIds(5);

const blob = (cx: number, cy: number, rx: number, ry: number, swatch: string, point = 0): Shape => ({
  kind: 'shape',
  id: newId(),
  swatch,
  rings: [
    fitRing(
      Array.from({ length: 48 }, (_, i): Pair => {
        const turn = (i / 48) * 2 * Math.PI;
        const reach = 1 + point * Math.max(0, Math.cos(turn)) ** 6;
        return [cx + rx * reach * Math.cos(turn), cy + ry * Math.sin(turn)];
      }),
      0.1,
    ),
  ],
  rule: 'evenodd',
  opacity: 1,
});

/** The gob: line over light over body, lowest layer last. */
function gob(matrix: Matrix): Mark[][] {
  const body = blob(0, 0, 30, 22, 'body', 0.25);
  const line = outlined(body, 3, 'line', newId);
  return [line, [blob(8, -8, 9, 5, 'light')], [body]].map((marks) => marks.map((mark) => transformed(mark, matrix)));
}

const turned = (angle: number, x: number, y: number): Matrix => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [c, s, -s, c, x, y];
};

/** Where it is on each drawing: straight on, or about a hand below. */
const PATHS = {
  straight: [turned(0, 50, 96), turned(0, 100, 96), turned(0, 252, 96)],
  swing: [turned(-0.9, 78, 120), turned(-0.55, 108, 74), turned(0.75, 248, 92)],
} as const;

/** One picture for each row of settings: what differs from the usual. */
const SHOWN: Readonly<Record<SmearKind['form'], readonly (readonly [keyof typeof PATHS, Record<string, number>])[]>> = {
  stretch: [
    ['straight', {}],
    ['swing', {}],
    ['straight', { amount: 100, spread: 150, thins: 60 }],
    ['straight', { keeps: 1, amount: 100, thins: 0 }],
    ['swing', { keeps: 1, amount: 100, thins: 80 }],
    ['swing', { keeps: 1, amount: 100, thins: 30, hollow: 60 }],
    ['straight', { keeps: 1, amount: 100, thins: 20, strands: 4, torn: 80 }],
    ['swing', { amount: 60 }],
  ],
  swath: [
    ['swing', { bite: 0 }],
    ['swing', { bite: 70 }],
    ['swing', { from: 1, bite: 0 }],
    ['straight', { bite: 40 }],
  ],
  trail: [
    ['straight', {}],
    ['swing', { drawings: 2 }],
    ['swing', { made: 1 }],
    ['straight', { breaks: 60 }],
    ['straight', { breaks: 70, into: 1 }],
    ['swing', { made: 2 }],
    ['swing', { lags: 100, tapers: 100 }],
    ['straight', { length: 90, width: 30 }],
  ],
  copies: [
    ['straight', {}],
    ['swing', { count: 4, fades: 80 }],
    ['straight', { apart: 24 }],
    ['straight', { where: 1 }],
  ],
  lines: [
    ['straight', {}],
    ['swing', { count: 14 }],
    ['straight', { form: 1, count: 26, length: 40 }],
    ['straight', { side: 1, length: 90 }],
  ],
};

function workOf(path: readonly Matrix[], form: SmearKind['form'], settings: Record<string, number>): SmearWork {
  const layers = ['line', 'light', 'body'];
  return {
    layers,
    stops: path.map((matrix) => ({
      drawings: gob(matrix).map((marks) => drawingOf('', marks)),
      matrices: layers.map(() => IDENTITY),
      frames: 1,
      traced: { tip: null, root: null },
    })),
    smear: { form, piece: null, marks: [], rigid: [], way: 'as drawn', bend: 0, settings, seed: 7 },
    line: null,
    contact: null,
    room: 3,
    cycle: false,
    back: layers.map(() => IDENTITY),
  };
}

/** Every way a kind is shown: what it makes on the drawing it is laid on, where it left faint behind it. */
export function smearSheet(kind: SmearKind): Buffer {
  const shown = SHOWN[kind.form];
  const canvas = createCanvas(COLUMNS * CELL.width, Math.ceil(shown.length / COLUMNS) * CELL.height);
  const context: SKRSContext2D = canvas.getContext('2d');
  context.fillStyle = '#3a3f45';
  context.fillRect(0, 0, canvas.width, canvas.height);
  const scratch = new Scratch(makeSurface);
  shown.forEach(([name, settings], i) => {
    const [x, y] = [(i % COLUMNS) * CELL.width, Math.floor(i / COLUMNS) * CELL.height];
    const draw = (marks: readonly Mark[], alpha: number): void => {
      const surface = makeSurface(CELL.width, CELL.height);
      drawDrawing(surface, scratch, drawingOf('d', marks), (paint) => COLOURS[paint] ?? '#888888', IDENTITY);
      context.globalAlpha = alpha;
      context.drawImage(surface.picture as never, x, y);
      context.globalAlpha = 1;
    };
    const path = PATHS[name];
    const work = workOf(path, kind.form, settings);
    const { own, behind } = computeSmear(work, newId);
    const at = (matrix: Matrix) => gob(matrix).reverse().flat();
    draw(at(path[1]), 0.18);
    draw(
      behind.flatMap((marks, drawing) => (drawing === 0 ? marks : [])),
      1,
    );
    if (own.size > 0)
      draw(
        [...work.layers].reverse().flatMap((id) => own.get(id) ?? []),
        1,
      );
    else draw(at(path[2]), 1);
  });
  return canvas.toBuffer('image/png');
}
