/** Every format opened again by a reader that is not ours, with pixels, frames, times and sounds held against what was drawn. */
import { createCanvas, loadImage, type Canvas } from '@napi-rs/canvas';
import { asLight } from '@tallow/core/colour';
import { entitiesOf, newShotDocument, randomId, shotOf, type Id, type ShotDocument } from '@tallow/core/document';
import { addLayer, addMark, addSound, newDrawing, setElement, setLayer } from '@tallow/core/edit';
import { discRing } from '@tallow/core/geometry';
import { frameSvg } from '@tallow/core/formats';
import { drawListOf } from '@tallow/core/render';
import { strFromU8, unzipSync } from 'fflate';
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runExport } from '../exports/export-job.ts';
import { exportPath } from '../exports/exports.service.ts';
import { frameDrawer, wholeShot } from '../render/frames.ts';
import { shotServices } from '../shots/services.ts';
import type { ShotsService } from '../shots/shots.service.ts';
import { startServer, type Harness } from './harness.ts';

const [WIDTH, HEIGHT, LENGTH] = [64, 36, 12];
const folder = mkdtempSync(join(tmpdir(), 'tallow-formats-'));
let server: Harness;
let shots: ShotsService;
let doc: ShotDocument;

/** A tone of half the full height, one second at 48 kHz on one channel, as recordings are kept. */
function tone(): Buffer {
  const path = join(folder, 'tone.flac');
  const made = 'aevalsrc=0.5*sin(2*PI*440*t):s=48000:d=1';
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', made, '-sample_fmt', 's16', '-ac', '1', path]);
  return readFileSync(path);
}

/** Two drawings on 6s: a half-open disc, moved; a smaller one that screens over it. With the tone from its fourth frame on. */
function made(asset: string): ShotDocument {
  const facts = { name: 'Formats', width: WIDTH, height: HEIGHT, rate: 12, length: LENGTH, background: '#203040' };
  let next = newShotDocument(randomId(), facts, randomId);
  const element = entitiesOf(next, 'element')[0]!;
  const swatch = shotOf(next).swatches[0]!;
  const disc = (x: number, opacity: number, r: number) => ({
    ...({ kind: 'shape', swatch, rule: 'nonzero' } as const),
    id: randomId(),
    rings: [discRing(x, 0, r)],
    opacity,
  });
  const add = (layerId: Id, opacity: number, r: number) => {
    next = addMark(next, layerId, 0, disc(-8, opacity, r), randomId);
    next = newDrawing(next, layerId, 0, randomId).doc;
    next = addMark(next, layerId, 2, disc(8, opacity, r), randomId);
  };
  const body = element.layers[0]!;
  add(body, 0.5, 12);
  const above = addLayer(next, element.id, 'Glow', 'glow', null, randomId);
  next = setLayer(above.doc, above.layerId, { blend: 'screen' });
  add(above.layerId, 0.8, 6);
  next = setElement(next, element.id, { time: 'cycle' });
  return addSound(next, { name: 'Tone', asset, seconds: 1 }, 3, randomId).doc;
}

beforeAll(async () => {
  server = await startServer();
  shots = shotServices(server.database).shots;
  const content = tone();
  const sha256 = createHash('sha256').update(content).digest('hex');
  await server.database('assets').insert({ sha256, content, type: 'audio/flac', seconds: 1 });
  doc = made(sha256);
  const production = randomId();
  await server.send('POST', '/productions', { id: production, name: 'Formats' });
  await shots.insert(doc, production);
}, 60_000);
afterAll(() => server.stop());

async function take(settings: Record<string, unknown>): Promise<{ file: string; bytes: Buffer; fileName: string }> {
  const asked = await server.send('POST', `/shots/${doc.shotId}/exports`, { background: false, ...settings });
  expect(asked.json).not.toHaveProperty('message');
  const { id, fileName } = asked.json as { id: string; fileName: string };
  await runExport(server.database, shots, id);
  const listed = (await server.send('GET', `/shots/${doc.shotId}/exports`)).json as { id: string; trouble: unknown }[];
  expect(listed.find((each) => each.id === id)).toMatchObject({ state: 'done', trouble: null });
  const file = join(folder, fileName);
  const bytes = readFileSync(exportPath(id));
  writeFileSync(file, bytes);
  return { file, bytes, fileName };
}
const filesOf = (bytes: Buffer, ending: string): Buffer[] =>
  Object.entries(unzipSync(bytes))
    .filter(([name]) => name.endsWith(ending))
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([, content]) => Buffer.from(content));
/** A picture or a frame of a film as ffmpeg reads it. */
const decoded = (file: string, pixels: string, before: readonly string[] = [], after: readonly string[] = []): Buffer =>
  execFileSync('ffmpeg', ['-v', 'error', ...before, '-i', file, ...after, '-f', 'rawvideo', '-pix_fmt', pixels, '-'], {
    maxBuffer: 1e8,
  });
const decodedPart = (content: Buffer, ending: string, pixels: string): Buffer => {
  const path = join(folder, `part.${ending}`);
  writeFileSync(path, content);
  return decoded(path, pixels);
};
/** What is drawn on a frame of the shot, straight. */
const drawn = (frame: number, background = false): Uint8ClampedArray => {
  const picture = frameDrawer(doc, wholeShot(doc, background)).draw(frame).picture as Canvas;
  return picture.getContext('2d').getImageData(0, 0, WIDTH, HEIGHT).data;
};
const farthest = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  expect(a.length).toBe(b.length);
  let max = 0;
  for (let i = 0; i < a.length; i++) max = Math.max(max, Math.abs(a[i]! - b[i]!));
  return max;
};
const probe = (
  file: string,
): { codec_name: string; codec_type: string; nb_read_frames?: string; duration?: string }[] =>
  (
    JSON.parse(
      execFileSync('ffprobe', ['-v', 'error', '-count_frames', '-show_streams', '-of', 'json', file]).toString(),
    ) as { streams: [] }
  ).streams;

describe('frames', () => {
  test('PNG of 16 bits and TIFF hold the same picture to the bit', async () => {
    const deep = filesOf((await take({ format: 'png16' })).bytes, '.png');
    expect(deep).toHaveLength(LENGTH);
    expect(deep[0]![24]).toBe(16);
    // 16 bits are the 8 twice over.
    const wide = new Uint16Array(new Uint8Array(decodedPart(deep[0]!, 'png', 'rgba64le')).buffer);
    expect(
      farthest(
        wide,
        Array.from(drawn(0), (v) => v * 257),
      ),
    ).toBe(0);
    const tiffs = filesOf((await take({ format: 'tiff' })).bytes, '.tif');
    expect(tiffs).toHaveLength(LENGTH);
    expect(farthest(decodedPart(tiffs[7]!, 'tif', 'rgba'), drawn(7))).toBe(0);
  });

  test('OpenEXR holds half floats of light times alpha', async () => {
    const files = filesOf((await take({ format: 'exr' })).bytes, '.exr');
    expect(files).toHaveLength(LENGTH);
    const planes = new Float32Array(new Uint8Array(decodedPart(files[6]!, 'exr', 'gbrapf32le')).buffer);
    const count = WIDTH * HEIGHT;
    const straight = drawn(6);
    let max = 0;
    for (let i = 0; i < count; i++) {
      const alpha = straight[i * 4 + 3]! / 255;
      [1, 2, 0].forEach((channel, plane) => {
        const light = asLight(straight[i * 4 + channel]!) * alpha;
        max = Math.max(max, Math.abs(planes[plane * count + i]! - light));
      });
      max = Math.max(max, Math.abs(planes[3 * count + i]! - alpha));
    }
    // A half has 11 bits.
    expect(max).toBeLessThan(1 / 2048);
  });

  test('alpha is told as asked, and said in the notes', async () => {
    const straight = drawn(0);
    const premultiplied = filesOf((await take({ alpha: 'premultiplied', notes: true })).bytes, '.png')[0]!;
    const times = Array.from(straight, (v, i) =>
      i % 4 === 3 ? v : Math.round((v * straight[i - (i % 4) + 3]!) / 255),
    );
    expect(farthest(decodedPart(premultiplied, 'png', 'rgba'), times)).toBe(0);
    const { bytes } = await take({ alpha: 'matte', notes: true });
    const matte = Array.from(straight, (_, i) => (i % 4 === 3 ? 255 : straight[i - (i % 4) + 3]!));
    expect(farthest(decodedPart(filesOf(bytes, '.png')[0]!, 'png', 'rgba'), matte)).toBe(0);
    expect(strFromU8(filesOf(bytes, '-notes.txt')[0]!)).toContain('Alpha: none in the files: they are mattes');
  });

  test('cut to what is drawn, with handles, numbers and a version; each part by itself; notes say where all of it lies', async () => {
    const { bytes } = await take({
      ...{ format: 'png', parts: 'roles', trim: true, notes: true, from: 2, to: 4, before: 1, after: 2 },
      ...{ pattern: '{part}.{version}.{frame}', version: 'v03', first: 1001, padding: 6 },
    });
    const names = Object.keys(unzipSync(bytes)).filter((name) => name.endsWith('.png'));
    expect(names).toHaveLength(10);
    expect(names).toContain('formats/glow/glow.v03.001001.png');
    expect(names).toContain('formats/line/line.v03.001005.png');
    const notes = strFromU8(filesOf(bytes, '-notes.txt')[0]!);
    expect(notes).toContain('Frames: 2 to 6 of the shot, numbered 1001 to 1005');
    expect(notes).toContain('Handles: 1 before and 2 after');
    // The small disc of 6 px goes from 8 left of the middle to 8 right of it.
    const [, width, height, left, top] = /glow: over, cut to (\d+) x (\d+) px at (\d+), (\d+)/.exec(notes)!.map(Number);
    expect([left, top]).toEqual([WIDTH / 2 - 14, HEIGHT / 2 - 6]);
    expect([width, height]).toEqual([28, 12]);
    const cut = await loadImage(filesOf(bytes, 'glow.v03.001001.png')[0]!);
    expect([cut.width, cut.height]).toEqual([width, height]);
    const refused = await server.send('POST', `/shots/${doc.shotId}/exports`, { background: false, version: 'a/b' });
    expect(refused.status).toBe(422);
  });

  test('OpenRaster tells its kind by its first bytes, and its layers laid with their blends are the merged picture', async () => {
    const files = filesOf((await take({ format: 'ora' })).bytes, '.ora');
    expect(files).toHaveLength(LENGTH);
    expect(files[0]!.subarray(30, 54).toString()).toBe('mimetypeimage/openraster');
    const inner = unzipSync(files[0]!);
    const xml = strFromU8(inner['stack.xml']!);
    const layers = [
      ...xml.matchAll(/<layer name="([^"]*)" src="([^"]*)" x="(\d+)" y="(\d+)".*composite-op="([^"]*)"/g),
    ];
    expect(layers.map(([, name, , , , operation]) => [name, operation])).toEqual([
      ['Glow', 'svg:screen'],
      ['Line', 'svg:src-over'],
    ]);
    const canvas = createCanvas(WIDTH, HEIGHT);
    const context = canvas.getContext('2d');
    for (const [, , src, x, y, operation] of layers.toReversed()) {
      context.globalCompositeOperation = operation === 'svg:screen' ? 'screen' : 'source-over';
      context.drawImage(await loadImage(Buffer.from(inner[src!]!)), Number(x), Number(y));
    }
    const merged = createCanvas(WIDTH, HEIGHT).getContext('2d');
    merged.drawImage(await loadImage(Buffer.from(inner['mergedimage.png']!)), 0, 0);
    const pixels = (of: typeof context) => of.getImageData(0, 0, WIDTH, HEIGHT).data;
    expect(farthest(pixels(merged), drawn(0))).toBeLessThanOrEqual(1);
    expect(farthest(pixels(context), pixels(merged))).toBeLessThanOrEqual(2);
  });
});

describe('films', () => {
  test('FFV1 holds every pixel, and the shot’s sound where and as loud as it is heard', async () => {
    const { file } = await take({ format: 'ffv1' });
    expect(probe(file).map(({ codec_name }) => codec_name)).toEqual(['ffv1', 'flac']);
    const frames = decoded(file, 'rgba');
    const size = WIDTH * HEIGHT * 4;
    expect(frames.length).toBe(LENGTH * size);
    for (const frame of [0, 5, 11])
      expect(farthest(frames.subarray(frame * size, (frame + 1) * size), drawn(frame))).toBe(0);
    const raw = execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-vn', '-f', 'f32le', '-ar', '48000', '-'], {
      maxBuffer: 1e8,
    });
    // Both sides are the same.
    const samples = new Float32Array(new Uint8Array(raw).buffer).filter((_, i) => i % 2 === 0);
    // As long as the picture: a second; silent for three frames of twelve a second.
    expect(samples.length).toBe(48_000);
    const loudest = (from: number, to: number) =>
      samples.subarray(from, to).reduce((max, v) => Math.max(max, Math.abs(v)), 0);
    expect(loudest(0, 11_900)).toBe(0);
    expect(loudest(13_000, 47_000)).toBeCloseTo(0.5, 2);
  });

  test('at another rate a film lasts as long, with its sound; each frame is the one seen at its moment', async () => {
    const { file } = await take({ format: 'ffv1', rate: 8 });
    const [video, audio] = probe(file);
    expect([video!.nb_read_frames, audio!.codec_name]).toEqual(['8', 'flac']);
    const frames = decoded(file, 'rgba', [], ['-fps_mode', 'passthrough']);
    const size = WIDTH * HEIGHT * 4;
    const seen = [0, 1, 3, 4, 6, 7, 9, 10];
    for (const [i, frame] of seen.entries())
      expect(farthest(frames.subarray(i * size, (i + 1) * size), drawn(frame))).toBe(0);
    const seconds = execFileSync('ffprobe', [
      '-v',
      'error',
      '-show_entries',
      'format=duration',
      '-of',
      'csv=p=0',
      file,
    ]);
    expect(Number(seconds.toString())).toBeCloseTo(1, 2);
    const { bytes } = await take({ rate: 24, notes: true });
    const stills = filesOf(bytes, '.png');
    expect(stills).toHaveLength(2 * LENGTH);
    expect(farthest(decodedPart(stills[13]!, 'png', 'rgba'), drawn(6))).toBe(0);
    expect(strFromU8(filesOf(bytes, '-notes.txt')[0]!)).toContain('24 frames a second');
  });

  test('WebM is seen through where nothing is drawn, MP4 lies on the background; both have the sound', async () => {
    const webm = (await take({ format: 'webm' })).file;
    expect(probe(webm).map(({ codec_name }) => codec_name)).toEqual(['vp9', 'opus']);
    const seen = decoded(webm, 'rgba', ['-c:v', 'libvpx-vp9'], ['-frames:v', '1']);
    const wanted = drawn(0);
    const alphaOff = wanted.reduce((sum, v, i) => (i % 4 === 3 ? sum + Math.abs(v - seen[i]!) : sum), 0);
    expect(alphaOff / (WIDTH * HEIGHT)).toBeLessThan(4);
    const mp4 = await take({ format: 'mp4' });
    expect(mp4.fileName).toBe('formats.mp4');
    const [video, audio] = probe(mp4.file);
    expect([video!.codec_name, video!.nb_read_frames, audio!.codec_name]).toEqual(['h264', String(LENGTH), 'aac']);
    const first = decoded(mp4.file, 'rgba', [], ['-frames:v', '1']);
    const onPaper = drawn(0, true);
    const off = onPaper.reduce((sum, v, i) => (i % 4 < 3 ? sum + Math.abs(v - first[i]!) : sum), 0);
    expect(off / (WIDTH * HEIGHT * 3)).toBeLessThan(4);
  });
});

describe('loops', () => {
  test('APNG holds every frame to the bit and goes round for good', async () => {
    const { file, bytes } = await take({ format: 'apng' });
    expect(bytes.readUInt32BE(bytes.indexOf('acTL') + 8)).toBe(0);
    const frames = decoded(file, 'rgba');
    const size = WIDTH * HEIGHT * 4;
    for (const frame of [0, 11])
      expect(farthest(frames.subarray(frame * size, (frame + 1) * size), drawn(frame))).toBe(0);
  });

  test('WebP lasts as long as the shot, goes round for good, and its first frame is as drawn', async () => {
    const { bytes } = await take({ format: 'webp' });
    expect(bytes.subarray(8, 16).toString()).toBe('WEBPVP8X');
    let [lasts, loops] = [0, -1];
    for (let at = 12; at < bytes.length;) {
      const [kind, length] = [bytes.subarray(at, at + 4).toString(), bytes.readUInt32LE(at + 4)];
      if (kind === 'ANIM') loops = bytes.readUInt16LE(at + 12);
      if (kind === 'ANMF') lasts += bytes.readUIntLE(at + 20, 3);
      at += 8 + length + (length % 2);
    }
    expect(loops).toBe(0);
    expect(Math.abs(lasts - 1000)).toBeLessThan(LENGTH);
    const canvas = createCanvas(WIDTH, HEIGHT).getContext('2d');
    canvas.drawImage(await loadImage(bytes), 0, 0);
    const shown = canvas.getImageData(0, 0, WIDTH, HEIGHT).data;
    // The reader keeps colours times alpha: the fainter, the coarser.
    const seen = (pixels: Uint8ClampedArray) =>
      Array.from(pixels, (v, i) => (i % 4 === 3 ? v : (v * pixels[i - (i % 4) + 3]!) / 255));
    expect(farthest(seen(shown), seen(drawn(0)))).toBeLessThanOrEqual(1.5);
  });
});

describe('on one page', () => {
  test('a sprite sheet gives every frame back by its JSON', async () => {
    const { bytes } = await take({ format: 'sprites' });
    const files = unzipSync(bytes);
    const about = JSON.parse(strFromU8(files['formats/formats.json']!)) as {
      pictures: { x: number; y: number; width: number; height: number; left: number; top: number }[];
      frames: { picture: number; frame: number; holds: number; ms: number }[];
      anchor: { x: number; y: number };
    };
    const image = await loadImage(Buffer.from(files['formats/formats.png']!));
    expect(about.frames.reduce((sum, { holds }) => sum + holds, 0)).toBe(LENGTH);
    expect(about.frames.reduce((sum, { ms }) => sum + ms, 0)).toBeCloseTo(1000, 0);
    expect(about.pictures).toHaveLength(2);
    for (const { picture, frame } of about.frames) {
      const { x, y, width, height, left, top } = about.pictures[picture]!;
      const canvas = createCanvas(WIDTH, HEIGHT).getContext('2d');
      canvas.drawImage(image, x, y, width, height, left, top, width, height);
      expect(farthest(canvas.getImageData(0, 0, WIDTH, HEIGHT).data, drawn(frame - 1))).toBe(0);
    }
  });

  test('a contact sheet shows every hold once', async () => {
    const image = await loadImage((await take({ format: 'contact' })).bytes);
    const holds = 6;
    expect(image.width).toBe(20 + holds * (WIDTH + 20));
    expect(image.height).toBe(20 + HEIGHT + 26 + 20);
  });
});

test('SVG: frames as paths that another program draws as they are, and one that moves', async () => {
  const frames = filesOf((await take({ format: 'svg', background: true })).bytes, '.svg');
  expect(frames).toHaveLength(LENGTH);
  for (const frame of [0, 6]) {
    const text = frames[frame]!.toString();
    expect(text.match(/<path /g)).toHaveLength(2);
    expect(text).toContain('mix-blend-mode:screen');
    expect(text).not.toContain('<image');
    // The reader knows no blends: the drawing below is held against its own picture.
    const image = await loadImage(Buffer.from(text.replace(/<g data-name="Glow"[^]*?<\/g>/, '')));
    const canvas = createCanvas(WIDTH, HEIGHT);
    canvas.getContext('2d').drawImage(image, 0, 0);
    const read = canvas.getContext('2d').getImageData(0, 0, WIDTH, HEIGHT).data;
    const glow = entitiesOf(doc, 'layer').find(({ name }) => name === 'Glow')!;
    const range = { ...wholeShot(doc, true), options: { guides: false, without: [glow.id] } };
    const own = frameDrawer(doc, range).draw(frame).picture as Canvas;
    // Edges are smoothed by other means.
    const expected = own.getContext('2d').getImageData(0, 0, WIDTH, HEIGHT).data;
    const off = Array.from(read, (v, i) => Math.abs(v - expected[i]!));
    expect(off.reduce((a, b) => a + b, 0) / off.length).toBeLessThan(0.6);
    expect(off.filter((v) => v > 2).length / off.length).toBeLessThan(0.05);
  }
  const moving = (await take({ format: 'svgMoving', from: 0, to: LENGTH })).bytes.toString();
  expect(moving.match(/<animate /g)).toHaveLength(2);
  expect(moving).toContain('dur="1s"');
});

test('SVG: what paths cannot say stands as a picture in its place', async () => {
  const glow = entitiesOf(doc, 'layer').find(({ name }) => name === 'Glow')!;
  const rub = {
    ...({ kind: 'rub', seed: 1, brush: { kind: 'ink', width: 6, opacity: 1, pressure: false } } as const),
    id: randomId(),
    samples: {
      x: Float32Array.of(-20, 20),
      y: Float32Array.of(0, 0),
      pressure: Float32Array.of(1, 1),
      altitude: Float32Array.of(1.5, 1.5),
      azimuth: Float32Array.of(0, 0),
    },
  };
  const changed = addMark(doc, glow.id, 0, rub, randomId);
  const sheets = drawListOf(changed, 0, { guides: false });
  const asked: string[] = [];
  const text = frameSvg(changed, sheets, {
    scale: 1,
    background: false,
    pictured: ({ layerId }) => (asked.push(layerId), 'data:image/png;base64,AAAA'),
  });
  expect(asked).toEqual([glow.id]);
  expect(text).toMatch(
    /<image href="data:image\/png;base64,AAAA" width="64" height="36" style="mix-blend-mode:screen"/,
  );
});
