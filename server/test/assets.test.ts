import { find, newShotDocument, randomId } from '@tallow/core/document';
import { addPlate, setPlate } from '@tallow/core/edit';
import { createCanvas, type Canvas } from '@napi-rs/canvas';
import { zipSync } from 'fflate';
import { FramePictures, picturesIn } from '../assets/frame-pictures.ts';
import { frameDrawer, wholeShot } from '../render/frames.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

/** A plain picture of a colour. */
function png(width: number, height: number, colour: string): Buffer {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.fillStyle = colour;
  context.fillRect(0, 0, width, height);
  return canvas.toBuffer('image/png');
}
const send = async (content: Buffer, name: string) => {
  const answer = await fetch(`${server.address}/api/assets?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: new Uint8Array(content),
  });
  return { status: answer.status, json: (await answer.json()) as { sha256: string; width: number; title: string } };
};
const stored = async (): Promise<number> =>
  Number(((await server.database('assets').count('* as n').first()) as { n: string } | undefined)?.n);

test('a picture is kept once by its content and comes back as it was, to be kept by browsers for good', async () => {
  const content = png(40, 30, '#ff8800');
  const first = await send(content, 'glow.png');
  expect([first.status, first.json.width]).toEqual([201, 40]);
  const count = await stored();
  expect((await send(content, 'again.png')).json.sha256).toBe(first.json.sha256);
  expect(await stored()).toBe(count);
  const back = await fetch(`${server.address}/api/assets/${first.json.sha256}`);
  expect(back.headers.get('content-type')).toBe('image/png');
  expect(back.headers.get('cache-control')).toContain('immutable');
  expect(Buffer.from(await back.arrayBuffer()).equals(content)).toBe(true);
});

test('an SVG comes in as what it shows, never as text that a browser would run', async () => {
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="20" height="10"><script>alert(1)</script><rect width="20" height="10" fill="#0f0"/></svg>';
  const { status, json } = await send(Buffer.from(svg), 'mark.svg');
  expect([status, json.width]).toEqual([201, 20]);
  const back = await fetch(`${server.address}/api/assets/${json.sha256}`);
  expect(back.headers.get('content-type')).toBe('image/png');
});

test.each([
  ['nothing', Buffer.alloc(0), 'a.png', 'empty'],
  ['text', Buffer.from('not a picture at all'), 'a.png', 'broken or no picture'],
  ['a cut-off picture', png(200, 200, '#123456').subarray(0, 120), 'a.png', 'broken'],
  ['a zip', Buffer.from(zipSync({ 'a.txt': new Uint8Array(4) })), 'a.png', 'broken or no picture'],
  ['another kind than its name says', png(4, 4, '#fff'), 'a.jpg', 'is no JPG: it holds a PNG'],
])('%s is refused, saying why, and nothing is kept', async (_, content, name, words) => {
  const count = await stored();
  const { status, json } = await send(content, name);
  expect(status).toBe(422);
  expect(json.title).toContain(words);
  expect(await stored()).toBe(count);
});

test('too many pixels are refused before they are unpacked; too many bytes before they are read', async () => {
  // The header alone says 20000 by 20000.
  const header = png(8, 8, '#000');
  header.writeUInt32BE(20_000, 16);
  header.writeUInt32BE(20_000, 20);
  const large = await send(header, 'large.png');
  expect([large.status, large.json.title]).toEqual([413, expect.stringContaining('400 million pixels')]);
  const heavy = await send(Buffer.alloc(52 * 1024 * 1024), 'heavy.png');
  expect(heavy.status).toBe(413);
});

test('what is no asset is not found', async () => {
  for (const id of ['x', 'a'.repeat(64), '../shots'])
    expect((await fetch(`${server.address}/api/assets/${encodeURIComponent(id)}`)).status).toBe(404);
});

test('a still background is in the frame as it is placed; guides never are; a sequence goes with the frames', async () => {
  const assets = await Promise.all(
    ['#ff0000', '#00ff00'].map(async (colour, i) => (await send(png(50, 50, colour), `s${i}.png`)).json.sha256),
  );
  const empty = newShotDocument(
    randomId(),
    { name: 'T', width: 100, height: 100, rate: 24, length: 3, background: '#000000' },
    randomId,
  );
  const added = addPlate(empty, { name: 'S', assets, width: 50, height: 50 }, randomId);
  expect(find(added.doc, 'plate', added.plateId)!.scale).toBe(2);
  const at = async (doc: typeof empty, frame: number): Promise<number[]> => {
    const pictures = new FramePictures(doc, picturesIn(server.database));
    await pictures.at(frame);
    const range = { ...wholeShot(doc, true), assets: pictures.picture };
    const canvas = frameDrawer(doc, range).draw(frame).picture as Canvas;
    return Array.from(canvas.getContext('2d').getImageData(50, 50, 1, 1).data);
  };
  expect(await at(added.doc, 0)).toEqual([0, 0, 0, 255]);
  const still = setPlate(added.doc, added.plateId, { guide: false });
  expect(await at(still, 0)).toEqual([255, 0, 0, 255]);
  expect(await at(still, 1)).toEqual([0, 255, 0, 255]);
  expect(await at(still, 2)).toEqual([0, 0, 0, 255]);
  const later = setPlate(still, added.plateId, { span: { from: 1, length: 1 } });
  expect([await at(later, 0), await at(later, 1), await at(later, 2)]).toEqual([
    [0, 0, 0, 255],
    [255, 0, 0, 255],
    [0, 0, 0, 255],
  ]);
  const aside = setPlate(still, added.plateId, { x: 400 });
  expect(await at(aside, 0)).toEqual([0, 0, 0, 255]);
});
