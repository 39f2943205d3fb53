/** Files dropped at the desk: what they are taken for is said first, then they come in as that, and one undo takes it back. */
import { createCanvas } from '@napi-rs/canvas';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { address, drawn, makeShot, marksOf, openDesk, painted, saved, stored } from './desk.ts';
import { expect, test, type Page } from './test.ts';

/** Drops files on the picture. */
async function drop(page: Page, ...files: { name: string; content: Buffer | string }[]): Promise<void> {
  const all = files.map(({ name, content }) => ({ name, bytes: Buffer.from(content).toString('base64') }));
  const transfer = await page.evaluateHandle((given) => {
    const data = new DataTransfer();
    for (const { name, bytes } of given)
      data.items.add(new File([Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0))], name));
    return data;
  }, all);
  await page.getByTestId('picture').dispatchEvent('drop', { dataTransfer: transfer });
}
const bringIn = (page: Page) => page.getByRole('button', { name: 'Bring in', exact: true }).click();
const kinds = async (shot: string, kind: string) =>
  (await stored(address(), shot)).entities.filter((each) => each.kind === kind);
const disc = (colour: string): Buffer => {
  const canvas = createCanvas(32, 18);
  const context = canvas.getContext('2d');
  context.fillStyle = colour;
  context.arc(16, 9, 7, 0, 7);
  context.fill();
  return canvas.toBuffer('image/png');
};

const SVG = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 640 360">
  <g id="glow"><path d="M100 100h80v60h-80z" fill="#e4551b"/></g>
  <g id="lines"><path d="M20 20L300 40" fill="none" stroke="#101010" stroke-width="6"/><text>no</text></g>
</svg>`;

test('SVG comes in as marks on layers, told beforehand, kept as a version, taken back by one undo', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await painted(page);
  await drop(page, { name: 'sign.svg', content: SVG });
  await expect(page.getByRole('dialog')).toContainText('sign.svg');
  await expect(page.getByRole('button', { name: 'Marks', exact: true })).toHaveAttribute('aria-pressed', 'true');
  expect(await kinds(shot, 'element')).toHaveLength(1);
  await bringIn(page);
  await expect(page.getByText('2 marks on 2 layers came in. Left out: text.')).toBeVisible();
  await painted(page);
  await saved(page);
  expect((await kinds(shot, 'layer')).map(({ name }) => name)).toEqual(expect.arrayContaining(['glow', 'lines']));
  const marks = await marksOf(address(), shot);
  expect(marks.map(({ kind }) => kind).sort()).toEqual(['shape', 'stroke']);
  const versions = (await (await fetch(`${address()}/api/shots/${shot}/versions`)).json()) as {
    name: string;
    made: string;
  }[];
  expect(versions).toMatchObject([{ name: 'Before sign.svg came in', made: 'import' }]);
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect(await kinds(shot, 'element')).toHaveLength(1);
});

test('several at once: pictures as a sequence or each, a palette, a sheet, and what cannot come in', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await saved(page);
  await drop(
    page,
    { name: 'a2.png', content: disc('#ff0000') },
    { name: 'a1.png', content: disc('#00ff00') },
    { name: 'night.txt', content: '#123456 body deep\n' },
    { name: 'times.csv', content: 'Frame,Element 1 / Line\n1,2\n2,2\n3,1\n4,\n5,3\n' },
    { name: 'what.bin', content: 'what' },
  );
  const groups = page.getByTestId('intake-group');
  await expect(groups).toHaveCount(4);
  await expect(groups.nth(0)).toContainText('a2.png and 1 more');
  await expect(groups.nth(3)).toContainText('This cannot come in.');
  // Nothing has changed, and nothing does until it is said.
  expect(await kinds(shot, 'plate')).toHaveLength(0);
  await groups.nth(0).getByRole('button', { name: 'A plate each' }).click();
  await bringIn(page);
  await expect(page.getByText('“Line” goes by times.csv: 5 frames.')).toBeVisible();
  await saved(page);
  expect(await kinds(shot, 'plate')).toHaveLength(2);
  expect((await kinds(shot, 'swatch')).some(({ name }) => name === 'deep')).toBe(true);
  const lists = await kinds(shot, 'runlist');
  expect(lists.flatMap(({ runs }) => runs!.map(({ slot, length }) => [slot !== null, length]))).toEqual(
    expect.arrayContaining([
      [true, 2],
      [true, 1],
      [false, 1],
      [true, 1],
    ]),
  );
});

test('a GIF that moves comes in at the rate of the shot; a broken one is told and changes nothing', async ({
  page,
}) => {
  const folder = mkdtempSync(join(tmpdir(), 'tallow-intake-'));
  const gif = join(folder, 'pulse.gif');
  const source = 'testsrc=size=64x36:rate=12:duration=1';
  execFileSync('ffmpeg', ['-v', 'error', '-f', 'lavfi', '-i', source, gif]);
  const content = readFileSync(gif);
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drop(page, { name: 'pulse.gif', content });
  await expect(page.getByRole('button', { name: 'A plate that moves' })).toHaveAttribute('aria-pressed', 'true');
  await bringIn(page);
  await expect(page.getByText('12 pictures came in, seen on 24 frames at 24 a second.')).toBeVisible();
  await saved(page);
  const [plate] = (await kinds(shot, 'plate')) as unknown as { assets: string[] }[];
  expect(plate!.assets).toHaveLength(24);
  expect(new Set(plate!.assets).size).toBe(12);
  await drop(page, { name: 'bad.svg', content: '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0' });
  await bringIn(page);
  await expect(page.getByText('bad.svg is broken or no SVG.')).toBeVisible();
  expect(await kinds(shot, 'element')).toHaveLength(1);
});

/** A scanned sheet: yellow paper, a ring of pencil, two crosses; slipped by some px. */
function sheetOf(radius: number, slipped: number): Buffer {
  const canvas = createCanvas(640, 360);
  const context = canvas.getContext('2d');
  context.fillStyle = '#e6dcc2';
  context.fillRect(0, 0, 640, 360);
  context.translate(slipped, -slipped / 2);
  context.strokeStyle = '#26262a';
  context.lineWidth = 4;
  context.beginPath();
  context.arc(320, 160, radius, 0, 7);
  context.stroke();
  for (const x of [64, 576]) context.strokeRect(x - 6, 325, 12, 12);
  return canvas.toBuffer('image/png');
}

test('scanned drawings come in on a rough layer, a drawing each, laid over each other by two marks', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await painted(page);
  const sheets = [sheetOf(60, 0), sheetOf(60, 12), sheetOf(60, -8)];
  await drop(page, ...sheets.map((content, i) => ({ name: `scan-${i + 1}.png`, content })));
  await page.getByRole('button', { name: 'Scanned drawings' }).click();
  await bringIn(page);
  await page.getByLabel('Laid over each other by two marks').check();
  const sheet = (await page.getByTestId('scan-preview').boundingBox())!;
  for (const [i, x] of [64, 576].entries()) {
    const mark = page.getByTestId('scan-mark').nth(i);
    const box = (await mark.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(sheet.x + (x / 640) * sheet.width, sheet.y + (331 / 360) * sheet.height, { steps: 4 });
    await page.mouse.up();
    // By keys as well: there and back.
    await mark.press('ArrowLeft');
    await mark.press('ArrowRight');
  }
  await page.getByRole('button', { name: 'Bring in 3 drawings' }).click();
  await expect(page.getByText('3 drawings came in on a rough layer.')).toBeVisible();
  await painted(page);
  await saved(page);
  const scans = (await kinds(shot, 'layer')).find(({ name }) => name === 'Scans')!;
  expect(scans['role']).toBe('rough');
  const list = (await kinds(shot, 'runlist')).find(({ id }) => id === scans['runListId'])!;
  expect((list['runs'] as { length: number }[]).map(({ length }) => length)).toEqual([2, 2, 2]);
  // The rings lie over each other though the sheets slipped by 20 px.
  const boxes = (await marksOf(address(), shot)).map((mark) => {
    const nodes = (mark.kind === 'shape' ? mark.rings : []).flatMap((ring) =>
      Array.from({ length: ring.length / 6 }, (_, k) => ring[k * 6]!),
    );
    return [Math.min(...nodes), Math.max(...nodes)] as const;
  });
  expect(boxes.length).toBeGreaterThanOrEqual(3);
  for (const [left, right] of boxes)
    expect(Math.abs((left + right) / 2 - (boxes[0]![0] + boxes[0]![1]) / 2)).toBeLessThan(6);
  await page.getByTestId('picture').focus();
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect((await kinds(shot, 'layer')).map(({ name }) => name)).not.toContain('Scans');
});

test('scans without their marks, and what is no picture, are told by their name and change nothing', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await painted(page);
  const bare = createCanvas(640, 360);
  bare.getContext('2d').fillStyle = '#eee';
  bare.getContext('2d').fillRect(0, 0, 640, 360);
  const ask = async (...contents: (Buffer | string)[]) => {
    await drop(page, ...contents.map((content, i) => ({ name: `scan-${i + 1}.png`, content })));
    await page.getByRole('button', { name: 'Scanned drawings' }).click();
    await bringIn(page);
  };
  await ask(sheetOf(60, 0), bare.toBuffer('image/png'));
  await page.getByLabel('Laid over each other by two marks').check();
  await page.getByRole('button', { name: 'Bring in 2 drawings' }).click();
  await expect(page.getByText(/mark lies on bare paper|not found on scan-2\.png/)).toBeVisible();
  await ask(sheetOf(60, 0), 'no picture');
  await page.getByRole('button', { name: 'Bring in 2 drawings' }).click();
  await expect(page.getByText('scan-2.png is broken or no picture. Nothing came in.')).toBeVisible();
  expect((await kinds(shot, 'layer')).map(({ name }) => name)).not.toContain('Scans');
});
