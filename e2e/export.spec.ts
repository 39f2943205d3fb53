import { expect, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Application } from './application.ts';
import { address, drawn, makeShot, openDesk, painted, Pen, saved } from './desk.ts';
import { choose } from './controls.ts';

test('frames are rendered on the server, numbered and zipped, and match the picture within one level', async ({
  page,
}) => {
  // At this size the fitted picture is shown at 100 %, so that its pixels can be compared with the file's.
  const area = await (async () => {
    const probe = await makeShot(address());
    await openDesk(page, address(), probe);
    return (await page.getByTestId('picture').boundingBox())!;
  })();
  const [width, height] = [area.width - 52, 2 * Math.floor((area.height - 80) / 2) - (area.height % 2)];
  const shot = await makeShot(address(), { width, height, length: 3, name: 'Match' });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  for (let i = 0; i < 4; i++) await pen.stroke({ x: 0.2 + i * 0.1, y: 0.2 }, { x: 0.8 - i * 0.1, y: 0.8 }, 40);
  for (const [i, name] of ['Pencil', 'Grain', 'Haze'].entries()) {
    await page.getByRole('group', { name: 'Brushes' }).getByText(name, { exact: true }).click();
    await pen.stroke({ x: 0.15, y: 0.3 + i * 0.2 }, { x: 0.85, y: 0.35 + i * 0.2 }, 40);
  }
  await page.getByRole('group', { name: 'Brushes' }).getByText('Ink', { exact: true }).click();
  await page.getByLabel('Opacity in per cent').fill('60');
  await pen.stroke({ x: 0.2, y: 0.5 }, { x: 0.8, y: 0.4 }, 40);
  await page.getByRole('group', { name: 'Brushes' }).getByText('Rub out').click();
  await pen.stroke({ x: 0.3, y: 0.3 }, { x: 0.7, y: 0.6 }, 40);
  await page.getByText('Add layer').click();
  await choose(page.getByLabel('Role'), 'guide');
  await saved(page);
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByRole('button', { name: 'With the background colour' }).click();
  await page.getByRole('button', { name: 'Export 3 frames' }).click();
  const row = page.getByTestId('export');
  await expect(row).toHaveAttribute('data-state', 'done', { timeout: 20_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    row.getByRole('link', { name: 'Download' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('match.zip');
  const folder = mkdtempSync(join(tmpdir(), 'tallow-zip-'));
  const zip = join(folder, 'match.zip');
  await download.saveAs(zip);
  const files = unzipSync(readFileSync(zip));
  const names = Object.keys(files);
  expect(names.sort()).toEqual([
    'match/match-0001.png',
    'match/match-0002.png',
    'match/match-0003.png',
    'match/match-exposure-sheet.csv',
    'match/match-notes.txt',
  ]);
  const png = Buffer.from(files[names[0]!]!).toString('base64');
  await page.getByRole('link', { name: 'Draw' }).click();
  await painted(page);
  await page.getByTestId('picture').focus();
  await page.keyboard.press('KeyW');
  // Moved until the frame's corner is the picture's: both are then drawn through the very same map.
  await page.getByRole('button', { name: 'Move the picture' }).click();
  const corner = { x: (area.width - width) / 2, y: (area.height - height) / 2 };
  expect([corner.x % 1, corner.y % 1]).toEqual([0, 0]);
  await page.mouse.move(area.x + 400, area.y + 300);
  await page.mouse.down();
  await page.mouse.move(area.x + 400 - corner.x, area.y + 300 - corner.y);
  await page.mouse.up();
  await page.getByRole('button', { name: 'Move the picture' }).click();
  await painted(page);
  const difference = await page.getByTestId('picture').evaluate(async (canvas: HTMLCanvasElement, data) => {
    const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
    const image = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
    const other = new OffscreenCanvas(image.width, image.height).getContext('2d')!;
    other.drawImage(image, 0, 0);
    const exported = other.getImageData(0, 0, image.width, image.height).data;
    const shown = canvas.getContext('2d')!.getImageData(0, 0, image.width, image.height).data;
    let max = 0;
    let drawn = 0;
    let beyondOne = 0;
    exported.forEach((v, i) => {
      const off = Math.abs(v - shown[i]!);
      max = Math.max(max, off);
      if (off > 1) beyondOne += 1;
      if (i % 4 === 0 && v > 60) drawn += 1;
    });
    return { max, drawn, beyondOne };
  }, png);
  expect(difference.drawn).toBeGreaterThan(1000);
  // Haze lays dozens of faint stamps on one another; each rounds on its own.
  expect(difference.max).toBeLessThanOrEqual(3);
  expect(difference.beyondOne).toBeLessThan(width * height * 0.001);
});

test('an export shows its progress and can be stopped; a killed worker’s job is taken up again', async ({ page }) => {
  test.setTimeout(200_000);
  const application = await Application.start({ demo: true });
  try {
    await page.goto(application.address);
    await page.getByRole('link', { name: 'Open Furnace mouth' }).click();
    await page.getByRole('link', { name: 'Export' }).click();
    await application.killWorker();
    await page.getByRole('button', { name: 'Export 72 frames' }).click();
    const row = page.getByTestId('export').first();
    await expect(row).toHaveAttribute('data-state', 'waiting');
    await row.getByRole('button', { name: 'Stop' }).click();
    await expect(row).toHaveAttribute('data-state', 'stopped');
    await row.getByRole('button', { name: /^Delete/ }).click();
    await expect(page.getByText('Nothing yet.')).toBeVisible();
    await application.startWorker();
    await page.getByRole('button', { name: 'Export 72 frames' }).click();
    await expect(row).toHaveAttribute('data-state', 'running', { timeout: 30_000 });
    await expect(page.getByRole('progressbar')).toBeVisible();
    await application.killWorker();
    await application.startWorker();
    await expect(row).toHaveAttribute('data-state', 'done', { timeout: 120_000 });
    await expect(row).toContainText('72 frames');
  } finally {
    await application.stop();
  }
});

test('a film, a loop and a sheet are taken away in two presses each; frames are named, cut and told as asked', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const shot = await makeShot(address(), { length: 6, name: 'Formats' });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.4, y: 0.4 }, { x: 0.6, y: 0.6 }, 20);
  await saved(page);
  await page.getByRole('link', { name: 'Export' }).click();
  const newest = page.getByTestId('export').first();
  const taken = async (press: RegExp): Promise<{ name: string; bytes: Buffer }> => {
    const before = await page.getByTestId('export').count();
    await page.getByRole('button', { name: press }).click();
    await expect(page.getByTestId('export')).toHaveCount(before + 1);
    await expect(newest).toHaveAttribute('data-state', 'done', { timeout: 30_000 });
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      newest.getByRole('link', { name: 'Download' }).click(),
    ]);
    return { name: download.suggestedFilename(), bytes: readFileSync(await download.path()) };
  };
  await page.getByRole('button', { name: 'Film', exact: true }).click();
  const film = await taken(/^Export film of 6 frames/);
  expect(film.name).toBe('formats-alpha.webm');
  // The browser plays it: a reader that is not ours.
  const length = await page.evaluate(async (data) => {
    const video = document.createElement('video');
    video.src = URL.createObjectURL(new Blob([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))]));
    await new Promise((done, failed) => {
      video.onloadedmetadata = done;
      video.onerror = failed;
    });
    return { width: video.videoWidth, height: video.videoHeight, seconds: video.duration };
  }, film.bytes.toString('base64'));
  expect(length).toMatchObject({ width: 640, height: 360 });
  expect(length.seconds).toBeCloseTo(6 / 24, 1);
  await page.getByRole('button', { name: 'MP4', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Transparent' })).toHaveAttribute('aria-disabled', 'true');
  await page.getByRole('button', { name: 'Loop', exact: true }).click();
  await page.getByRole('button', { name: 'WebP', exact: true }).click();
  const loop = await taken(/^Export loop of 6 frames/);
  const frames = await page.evaluate(async (data) => {
    const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
    const decoder = new ImageDecoder({ data: bytes, type: 'image/webp' });
    await decoder.tracks.ready;
    return { turns: decoder.tracks.selectedTrack!.repetitionCount, type: decoder.type };
  }, loop.bytes.toString('base64'));
  expect(frames).toEqual({ turns: Infinity, type: 'image/webp' });
  await page.getByRole('button', { name: 'On one page', exact: true }).click();
  expect((await taken(/^Export sprite sheet/)).name).toBe('formats-sprites-alpha.zip');
  await page.getByRole('button', { name: 'Frames', exact: true }).click();
  await page.getByRole('button', { name: 'PNG 16 bit', exact: true }).click();
  await choose(page.getByLabel('Alpha', { exact: true }), 'matte');
  await page.getByRole('button', { name: 'Numbers, version, handles' }).click();
  await page.getByRole('textbox', { name: 'Version' }).fill('a/b');
  await expect(page.getByTestId('names')).toContainText('The version must be');
  await page.getByRole('textbox', { name: 'Version' }).fill('v02');
  await page.getByLabel('First number').fill('101');
  await page.keyboard.press('Enter');
  await page.getByLabel('Frames after').fill('2');
  await page.keyboard.press('Enter');
  await page.getByText('Cut to what is drawn').click();
  await expect(page.getByTestId('names')).toHaveText('formats-v02-0101.png to formats-v02-0108.png');
  const zip = unzipSync((await taken(/^Export 8 frames/)).bytes);
  const names = Object.keys(zip);
  expect(names.filter((name) => name.endsWith('.png'))).toHaveLength(8);
  const notes = new TextDecoder().decode(zip['formats/formats-notes.txt']);
  expect(notes).toMatch(/Alpha: none in the files: they are mattes/);
  expect(notes).toMatch(/cut to \d+ x \d+ px/);
});

test('one press delivers several, lines only and a part of the picture among them, into a folder that is picked', async ({
  page,
}) => {
  const shot = await makeShot(address(), { name: 'Several', length: 2 });
  await openDesk(page, address(), shot);
  await drawn(page, 1);
  await saved(page);
  await page.goto(`${address()}/shots/${shot}/export`);
  await choose(page.getByLabel('Layers'), { label: 'lines only' });
  await page.getByRole('button', { name: 'Deliver this too' }).click();
  await expect(page.getByRole('list', { name: 'Delivered together' })).toContainText('02-png-lines');
  await choose(page.getByLabel('Layers'), { label: 'all of them' });
  await page.getByText('Crop', { exact: true }).click();
  await page.getByLabel('Only a part of the picture').check();
  await page.getByLabel('Width').fill('320');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Export 2 frames and 1 more' }).click();
  const row = page.getByTestId('export').first();
  await expect(row).toHaveAttribute('data-state', 'done');
  await expect(row).toContainText('several-2-deliveries.zip');
  // A folder of the browser's own stands for the one that would be picked.
  await page.evaluate(() => {
    Object.assign(window, {
      showDirectoryPicker: async () =>
        (await navigator.storage.getDirectory()).getDirectoryHandle('out', { create: true }),
    });
  });
  await row.getByRole('button', { name: 'Into a folder' }).click();
  await expect(page.getByText(/files put into “out”/)).toBeVisible();
  const names = await page.evaluate(async () => {
    const out = await (await navigator.storage.getDirectory()).getDirectoryHandle('out');
    const found: string[] = [];
    const folders = out as unknown as {
      entries(): AsyncIterable<[string, { entries?(): AsyncIterable<[string, unknown]> }]>;
    };
    for await (const [folder, handle] of folders.entries())
      if (handle.entries) for await (const [name] of handle.entries()) found.push(`${folder}/${name}`);
    return found.sort();
  });
  expect(names).toEqual(expect.arrayContaining(['01-png-320x360/several-0001.png', '02-png-lines/several-0002.png']));
});
