/** Rows of ink and paint: a fill against a plain flood, fills through drawings, looks on the first pass, blurs at reduced size. */
import { blurred } from '@tallow/core/canvas';
import { shotOf, type ShotDocument, entitiesOf } from '@tallow/core/document';
import { addLook, newLook } from '@tallow/core/edit';
import { IDENTITY, type Point } from '@tallow/core/geometry';
import {
  Carrier,
  latticeOver,
  OUTSIDE,
  paintableOf,
  paintedBy,
  regionAt,
  ringsOf,
  type Barrier,
} from '@tallow/core/paint';
import {
  drawBarrier,
  drawFrame,
  FillWorker,
  linesBox,
  type FillWork,
  type RenderContext,
  type Surface,
} from '@tallow/core/render';
import { directRendering, makeSurface } from '../server/render/canvas.ts';
import { drawingWith, strokeThrough } from '../core/testing/lines.ts';
import { newId, shotWith } from './documents.ts';
import { Recorded } from './recorded.ts';
import { against, sideBySide, timed, timeRow, type Row } from './measure.ts';

const [WIDTH, HEIGHT] = [1920, 1080];
const RULES = { gap: 8, under: null };
const RADIUS = HEIGHT * 0.36;
/** As far as its lines reach, with the margin that regions need. */
const SIDE = 2 * Math.ceil(RADIUS * 1.12 + 4 + 12);

/**
 * A body of lobes with a gap in its line and islands in it, in the middle of a picture of 1920x1080, on the lattice that the
 * page works on: as far as its lines reach. @param turn how far it has gone round.
 */
function drawn(turn: number): Barrier {
  const [width, height] = [SIDE, SIDE];
  const cover = new Uint8Array(width * height);
  const dab = (x: number, y: number, radius: number): void => {
    for (let py = Math.floor(y - radius); py <= y + radius; py++)
      for (let px = Math.floor(x - radius); px <= x + radius; px++)
        if (px >= 0 && py >= 0 && px < width && py < height && (px - x) ** 2 + (py - y) ** 2 <= radius * radius)
          cover[py * width + px] = 255;
  };
  const size = RADIUS;
  const outline = (cx: number, cy: number, r: number, open: number): void => {
    const steps = Math.ceil(r * 7);
    for (let i = 0; i < steps; i++) {
      const t = (i / steps) * 2 * Math.PI;
      if (Math.abs(t - 3) < open / r) continue;
      const reach = r * (1 + 0.12 * Math.cos(7 * t + turn));
      dab(cx + reach * Math.cos(t), cy + reach * Math.sin(t), 4);
    }
  };
  outline(width / 2, height / 2, size, 6);
  for (let i = 0; i < 5; i++)
    outline(
      width / 2 + size * 0.5 * Math.cos(i * 1.26 + turn),
      height / 2 + size * 0.5 * Math.sin(i * 1.26 + turn),
      size * 0.12,
      0,
    );
  return { width, height, left: 0, top: 0, scale: 1, cover, colour: null };
}

/** A plain scanline flood of what lies round a pixel: what a fill costs at the very least. */
function flood({ cover, width, height }: Barrier, from: number): number {
  const seen = new Uint8Array(cover.length);
  const stack = [from];
  let count = 0;
  for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
    if (seen[at] !== 0 || cover[at] !== 0) continue;
    const row = at - (at % width);
    let [left, right] = [at, at];
    while (left > row && cover[left - 1] === 0 && seen[left - 1] === 0) left -= 1;
    while (right < row + width - 1 && cover[right + 1] === 0 && seen[right + 1] === 0) right += 1;
    for (let i = left; i <= right; i++) {
      seen[i] = 1;
      count += 1;
      if (i >= width && cover[i - width] === 0 && seen[i - width] === 0) stack.push(i - width);
      if (i < width * (height - 1) && cover[i + width] === 0 && seen[i + width] === 0) stack.push(i + width);
    }
  }
  return count;
}

async function fillRows(): Promise<Row[]> {
  const barrier = drawn(0);
  const closed = { ...barrier, cover: barrier.cover.slice() };
  // The flood knows of no gaps: it gets the line closed, so that both fill the same region.
  for (let y = -9; y <= 9; y++)
    for (let x = -9; x <= 9; x++) {
      const r = RADIUS * (1 + 0.12 * Math.cos(21));
      const at = Math.round(SIDE / 2 + r * Math.sin(3) + y) * SIDE + Math.round(SIDE / 2 + r * Math.cos(3) + x);
      closed.cover[at] = 255;
    }
  const middle = { x: SIDE / 2, y: SIDE / 2 };
  const pixel = (SIDE / 2) * SIDE + SIDE / 2;
  const kept = paintableOf(barrier, RULES);
  const plainFlood = () => flood(closed, pixel);
  return [
    timeRow(
      'regions of a drawing at 1920x1080, gaps closed',
      'a plain scanline flood of the same picture',
      5,
      await sideBySide(15, () => paintableOf(barrier, RULES), plainFlood),
    ),
    timeRow(
      'the press on kept regions: found and traced',
      'a plain scanline flood of the same region',
      1.5,
      await sideBySide(15, () => ringsOf(kept, [regionAt(kept, middle)]), plainFlood),
    ),
  ];
}

/** Places the pen passes over within regions, and how often it goes over all of them in one round. */
const [PLACES, ROUNDS] = [400, 200];

/** Hovering over regions that are kept, in a picture of 3840x2160: each place is asked about, its region was before. */
async function hoverRow(): Promise<Row> {
  const rings = Array.from({ length: 12 }, (_, i) =>
    strokeThrough(
      Array.from({ length: 121 }, (__, k): [number, number] => {
        const angle = (k / 120) * 2 * Math.PI;
        return [500 + (i % 4) * 940 + 420 * Math.cos(angle), 450 + Math.floor(i / 4) * 660 + 300 * Math.sin(angle)];
      }),
      10,
    ),
  );
  const drawing = drawingWith(...rings);
  const picture = { left: 0, top: 0, right: 3840, bottom: 2160 };
  const work: FillWork = { bounding: [{ drawing, matrix: IDENTITY }], colours: {}, picture, rules: RULES };
  const worker = new FillWorker(makeSurface);
  worker.ready('it', work);
  const lattice = latticeOver(linesBox(drawing), RULES.gap / 2 + 2);
  const bounding = [{ drawing, matrix: IDENTITY, paintOf: () => '#000000' }];
  const kept = paintableOf(drawBarrier(lattice, bounding, makeSurface), RULES);
  const { left, top, width, height, scale } = kept.barrier;
  const places = Array.from({ length: PLACES }, (_, i) => ({
    x: left + (((i * 7919) % width) + 0.5) / scale,
    y: top + (((i * 104729) % height) + 0.5) / scale,
  })).filter((at) => regionAt(kept, at) > OUTSIDE);
  for (const at of places) worker.at('it', at);
  const all = (ask: (at: Point) => unknown) => () => {
    for (let round = 0; round < ROUNDS; round++) for (const at of places) ask(at);
  };
  return timeRow(
    'hovering over kept regions of a picture of 3840x2160',
    'reading one pixel of the lattice',
    2,
    await sideBySide(
      15,
      all((at) => worker.at('it', at)),
      all((at) => regionAt(kept, at)),
    ),
  );
}

/** What a preview under the pen may take from the first time the pen is over a drawing, ms. */
const PREVIEW_MS = 150;

/** The first preview of a drawing of 1920x1080, nothing kept: where a region is, and where it runs out through gaps. */
function previewRows(): Row[] {
  const [cx, cy, r] = [960, 540, 430];
  const part = (from: number, to: number) =>
    strokeThrough(
      Array.from({ length: 90 }, (_, k): [number, number] => {
        const angle = from + ((to - from) * k) / 89;
        const reach = r * (1 + 0.12 * Math.cos(7 * angle));
        return [cx + reach * Math.cos(angle), cy + reach * Math.sin(angle)];
      }),
      8,
    );
  // Two halves that leave gaps of about 30 px: wider than what is closed.
  const open = drawingWith(part(0.04, Math.PI - 0.04), part(Math.PI + 0.04, 2 * Math.PI - 0.04));
  const whole = drawingWith(part(0, Math.PI), part(Math.PI, 2 * Math.PI));
  const picture = { left: 0, top: 0, right: 1920, bottom: 1080 };
  const first = (drawing: typeof open) => () => {
    const worker = new FillWorker(makeSurface);
    worker.ready('it', { bounding: [{ drawing, matrix: IDENTITY }], colours: {}, picture, rules: RULES });
    return worker.at('it', { x: cx, y: cy });
  };
  if (!first(whole)().shape || first(open)().shape)
    throw new Error('The drawings of this row are not what they are to be');
  return [
    against('the first preview under the pen at 1920x1080, a region', timed(9, first(whole)), PREVIEW_MS),
    against('the same where it runs out', timed(9, first(open)), PREVIEW_MS),
  ];
}

/** The design's goal for 48 drawings filled through, ms. */
const THROUGH_MS = 10_000;

function throughRow(): Row {
  const ms = timed(1, () => {
    const first = paintableOf(drawn(0), RULES);
    const carrier = new Carrier(first, paintedBy(first, [{ seed: { x: SIDE / 2, y: SIDE / 2 }, swatch: 'body' }]));
    for (let i = 1; i < 48; i++) {
      const to = paintableOf(drawn(i * 0.05), RULES);
      carrier.goOn(to, carrier.tried(to));
    }
  });
  return against('48 drawings filled through at 1920x1080', ms, THROUGH_MS);
}

function glowing(): ShotDocument {
  let doc = shotWith(1, 10);
  const layers = entitiesOf(doc, 'layer');
  for (const layer of layers.slice(0, 2)) doc = addLook(doc, layer.id, newLook(doc, 'glow', newId));
  return doc;
}

async function looksRow(): Promise<Row> {
  const doc = glowing();
  const { width, height } = shotOf(doc);
  const options = { guides: false, background: true };
  const drawn = (surface: Surface, rendering: RenderContext) => {
    drawFrame(surface, doc, 0, [1, 0, 0, 1, 0, 0], rendering, options);
  };
  const recorded = new Recorded();
  const noted = recorded.recording(makeSurface);
  const bare = noted(width, height);
  drawn(bare, directRendering(doc, noted));
  const surface = makeSurface(width, height);
  const rendering = directRendering(doc);
  return timeRow(
    'first pass of a frame, ten layers with two glows at 1920x1080',
    'its bare canvas calls, on surfaces used again',
    1.3,
    await sideBySide(
      9,
      () => {
        drawn(surface, rendering);
        // What is asked for is drawn by then.
        surface.context.getImageData(0, 0, 1, 1);
      },
      () => {
        recorded.again();
        makeSurface(1, 1).context.drawImage(bare.picture, 0, 0);
      },
    ),
  );
}

async function blurRow(): Promise<Row> {
  const source = makeSurface(WIDTH, HEIGHT);
  source.context.fillStyle = '#ffa62b';
  source.context.fillRect(600, 300, 600, 500);
  return timeRow(
    'blur of 40 px at reduced size, 1920x1080',
    'the same at full size',
    0.6,
    await sideBySide(
      9,
      () => blurred(source, 40, false, makeSurface).context.getImageData(0, 0, 1, 1),
      () => {
        const full = makeSurface(WIDTH, HEIGHT);
        full.context.filter = 'blur(40px)';
        full.context.drawImage(source.picture, 0, 0);
        return full.context.getImageData(0, 0, 1, 1);
      },
    ),
  );
}

export async function paintRows(): Promise<Row[]> {
  return [...(await fillRows()), await hoverRow(), ...previewRows(), throughRow(), await looksRow(), await blurRow()];
}
