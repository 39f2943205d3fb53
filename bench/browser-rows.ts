/** Starts Chromium on the benchmark page and brings its rows home. */
import { chromium } from '@playwright/test';
import express from 'express';
import type { AddressInfo } from 'node:net';
import { CHROMIUM, FLAGS } from '../e2e/chromium.ts';
import { against, timeRow, type Row } from './measure.ts';
import type { Rows } from './page/page.ts';

export async function browserRows(): Promise<Row[]> {
  const server = express().use(express.static('dist/bench-page')).listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: FLAGS });
  try {
    const opened = async () => {
      const page = await browser.newPage();
      await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
      await page.waitForFunction(() => 'measure' in window);
      return page;
    };
    // In a page of its own: what the other rows leave to be collected would be counted here.
    const alone = await opened();
    const unseen = await alone.evaluate(() =>
      (window as unknown as { unseenRow: () => Promise<[number, number]> }).unseenRow(),
    );
    await alone.close();
    const page = await opened();
    const rows = await page.evaluate(() => (window as unknown as { measure: () => Rows }).measure());
    const store = await page.evaluate(() =>
      (window as unknown as { storeRow: () => Promise<[number, number]> }).storeRow(),
    );
    const painters = await page.evaluate(() =>
      (window as unknown as { paintersRow: () => Promise<[number, number]> }).paintersRow(),
    );
    return [
      timeRow('a frame of eleven layers never seen before, by a painter', 'its bare canvas calls', 1.3, unseen),
      timeRow('twelve frames of ten layers by two painters', 'the same by one', 0.7, painters),
      against('a move of 2,000 strokes that are picked up, 1920x1080', rows.lift, 1000 / 30),
      timeRow('pen lifted until this browser has the stroke on disk', 'a bare write of the same drawing', 1.3, store),
      timeRow('play a cached frame, 10 layers at 1920x1080', 'the bare drawImage call', 1.2, rows.play),
      ...rows.strokes.map(({ brush, size, times }) =>
        timeRow(
          `pointer event with ${brush} at ${size}, 20 layers, 4 ghosts`,
          'the same with an empty document',
          1.1,
          times,
        ),
      ),
    ];
  } finally {
    await browser.close();
    server.close();
  }
}
