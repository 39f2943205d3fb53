/** Rows measured in the browser, on the desk's own compositor. Called by `browser-rows.ts`. */
import {
  layDrawList,
  type PictureOf,
  drawBackground,
  drawGhost,
  layPicture,
  paintsOf,
  drawListOf,
  drawDrawing,
  Scratch,
  type Surface,
} from '@tallow/core/render';
import { wipe } from '@tallow/core/canvas';
import type { BrushSettings } from '@tallow/core/document';
import type { Matrix } from '@tallow/core/geometry';
import { Compositor } from '../../web/picture/compositor.ts';
import { makeSurface } from '../../web/workers/surfaces.ts';
import { shotWith } from '../documents.ts';
import { median } from '../measure.ts';
import { paintersRow } from './painters.ts';
import { storeRow } from './store.ts';
import { unseenRow } from './unseen.ts';

const SIZES = { '1920x1080': [1920, 1080], '3840x2160': [3840, 2160] } as const;
type Size = readonly [number, number];
/** The shot is of 1920x1080; a picture twice as wide shows it twice as large. */
const viewOf = ([width]: Size): Matrix => [width / 1920, 0, 0, width / 1920, 0, 0];
const canvas = document.querySelector<HTMLCanvasElement>('#picture')!;
const bitmapOf = (surface: Surface): ImageBitmap => (surface.picture as OffscreenCanvas).transferToImageBitmap();

/** Sheets as the painter would hand them over: of `layers` layers and `ghosts` ghosts, or of nothing. */
function items(SIZE: Size, layers: number, ghosts: number) {
  const VIEW = viewOf(SIZE);
  const scratch = new Scratch(makeSurface);
  const [below, active, above, one, ghost] = Array.from({ length: 5 }, () => makeSurface(...SIZE)) as [
    Surface,
    Surface,
    Surface,
    Surface,
    Surface,
  ];
  if (layers > 0) {
    const doc = shotWith(1, layers);
    const all = drawListOf(doc, 0, { guides: true });
    const pictureOf: PictureOf = (item, matrix) => {
      wipe(one);
      drawDrawing(one, scratch, item.drawing, paintsOf(doc, item), matrix);
      return { picture: one.picture, left: 0, top: 0 };
    };
    drawBackground(below, doc, VIEW);
    layDrawList(below, all.slice(0, layers / 2), VIEW, { pictureOf, make: makeSurface });
    layDrawList(active, all.slice(layers / 2, layers / 2 + 1), VIEW, { pictureOf, make: makeSurface });
    layDrawList(above, all.slice(layers / 2 + 1), VIEW, { pictureOf, make: makeSurface });
    for (let i = 0; i < ghosts; i++) {
      const look = { colour: '#3fc7b4', broken: i % 2 === 1, strength: 0.8, style: 'line' } as const;
      const picture = pictureOf(all[i]!, all[i]!.matrix, below.width, below.height);
      drawGhost(ghost, scratch.of(ghost.width, ghost.height), picture, look, 1);
      layPicture(above, ghost.picture, 1, 'normal');
    }
  }
  return {
    below: bitmapOf(below),
    active: bitmapOf(active),
    above: [{ bitmap: bitmapOf(above), blend: 'normal', opacity: 1 } as const],
    lights: [],
    clipped: [],
    base: null,
    folder: null,
    mask: null,
  };
}

const SAMPLES = 120;
/** Strokes on one picture: putting that together takes far longer than a stroke. */
const STROKES = 5;
/** Milliseconds per pointer event of a stroke, read back so that nothing is put off. */
function strokeTime(compositor: Compositor, brush: BrushSettings, view: Matrix): number {
  const live = compositor.begin({
    brush,
    paint: '#ff8800',
    laying: { opacity: brush.opacity, operation: 'source-over' },
    matrix: view,
    seed: 1,
    steadying: 0.35,
    making: { form: 'free', finish: 'drawn', tolerance: 1, exact: false, points: [] },
  });
  const context = canvas.getContext('2d')!;
  // Laying the sheets was put off until now; it belongs to no event.
  context.getImageData(0, 0, 1, 1);
  const began = performance.now();
  for (let i = 0; i < SAMPLES; i++) {
    live.add(300 + i * 3, 500 + 150 * Math.sin(i / 15), 0.5 + 0.4 * Math.sin(i / 30), 1, 0);
    compositor.advance();
    context.getImageData(300 + i * 3, 500, 1, 1);
  }
  const time = (performance.now() - began) / SAMPLES;
  compositor.drop();
  return time;
}

function strokeRow(size: Size, brush: BrushSettings, rounds: number): [number, number] {
  [canvas.width, canvas.height] = size;
  const compositor = new Compositor(canvas, () => undefined);
  const times: [number[], number[]] = [[], []];
  const view = viewOf(size);
  for (let i = -1; i < rounds; i++) {
    const both = [...[items(size, 20, 4), items(size, 0, 0)].entries()];
    // By turns, so that neither always comes first.
    for (const [k, painted] of i % 2 === 0 ? both : both.reverse()) {
      compositor.take(painted, view, { opacity: 1, blend: 'normal' });
      const time = median(Array.from({ length: STROKES }, () => strokeTime(compositor, brush, view)));
      if (i >= 0) times[k]!.push(time);
    }
  }
  return [median(times[0]), median(times[1])];
}

/** Brushes as the desk first has them. */
const BRUSHES: readonly BrushSettings[] = [
  { kind: 'ink', width: 14, opacity: 1, pressure: true },
  { kind: 'pencil', version: 2, width: 7, opacity: 1, pressure: true, tilt: 1 },
  { kind: 'grain', version: 2, width: 48, opacity: 1, pressure: true, tilt: 0.3 },
  { kind: 'haze', width: 90, opacity: 1, pressure: true, flow: 0.4 },
];

function playRow(rounds: number): [number, number] {
  [canvas.width, canvas.height] = SIZES['1920x1080'];
  const compositor = new Compositor(canvas, () => undefined);
  const frames = Array.from({ length: 6 }, () => items(SIZES['1920x1080'], 10, 0).below);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  const time = (show: (bitmap: ImageBitmap) => void): number => {
    const began = performance.now();
    for (let i = 0; i < 60; i++) {
      show(frames[i % frames.length]!);
      context.getImageData(0, 0, 1, 1);
    }
    return (performance.now() - began) / 60;
  };
  const times: [number[], number[]] = [[], []];
  for (let i = -1; i < rounds; i++) {
    const pair = [
      time((bitmap) => {
        compositor.showFrame(bitmap, true);
      }),
      time((bitmap) => {
        context.drawImage(bitmap, 0, 0);
      }),
    ] as const;
    if (i >= 0) pair.forEach((value, k) => times[k]!.push(value));
  }
  return [median(times[0]), median(times[1])];
}

/** ms of one move of 2,000 strokes that are picked up, whatever the picture beside them. */
function liftRow(): number {
  const [width, height] = SIZES['1920x1080'];
  [canvas.width, canvas.height] = [width, height];
  const compositor = new Compositor(canvas, () => undefined);
  const view = viewOf(SIZES['1920x1080']);
  compositor.take(items(SIZES['1920x1080'], 10, 2), view, { opacity: 1, blend: 'normal' });
  const doc = shotWith(1, 1, 2000);
  const [rest, apart] = [makeSurface(width, height), makeSurface(width, height)];
  const [item] = drawListOf(doc, 0, { guides: true });
  drawDrawing(apart, new Scratch(makeSurface), item!.drawing, paintsOf(doc, item!), view);
  compositor.float(bitmapOf(rest), bitmapOf(apart));
  const context = canvas.getContext('2d')!;
  const times: number[] = [];
  for (let i = 0; i < 40; i++) {
    const began = performance.now();
    compositor.moveFloating([1, 0, 0, 1, i * 3, i]);
    context.getImageData(0, 0, 1, 1);
    times.push(performance.now() - began);
  }
  return median(times);
}

export type Rows = {
  lift: number;
  play: [number, number];
  strokes: { brush: string; size: string; times: [number, number] }[];
};
Object.assign(window, {
  strokeRow,
  SIZES,
  BRUSHES,
  storeRow,
  paintersRow,
  unseenRow,
  measure: (): Rows => ({
    lift: liftRow(),
    play: playRow(7),
    strokes: Object.entries(SIZES).flatMap(([size, pixels]) =>
      BRUSHES.map((brush) => ({
        brush: brush.kind,
        size,
        times: strokeRow(pixels, brush, size === '1920x1080' ? 9 : 5),
      })),
    ),
  }),
});
