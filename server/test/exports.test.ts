import { discRing } from '@tallow/core/geometry';
import { newShotDocument, randomId, shotOf, entitiesOf } from '@tallow/core/document';
import { addMark, holdFor, insertBlank, setElement, setSwatch } from '@tallow/core/edit';
import { furnaceMouth, FURNACE_MOUTH_ID } from '@tallow/demo';
import {
  EXPORT_FAMILIES,
  EXPORT_FORMATS,
  exportFormats,
  type ExportFormat,
  type ExportFormatName,
} from '@tallow/core/formats';
import { createCanvas, loadImage, type Canvas } from '@napi-rs/canvas';
import { strFromU8, unzipSync } from 'fflate';
import { execFileSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureDemo } from '../demo.ts';
import { runExport } from '../exports/export-job.ts';
import { exportPath, exportsFolder } from '../exports/exports.service.ts';
import { WRITERS } from '../exports/formats/index.ts';
import type { Writer } from '../exports/formats/writer.ts';
import { frameDrawer, wholeShot } from '../render/frames.ts';
import { runLoop, loopPath } from '../cards/loop-job.ts';
import { shotServices } from '../shots/services.ts';
import { ShotsService } from '../shots/shots.service.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
let shots: ShotsService;

beforeAll(async () => {
  server = await startServer();
  shots = shotServices(server.database).shots;
  await ensureDemo(server.database, false, [furnaceMouth]);
  const shot = shotOf(furnaceMouth());
  const { revision } = (await server.send('GET', `/shots/${shot.id}`)).json as { revision: number };
  const body = { ...shot, length: 4, width: 192, height: 108 };
  await server.send('POST', `/shots/${shot.id}/saves`, {
    saveId: randomId(),
    baseRevision: revision,
    puts: [{ id: shot.id, kind: 'shot', body }],
    deletes: [],
  });
}, 60_000);
afterAll(() => server.stop());

interface Answer {
  id: string;
  state: string;
  done: number;
  frames: number;
  bytes: number | null;
}
const ask = async (): Promise<Answer> =>
  (await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, { background: true })).json;
const list = async (): Promise<Answer[]> => (await server.send('GET', `/shots/${FURNACE_MOUTH_ID}/exports`)).json;
const one = async (id: string): Promise<Answer> => (await list()).find((each) => each.id === id)!;

/** Waits for something, by asking. */
async function until(isSo: () => Promise<boolean>): Promise<void> {
  while (!(await isSo())) await new Promise((done) => setTimeout(done, 50));
}

test('an export waits in the list, is run, and its file is served under the shot’s name', async () => {
  const asked = await ask();
  expect(asked).toMatchObject({ state: 'waiting', frames: 4, done: 0, bytes: null });
  expect((await server.send('GET', `/exports/${asked.id}/file`)).status).toBe(409);
  await runExport(server.database, shots, asked.id);
  const done = await one(asked.id);
  expect(done).toMatchObject({ state: 'done', done: 4, bytes: statSync(exportPath(asked.id)).size });
  const file = await fetch(`${server.address}/api/exports/${asked.id}/file`);
  expect(file.headers.get('content-disposition')).toContain('furnace-mouth.zip');
  expect(
    Buffer.from(await file.arrayBuffer())
      .subarray(0, 2)
      .toString(),
  ).toBe('PK');
});

test('run again after its worker was killed, it gives the same frames; run once done, it is left alone', async () => {
  const asked = await ask();
  // Silent for long enough, a running one is set waiting again by the server.
  const silent = new Date(Date.now() - 60_000);
  await server.database('exports').where({ id: asked.id }).update({ state: 'running', done: 2, heard_at: silent });
  await until(async () => (await one(asked.id)).state === 'waiting');
  await runExport(server.database, shots, asked.id);
  const first = await one(asked.id);
  expect(first.state).toBe('done');
  const { mtimeMs } = statSync(exportPath(asked.id));
  await runExport(server.database, shots, asked.id);
  expect(statSync(exportPath(asked.id)).mtimeMs).toBe(mtimeMs);
});

test('on a full disk it says so, is tried again by itself, and comes about once there is room', async () => {
  const asked = await ask();
  // Whatever is written there meets a full disk.
  mkdirSync(exportsFolder(), { recursive: true });
  symlinkSync('/dev/full', `${exportPath(asked.id)}.partial`);
  await runExport(server.database, shots, asked.id);
  expect(await one(asked.id)).toMatchObject({
    state: 'waiting',
    trouble: 'The disk of the server is full. It is tried again by itself.',
  });
  const row = () =>
    server.database<{ id: string; tries: number; try_at: Date }>('exports').where({ id: asked.id }).first();
  const before = await row();
  expect(before).toMatchObject({ tries: 1 });
  // The server hands it in again once it is due.
  await until(async () => (await row())!.try_at > before!.try_at);
  await runExport(server.database, shots, asked.id);
  expect(await one(asked.id)).toMatchObject({ state: 'done', trouble: null });
});

test('what is drawn while it is written is not in it', async () => {
  const asked = await ask();
  const drawings = () =>
    server
      .database('entities')
      .where({ shot_id: FURNACE_MOUTH_ID, kind: 'drawing' })
      .select<{ id: string; body: object }[]>('id', 'body');
  const before = await drawings();
  const emptied = new Set<string>();
  const slowly: Pick<ShotsService, 'atOneMoment'> = {
    atOneMoment: (id, work) =>
      shots.atOneMoment(id, async (moment) => {
        const result = await work({
          ...moment,
          drawings: async (ids) => {
            // Somebody empties them all just before they are read.
            for (const each of await drawings()) {
              emptied.add(each.id);
              const body = { ...each.body, marks: {}, order: [] };
              await server
                .database('entities')
                .where({ id: each.id })
                .update({ body: JSON.stringify(body) });
            }
            return moment.drawings(ids);
          },
        });
        return result;
      }),
  };
  await runExport(server.database, slowly, asked.id);
  expect(emptied.size).toBeGreaterThan(0);
  for (const each of before)
    await server
      .database('entities')
      .where({ id: each.id })
      .update({ body: JSON.stringify(each.body) });
  const again = await ask();
  await runExport(server.database, shots, again.id);
  expect(unzipSync(readFileSync(exportPath(asked.id)))).toEqual(unzipSync(readFileSync(exportPath(again.id))));
});

test('stopped before or while it runs, it leaves no file behind', async () => {
  const asked = await ask();
  expect((await server.send('POST', `/exports/${asked.id}/stop`)).json).toMatchObject({ state: 'stopped' });
  await runExport(server.database, shots, asked.id);
  expect(existsSync(exportPath(asked.id))).toBe(false);
  const second = await ask();
  const running = runExport(server.database, shots, second.id);
  await server.send('POST', `/exports/${second.id}/stop`);
  await running;
  expect((await one(second.id)).state).toBe('stopped');
  expect(readdirSync(exportsFolder()).filter((name) => name.includes(second.id))).toEqual([]);
});

test('an export whose shot cannot be read fails and says so', async () => {
  const asked = await ask();
  await server.send('DELETE', `/shots/${FURNACE_MOUTH_ID}`);
  await runExport(server.database, shots, asked.id);
  await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/restore`);
  expect(await one(asked.id)).toMatchObject({ state: 'failed', trouble: expect.stringContaining('not there') });
});

test('deleted, it is gone with its file; unknown ones are not found', async () => {
  const asked = await ask();
  await runExport(server.database, shots, asked.id);
  expect((await server.send('DELETE', `/exports/${asked.id}`)).status).toBe(204);
  expect(existsSync(exportPath(asked.id))).toBe(false);
  expect((await server.send('GET', `/exports/${randomId()}/file`)).status).toBe(404);
  expect((await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, { background: 'yes' })).status).toBe(422);
});

/** Sizes, delays and transparency of a GIF's frames, read from its blocks. */
function readGif(bytes: Buffer): { width: number; height: number; delays: number[]; open: boolean[]; loops: boolean } {
  expect(bytes.subarray(0, 6).toString()).toBe('GIF89a');
  const [width, height] = [bytes.readUInt16LE(6), bytes.readUInt16LE(8)];
  const delays: number[] = [];
  const open: boolean[] = [];
  let loops = false;
  let at = 13 + (bytes[10]! & 0x80 ? 3 * 2 ** ((bytes[10]! & 7) + 1) : 0);
  const skip = () => {
    while (bytes[at] !== 0) at += bytes[at]! + 1;
    at += 1;
  };
  for (;;) {
    const kind = bytes[at]!;
    if (kind === 0x3b) return { width, height, delays, open, loops };
    if (kind === 0x21) {
      const label = bytes[at + 1];
      if (label === 0xf9) {
        delays.push(bytes.readUInt16LE(at + 4));
        open.push((bytes[at + 3]! & 1) === 1);
      }
      if (label === 0xff) loops = bytes.subarray(at + 3, at + 14).toString() === 'NETSCAPE2.0';
      at += 2;
      skip();
    } else {
      expect(kind).toBe(0x2c);
      at += 10 + (bytes[at + 9]! & 0x80 ? 3 * 2 ** ((bytes[at + 9]! & 7) + 1) : 0) + 1;
      skip();
    }
  }
}

test('a GIF loops, lasts as long as the shot to within 0.01 s, and is open where nothing is drawn', async () => {
  for (const background of [true, false]) {
    const { json } = await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, { background, format: 'gif' });
    const { id } = json as Answer;
    await runExport(server.database, shots, id);
    expect(await one(id)).toMatchObject({
      state: 'done',
      fileName: background ? 'furnace-mouth.gif' : 'furnace-mouth-alpha.gif',
    });
    const bytes = readFileSync(exportPath(id));
    const gif = readGif(bytes);
    expect(gif).toMatchObject({ width: 192, height: 108, loops: true });
    // Four frames on 2s are two pictures.
    expect(gif.delays).toHaveLength(2);
    expect(Math.abs(gif.delays.reduce((a, b) => a + b) / 100 - 4 / 24)).toBeLessThanOrEqual(0.01);
    expect(Math.min(...gif.delays)).toBeGreaterThanOrEqual(2);
    expect(gif.open.every((each) => each === !background)).toBe(true);
    const canvas = createCanvas(192, 108);
    canvas.getContext('2d').drawImage(await loadImage(bytes), 0, 0);
    const { doc } = await shots.document(FURNACE_MOUTH_ID);
    const picture = frameDrawer(doc, wholeShot(doc, background)).draw(0).picture as Canvas;
    const pixels = (from: Canvas) => from.getContext('2d').getImageData(0, 0, 192, 108).data;
    const [got, wanted] = [pixels(canvas), pixels(picture)];
    let apart = 0;
    for (let i = 0; i < got.length; i++) apart += Math.abs(got[i]! - wanted[i]!);
    // On the mean, within what 256 colours and hard edges allow.
    expect(apart / got.length).toBeLessThan(4);
  }
});

test('layers and elements come as sequences of their own, scaled and named as asked, with the exposure sheet', async () => {
  const asked = await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, {
    background: true,
    parts: 'layers',
    from: 1,
    to: 3,
    scale: 0.5,
    pattern: '{part}_{frame}',
    sheet: true,
  });
  const { id } = asked.json as Answer;
  await runExport(server.database, shots, id);
  const done = await one(id);
  expect(done).toMatchObject({ state: 'done', frames: 8, done: 8, fileName: 'furnace-mouth-layers-alpha.zip' });
  const files = unzipSync(readFileSync(exportPath(id)));
  expect(new Set(Object.keys(files))).toEqual(
    new Set([
      'furnace-mouth/furnace-mouth-exposure-sheet.csv',
      ...['fire-line', 'fire-core', 'fire-body', 'arch'].flatMap((part) =>
        ['0002', '0003'].map((frame) => `furnace-mouth/${part}/${part}_${frame}.png`),
      ),
    ]),
  );
  const sheet = strFromU8(files['furnace-mouth/furnace-mouth-exposure-sheet.csv']!).trim().split('\n');
  expect(sheet[0]).toBe(
    'Frame,Furnace fire / Fire line,Furnace fire / Fire core,Furnace fire / Fire body,Furnace fire / Arch',
  );
  expect(sheet.slice(1)).toEqual(['2,1,1,1,1', '3,2,2,2,1']);
});

test('settings that the shot does not allow are refused, naming the field', async () => {
  for (const [field, settings] of Object.entries({
    to: { to: 5 },
    from: { from: 3, to: 3 },
    scale: { scale: 99 },
    pattern: { pattern: 'all' },
    format: { format: 'bmp' },
  })) {
    const refused = await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, { background: true, ...settings });
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.json)).toContain(field);
  }
});

test('finished exports are cleared with their files, those under way stay', async () => {
  const waiting = await ask();
  expect((await server.send('DELETE', `/shots/${FURNACE_MOUTH_ID}/exports`)).status).toBe(204);
  expect((await list()).map((each) => each.id)).toEqual([waiting.id]);
  expect(readdirSync(exportsFolder())).toEqual([]);
});

test('the loop for a card is made once for a revision, and told with the shot', async () => {
  const summary = async () =>
    ((await server.send('GET', '/shots')).json as { id: string; revision: number; loop: unknown }[]).find(
      (each) => each.id === FURNACE_MOUTH_ID,
    )!;
  expect((await summary()).loop).toBeNull();
  expect((await server.send('GET', `/shots/${FURNACE_MOUTH_ID}/loop.webp`)).status).toBe(404);
  await runLoop(server.database, shots, FURNACE_MOUTH_ID);
  const { revision, loop } = await summary();
  expect(loop).toEqual({ revision, flashes: false });
  const file = await fetch(`${server.address}/api/shots/${FURNACE_MOUTH_ID}/loop.webp`);
  expect(file.headers.get('content-type')).toBe('image/webp');
  expect(Buffer.from(await file.arrayBuffer()).toString('latin1', 8, 12)).toBe('WEBP');
  const made = statSync(loopPath(FURNACE_MOUTH_ID)).mtimeMs;
  await runLoop(server.database, shots, FURNACE_MOUTH_ID);
  expect(statSync(loopPath(FURNACE_MOUTH_ID)).mtimeMs).toBe(made);
});

test('a loop that flashes is told as such, and an empty shot has none', async () => {
  const { id: productionId } = ((await server.send('GET', '/productions')).json as { id: string }[])[0]!;
  const format = { name: 'Strobe', width: 64, height: 36, rate: 24, length: 24, background: '#000000' };
  const strobe = newShotDocument(randomId(), format, randomId);
  const empty = newShotDocument(randomId(), { ...format, name: 'Empty' }, randomId);
  const layer = entitiesOf(strobe, 'layer')[0]!;
  const [element] = entitiesOf(strobe, 'element');
  const swatch = entitiesOf(strobe, 'swatch')[0]!;
  const rings = [discRing(0, 0, 80)];
  const white = { kind: 'shape', id: randomId(), swatch: swatch.id, rings, rule: 'nonzero', opacity: 1 } as const;
  let doc = setSwatch(addMark(strobe, layer.id, 0, white, randomId), swatch.id, { colour: '#ffffff' });
  doc = holdFor(insertBlank(holdFor(doc, layer.id, 0, 1).doc, layer.id, 0, randomId).doc, layer.id, 1, 1).doc;
  await shots.insert(setElement(doc, element!.id, { time: 'cycle' }), productionId);
  await shots.insert(empty, productionId);
  for (const { shotId } of [doc, empty]) await runLoop(server.database, shots, shotId);
  expect((await shots.one(doc.shotId)).loop).toEqual({ revision: 1, flashes: true });
  expect((await shots.one(empty.shotId)).loop).toBeNull();
});

/** How wide a picture or film is, as ffprobe reads it. */
function widthOf(content: Buffer): number {
  const path = join(exportsFolder(), 'read');
  writeFileSync(path, content);
  const told = execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'stream=width', '-of', 'csv=p=0', path]);
  rmSync(path);
  return Number.parseInt(told.toString(), 10);
}
const inZip = (ending: string) => (file: Buffer) =>
  Promise.resolve(
    Object.entries(unzipSync(file))
      .filter(([name]) => name.endsWith(ending))
      .map(([, bytes]) => widthOf(Buffer.from(bytes))),
  );

describe('every format', () => {
  /** How many px wide the pictures are that a file holds, told by reading it back. */
  const READS: Readonly<Record<ExportFormatName, (file: Buffer) => Promise<number[]>>> = {
    png: async (file) => {
      const files = Object.entries(unzipSync(file)).filter(([name]) => name.endsWith('.png'));
      return Promise.all(files.map(async ([, bytes]) => (await loadImage(Buffer.from(bytes))).width));
    },
    png16: inZip('.png'),
    tiff: inZip('.tif'),
    exr: inZip('.exr'),
    svg: async (file) => {
      const files = Object.entries(unzipSync(file)).filter(([name]) => name.endsWith('.svg'));
      return Promise.all(files.map(async ([, bytes]) => (await loadImage(Buffer.from(bytes))).width));
    },
    ora: (file) =>
      Promise.all(
        Object.entries(unzipSync(file))
          .filter(([name]) => name.endsWith('.ora'))
          .map(async ([, bytes]) => (await loadImage(Buffer.from(unzipSync(bytes)['mergedimage.png']!))).width),
      ),
    webm: (file) => Promise.resolve([widthOf(file)]),
    mp4: (file) => Promise.resolve([widthOf(file)]),
    ffv1: (file) => Promise.resolve([widthOf(file)]),
    gif: async (file) => [(await loadImage(file)).width],
    apng: (file) => Promise.resolve([widthOf(file)]),
    webp: async (file) => [(await loadImage(file)).width],
    svgMoving: async (file) => [(await loadImage(file)).width],
    sprites: (file) => {
      const json = strFromU8(unzipSync(file)['furnace-mouth/furnace-mouth.json']!);
      return Promise.resolve([(JSON.parse(json) as { source: { width: number } }).source.width]);
    },
    // Sheets hold no picture: the frames they count stand for that.
    sheetPrint: (file) => Promise.resolve([48 * (file.toString().match(/<tr/g)!.length - 1)]),
    sheetCsv: (file) => Promise.resolve([48 * (file.toString().trim().split('\n').length - 1)]),
    // Two holds, each with 20 px round it.
    contact: async (file) => [((await loadImage(file)).width - 20) / 2 - 20],
  };
  const take = async (format: string): Promise<{ done: Answer & { fileName: string }; file: Buffer }> => {
    const asked = await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, { background: true, format });
    const { id } = asked.json as Answer;
    await runExport(server.database, shots, id);
    return { done: (await one(id)) as Answer & { fileName: string }, file: readFileSync(exportPath(id)) };
  };

  test('is described, written and reads back', async () => {
    expect(Object.keys(WRITERS)).toEqual(exportFormats());
    for (const format of exportFormats()) {
      const { family, label, says, ending, frames, doing, tells } = EXPORT_FORMATS[format];
      expect(EXPORT_FAMILIES).toHaveProperty(family);
      expect(label.length).toBeLessThan(16);
      expect(says).toMatch(/^[A-Z].{10,110}\.$/);
      expect(doing(4, 1)).toContain('4');
      expect(tells?.(4, 24).comes ?? '').not.toMatch(/undefined|NaN/);
      const { done, file } = await take(format);
      expect(done).toMatchObject({
        state: 'done',
        done: 4,
        fileName: `furnace-mouth${family === 'page' ? `-${format}` : ''}.${ending}`,
      });
      expect(await READS[format](file)).toEqual(frames === null ? [192] : [192, 192, 192, 192]);
    }
  });

  test('that is put into the lists at run time is asked for, written and fetched; an unknown one is refused', async () => {
    const [formats, writers] = [EXPORT_FORMATS as Record<string, ExportFormat>, WRITERS as Record<string, Writer>];
    formats['words'] = {
      ...{
        family: 'page',
        label: 'Words',
        says: 'Words.',
        ending: 'txt',
        frames: null,
        whole: true,
        alphas: ['straight'],
        linear: false,
        sound: false,
      },
      doing: (frames) => `Write ${frames} words`,
    };
    writers['words'] = async ({ frames, path, tell }) => {
      writeFileSync(path, 'ember '.repeat(frames));
      return tell(frames, true);
    };
    try {
      const { done, file } = await take('words');
      expect(done).toMatchObject({ state: 'done', fileName: 'furnace-mouth-words.txt' });
      expect(file.toString()).toBe('ember ember ember ember ');
    } finally {
      Reflect.deleteProperty(formats, 'words');
      Reflect.deleteProperty(writers, 'words');
    }
    const refused = await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, {
      background: true,
      format: 'words',
    });
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.json)).toContain(`format must be one of ${exportFormats().join(', ')}`);
  });
});

describe('what of the picture is taken', () => {
  const take = async (settings: Record<string, unknown>) => {
    const asked = await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, { background: false, ...settings });
    if (asked.status !== 201) return { status: asked.status, json: asked.json as { title: string } };
    const { id } = asked.json as Answer;
    await runExport(server.database, shots, id);
    const told = (await one(id)) as Answer & { fileName: string; trouble: string | null };
    expect(told).toMatchObject({ state: 'done', trouble: null });
    return { status: 201, told, file: readFileSync(exportPath(id)) };
  };
  const alphaOf = async (png: Uint8Array): Promise<number> => {
    const image = await loadImage(Buffer.from(png));
    const canvas = createCanvas(image.width, image.height);
    canvas.getContext('2d').drawImage(image, 0, 0);
    const { data } = canvas.getContext('2d').getImageData(0, 0, image.width, image.height);
    return data.reduce((sum, value, i) => sum + (i % 4 === 3 ? value : 0), 0);
  };
  const firstPng = (file: Buffer): Uint8Array =>
    Object.entries(unzipSync(file)).find(([name]) => name.endsWith('.png'))![1];

  test('a part of it, as large as it is, in every format that holds pictures', async () => {
    const crop = { left: 40, top: 10, width: 64, height: 32 };
    for (const format of ['png', 'gif', 'webm', 'svg'] as const) {
      const { file } = await take({ format, crop, to: 1 });
      const content = format === 'svg' || format === 'png' ? Buffer.from(Object.values(unzipSync(file!))[0]!) : file!;
      const width = format === 'svg' ? (await loadImage(content)).width : widthOf(content);
      expect([format, width]).toEqual([format, 64]);
    }
    const whole = await loadImage(Buffer.from(firstPng((await take({ to: 1 })).file!)));
    const part = await loadImage(Buffer.from(firstPng((await take({ to: 1, crop })).file!)));
    const pixels = (draw: (context: ReturnType<ReturnType<typeof createCanvas>['getContext']>) => void) => {
      const canvas = createCanvas(64, 32);
      draw(canvas.getContext('2d'));
      return Buffer.from(canvas.getContext('2d').getImageData(0, 0, 64, 32).data);
    };
    const one_ = pixels((c) => c.drawImage(whole, -40, -10));
    const other = pixels((c) => c.drawImage(part, 0, 0));
    // Moved by whole pixels, outlines round here and there by a level.
    const off = Array.from(one_, (value, i) => Math.abs(value - other[i]!));
    expect(Math.max(...off)).toBeLessThan(16);
    expect(off.reduce((a, b) => a + b, 0) / off.length).toBeLessThan(0.2);
    const refused = await take({ crop: { left: 180, top: 0, width: 64, height: 8 } });
    expect(refused).toMatchObject({
      status: 422,
      json: { title: expect.stringContaining('crop must lie within') as string },
    });
  });

  test('a drop folder gets a copy of each; what lies there stays; where it cannot be written that is told', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'tallow-drop-'));
    process.env['TALLOW_DROP'] = join(folder, 'out');
    try {
      const { file } = await take({ format: 'gif', to: 2, background: true });
      await take({ format: 'gif', to: 2, background: true });
      expect(readdirSync(join(folder, 'out')).sort()).toEqual(['furnace-mouth-2.gif', 'furnace-mouth.gif']);
      expect(readFileSync(join(folder, 'out', 'furnace-mouth.gif')).equals(file!)).toBe(true);
      writeFileSync(join(folder, 'file'), '');
      process.env['TALLOW_DROP'] = join(folder, 'file');
      const asked = await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, {
        background: true,
        format: 'gif',
      });
      await runExport(server.database, shots, (asked.json as Answer).id);
      expect(await one((asked.json as Answer).id)).toMatchObject({
        state: 'done',
        trouble: expect.stringContaining('could not be put into the drop folder') as string,
      });
    } finally {
      delete process.env['TALLOW_DROP'];
    }
  });

  test('several deliveries of one job lie in one zip, a folder each, with notes of what they are', async () => {
    const also = [
      { background: false, format: 'png', layers: 'lines', to: 1, notes: true },
      { background: true, format: 'gif', to: 2 },
    ];
    const { told, file } = await take({ format: 'png', layers: 'no lines', to: 1, also });
    expect(told!.fileName).toBe('furnace-mouth-3-deliveries.zip');
    const files = unzipSync(file!);
    const names = Object.keys(files).sort();
    expect(names).toEqual([
      '01-png-no-lines/furnace-mouth-0001.png',
      '02-png-lines/furnace-mouth-0001.png',
      '02-png-lines/furnace-mouth-notes.txt',
      '03-gif/furnace-mouth.gif',
    ]);
    expect(strFromU8(files['02-png-lines/furnace-mouth-notes.txt']!)).toContain('Layers: lines only');
    const [body, line, whole] = await Promise.all([
      alphaOf(files[names[0]!]!),
      alphaOf(files[names[1]!]!),
      take({ to: 1 }).then((all) => alphaOf(firstPng(all.file!))),
    ]);
    expect(body).toBeGreaterThan(0);
    expect(whole).toBeGreaterThanOrEqual(Math.max(body, line));
    expect(whole).toBeLessThanOrEqual(body + line);
    const nested = await take({ also: [{ background: true, also: [{ background: true }] }] });
    expect(nested).toMatchObject({ status: 422 });
  });
});
