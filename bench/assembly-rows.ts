/** Rows of the assembled shot: one element used many times, a first pass of many uses, a tilted plane, footage that comes in. */
import {
  entitiesOf,
  newPlacement,
  newShotDocument,
  putEntities,
  shotOf,
  type Placement,
  type ShotDocument,
} from '@tallow/core/document';
import { wipe } from '@tallow/core/canvas';
import { addElement, addMark, addLayer } from '@tallow/core/edit';
import { IDENTITY } from '@tallow/core/geometry';
import {
  drawBackground,
  drawDrawing,
  blurred,
  drawFrame,
  layPart,
  lightsOn,
  Rasters,
  Scratch,
  drawListOf,
  paintsOf,
  SurfacePool,
  type RenderContext,
  type Surface,
} from '@tallow/core/render';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pictures } from '../server/footage/pictures.ts';
import { probe } from '../server/footage/probe.ts';
import { makeSurface } from '../server/render/canvas.ts';
import { nightShift } from '../demo/night-shift.ts';
import { newId, wandering } from './documents.ts';
import { sideBySide, timeRow, type Row } from './measure.ts';

const [WIDTH, HEIGHT] = [1920, 1080];
const MB = 1024 * 1024;
/** A frame of the demo shot on which the fire, a burst and the end of a strike shine. */
const NIGHT_FRAME = 35;
/** Uses in a shot that many are made of, and elements they are of. */
const [USES, ELEMENTS] = [12, 4] as const;

/** Elements of three layers of twelve strokes each, every one in a part of the picture of its own size. */
function shotOfElements(): ShotDocument {
  let doc = newShotDocument(
    newId(),
    { name: 'B', width: WIDTH, height: HEIGHT, rate: 24, length: 24, background: '#101010' },
    newId,
  );
  for (let i = 1; i < ELEMENTS; i++) doc = addElement(doc, `E${i}`, 0, newId).doc;
  const swatch = shotOf(doc).swatches[0]!;
  for (const element of entitiesOf(doc, 'element')) {
    for (let i = 0; i < 2; i++) doc = addLayer(doc, element.id, `L${i}`, 'body', null, newId).doc;
    for (const { id } of entitiesOf(doc, 'layer').filter((layer) => layer.elementId === element.id))
      for (let k = 0; k < 12; k++) doc = addMark(doc, id, 0, wandering(swatch, 120), newId);
  }
  return doc;
}

/** The shot with other uses on its plane. */
function withUses(doc: ShotDocument, uses: readonly Placement[]): ShotDocument {
  const plane = entitiesOf(doc, 'plane')[0]!;
  return putEntities(doc, ...uses, { ...plane, placements: uses.map(({ id }) => id) });
}
const useOf = (elementId: string, i: number): Placement =>
  newPlacement(elementId, { start: 0, x: 700 + (i % 4) * 160, y: 400 + Math.floor(i / 4) * 120 }, newId);

/** Means with rasters of their own, as a painter has them. */
function paintersMeans(doc: ShotDocument): { rendering: RenderContext; forget: () => void } {
  const pool = new SurfacePool(makeSurface, 64 * MB);
  const rasters = new Rasters(pool, 512 * MB, makeSurface);
  return {
    rendering: {
      make: pool.make,
      during: (work) => pool.during(work),
      pictureOf: (item, matrix, width, height) => rasters.drawing(doc, item, { width, height, matrix }),
    },
    forget: () => {
      rasters.clear();
    },
  };
}

const OPTIONS = { guides: false, background: true } as const;
const settled = ({ context }: Surface): unknown => context.getImageData(0, 0, 1, 1);

async function usesRows(): Promise<Row[]> {
  const doc = shotOfElements();
  const elements = entitiesOf(doc, 'element');
  const [first] = elements;
  const once = withUses(doc, [useOf(first!.id, 0)]);
  const often = withUses(
    doc,
    Array.from({ length: USES }, (_, i) => useOf(first!.id, i)),
  );
  const mixed = withUses(
    doc,
    Array.from({ length: USES }, (_, i) => useOf(elements[i % ELEMENTS]!.id, i)),
  );
  const target = makeSurface(WIDTH, HEIGHT);
  const firstPass = (of: ShotDocument) => {
    const { rendering, forget } = paintersMeans(of);
    return () => {
      forget();
      drawFrame(target, of, 0, IDENTITY, rendering, OPTIONS);
      return settled(target);
    };
  };
  const scratch = new Scratch(makeSurface);
  /** The layers of each element drawn once and laid where they are used: what has to be done at the very least. */
  const plainly = () => {
    target.context.setTransform(1, 0, 0, 1, 0, 0);
    drawBackground(target, mixed, IDENTITY);
    const drawn = new Map<string, Surface>();
    for (const item of drawListOf(mixed, 0, { guides: false })) {
      let surface = drawn.get(item.drawing.id);
      if (!surface) {
        surface = makeSurface(1280, 768);
        drawDrawing(surface, scratch, item.drawing, paintsOf(mixed, item), [1, 0, 0, 1, 640, 384]);
        drawn.set(item.drawing.id, surface);
      }
      const [left, top] = [item.matrix[4] - 640, item.matrix[5] - 384];
      layPart(target, { picture: surface.picture, left, top, opacity: 1, blend: 'normal' });
    }
    return settled(target);
  };
  const corners = {
    box: { left: -600, top: -350, right: 600, bottom: 350 },
    at: [
      { x: -420, y: -300 },
      { x: 520, y: -260 },
      { x: 600, y: 340 },
      { x: -600, y: 300 },
    ],
  } as const;
  const tilted = withUses(doc, [{ ...useOf(first!.id, 0), corners }]);
  return [
    timeRow(
      'one element used 12 times, first pass at 1920x1080',
      'used once',
      1.5,
      await sideBySide(15, firstPass(often), firstPass(once)),
    ),
    timeRow(
      'first pass of 12 uses of 4 elements',
      'drawing those layers plainly',
      1.3,
      await sideBySide(15, firstPass(mixed), plainly),
    ),
    timeRow(
      'a use on a tilted plane, first pass',
      'the same lying flat',
      2,
      await sideBySide(15, firstPass(tilted), firstPass(once)),
    ),
    timeRow('a frame of 12 uses, everything kept', 'its bare drawImage calls', 1.2, await keptRow(mixed, target)),
  ];
}

/** A frame whose rasters are all there, against laying as many pictures of that size. */
async function keptRow(doc: ShotDocument, target: Surface): Promise<[number, number]> {
  const { rendering } = paintersMeans(doc);
  const items = drawListOf(doc, 0, { guides: false });
  const laid = items.map((item) => rendering.pictureOf(item, item.matrix, WIDTH, HEIGHT));
  const bare = () => {
    drawBackground(target, doc, IDENTITY);
    for (const each of laid) layPart(target, { ...each, opacity: 1, blend: 'normal' });
    return settled(target);
  };
  const frame = () => {
    drawFrame(target, doc, 0, IDENTITY, rendering, OPTIONS);
    return settled(target);
  };
  return sideBySide(31, frame, bare);
}

/** The whole demo shot with its lights and looks, first pass, against drawing its layers plainly and one blur for each light. */
async function nightRow(): Promise<Row> {
  const doc = nightShift();
  const target = makeSurface(WIDTH, HEIGHT);
  const { rendering, forget } = paintersMeans(doc);
  const scratch = new Scratch(makeSurface);
  const frame = () => {
    forget();
    drawFrame(target, doc, NIGHT_FRAME, IDENTITY, rendering, OPTIONS);
    return settled(target);
  };
  const lights = lightsOn(doc, NIGHT_FRAME).length;
  const plainly = () => {
    drawBackground(target, doc, IDENTITY);
    const on = makeSurface(WIDTH, HEIGHT);
    for (const item of drawListOf(doc, NIGHT_FRAME, { guides: false, looks: 'none' })) {
      wipe(on);
      drawDrawing(on, scratch, item.drawing, paintsOf(doc, item), item.matrix);
      layPart(target, { picture: on.picture, left: 0, top: 0, opacity: 1, blend: 'normal' });
    }
    for (let i = 0; i < lights; i++)
      layPart(target, {
        picture: blurred(on, 40, false, makeSurface).picture,
        left: 0,
        top: 0,
        opacity: 0.1,
        blend: 'screen',
      });
    return settled(target);
  };
  return timeRow(
    `Night shift, first pass of a frame with ${lights} lights`,
    'its layers plainly and a blur for each light',
    1.5,
    await sideBySide(9, frame, plainly),
  );
}

/** Ten seconds of 1080p, taken apart as the worker does, against ffmpeg writing the same pictures. */
async function footageRow(): Promise<Row> {
  const folder = mkdtempSync(join(tmpdir(), 'tallow-bench-film-'));
  const film = join(folder, 'film.mp4');
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=s=1920x1080:r=24:d=10'],
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-pix_fmt', 'yuv420p', film],
  ]);
  const found = await probe(film);
  const apart = async () => {
    let bytes = 0;
    for await (const picture of pictures(film, found, 24, 2000)) bytes += picture.length;
    return bytes;
  };
  const alone = () => {
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-y', '-i', film, '-vf', 'fps=24', '-c:v', 'mjpeg', '-q:v', '2', '-pix_fmt', 'yuvj444p'],
      join(folder, '%04d.jpg'),
    ]);
    return statSync(join(folder, '0001.jpg')).size;
  };
  const row = timeRow('10 s of 1080p footage taken apart', 'ffmpeg alone', 2, await sideBySide(3, apart, alone));
  rmSync(folder, { recursive: true, force: true });
  return row;
}

export async function assemblyRows(): Promise<Row[]> {
  const rows: Row[] = [];
  for (const part of [nightRow, usesRows, footageRow]) {
    // The rows before leave much to be collected, which the next would pay for: the longest frames come first.
    globalThis.gc?.();
    rows.push(...[await part()].flat());
  }
  return rows;
}
