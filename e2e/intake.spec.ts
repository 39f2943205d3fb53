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
