/** The exposure sheet by itself: as a page, and as a table. */
import type { ShotDocument } from '@tallow/core/document';
import { exposureSheet, sheetPage, takenFrames } from '@tallow/core/formats';
import { stringify } from 'csv-stringify/sync';
import { writeFile } from 'node:fs/promises';
import type { Writer } from './writer.ts';

/** @param from first frame, from 0. @param to one past the last. */
export function sheetCsvText(doc: ShotDocument, from: number, to: number): string {
  const { head, rows } = exposureSheet(doc, from, to);
  // Spreadsheets take what begins with = and the like for formulas.
  return stringify([[...head], ...rows.map((each) => [...each])], { escape_formulas: true });
}

const written =
  (text: (doc: ShotDocument, from: number, to: number) => string): Writer =>
  async ({ outline, settings, path, frames, tell }) => {
    const { from, to } = takenFrames(settings);
    await writeFile(path, text(outline, from, to));
    return tell(frames, true);
  };

export const writeSheetPrint = written(sheetPage);
export const writeSheetCsv = written(sheetCsvText);
