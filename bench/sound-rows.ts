/** Rows about sound: a recording of five minutes looked through, here and in the page, where nothing may wait for it. */
import { chromium } from '@playwright/test';
import { newShotDocument } from '@tallow/core/document';
import { HitFinder, MADE_RATE, MADE_SOUNDS, Peaks, wavOf } from '@tallow/core/sound';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { CHROMIUM, FLAGS } from '../e2e/chromium.ts';
import { createApp } from '../server/app.ts';
import { migrate, openDatabase } from '../server/db/database.ts';
import { shotServices } from '../server/shots/services.ts';
import { newId } from './documents.ts';
import { against, timed, type Row } from './measure.ts';

const MINUTES = 5;
/** A task of the main thread as long as this is felt, ms. */
const LONG_MS = 50;
/** What looking through the recording may take, ms. */
const LOOK_MS = 5000;

/** Five minutes of strikes and bursts. */
function recording(): Float32Array<ArrayBuffer> {
  const all = new Float32Array(MINUTES * 60 * MADE_RATE);
  const parts = [MADE_SOUNDS.strike.make(1), MADE_SOUNDS.burst.make(2), MADE_SOUNDS.roar.make(3)];
  for (let at = 0, i = 0; at < all.length; i++) {
    const part = parts[i % parts.length]!;
    all.set(part.subarray(0, all.length - at), at);
    at += part.length;
  }
  return all;
}

/** The longest task of the page, ms, from choosing a file until its form is drawn. */
async function longestInPage(wav: Uint8Array): Promise<number> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; use npm run bench');
  const database = openDatabase(url);
  await migrate(database);
  const app: NestExpressApplication = await createApp(database, resolve('dist/web'));
  await app.listen(0, '127.0.0.1');
  const address = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}`;
  const production = newId();
  await database('productions').insert({ id: production, name: 'Sound' });
  const facts = { name: 'Sound', width: 1280, height: 720, rate: 24, length: 240, background: '#101010' };
  const doc = newShotDocument(newId(), facts, newId);
  await shotServices(database).shots.insert(doc, production);
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: FLAGS });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/shots/${doc.shotId}/assemble`);
  await page.getByTestId('assemble-foot').waitFor();
  await page.waitForTimeout(3000);
  await page.evaluate(() => {
    const kept = { longest: 0 };
    Object.assign(window, { kept });
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) kept.longest = Math.max(kept.longest, duration);
    }).observe({ type: 'longtask' });
  });
  // From the disk, as a user has it.
  const folder = mkdtempSync(join(tmpdir(), 'tallow-sound-bench-'));
  writeFileSync(join(folder, 'long.wav'), wav);
  await page.getByLabel('Sound file').setInputFiles(join(folder, 'long.wav'));
  await page.locator('[data-testid=sound-bar][data-state=there]').waitFor({ timeout: 120_000 });
  await page.waitForTimeout(500);
  const longest = await page.evaluate(() => (window as unknown as { kept: { longest: number } }).kept.longest);
  await browser.close();
  rmSync(folder, { recursive: true, force: true });
  await app.close();
  await database.destroy();
  return longest;
}

export async function soundRows(): Promise<Row[]> {
  const samples = recording();
  const look = (): void => {
    const [peaks, finder] = [new Peaks(samples.length), new HitFinder(MADE_RATE)];
    peaks.take(samples);
    finder.take(samples);
    peaks.levels();
    finder.found();
  };
  return [
    against('form and hits of a recording of 5 minutes', timed(3, look), LOOK_MS),
    against(
      'longest task of the page while 5 minutes of sound come in',
      await longestInPage(wavOf(samples, MADE_RATE)),
      LONG_MS,
    ),
  ];
}
