/** Scanned drawings on their way in: what is asked of the user first, and a drawing made of each picture. */
import { randomId, shotOf, type Id } from '@tallow/core/document';
import { layScans, type ScannedDrawing } from '@tallow/core/edit';
import { apply, invert, multiply, type Matrix, type Point } from '@tallow/core/geometry';
import { DEFAULT_LEVELS, type Levels, type RegistrationMark } from '@tallow/core/scan';
import { create } from 'zustand';
import { current, homeMatrix } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, say } from '../shot/document.ts';
import { compute } from '../workers/compute-client.ts';
import type { Scanned } from '../workers/scan-work.ts';
import type { Files } from './taking.ts';

/** How scans are taken. */
export interface ScanSettings {
  readonly levels: Levels;
  /** px² of a picture under which a speck is dust. */
  readonly dust: number;
  /** Frames each drawing is seen. */
  readonly hold: number;
  /** Two marks on the first picture, as shares of its width and height; null where they are not laid over each other. */
  readonly marks: readonly [Point, Point] | null;
}

/** Where marks are looked for first: the lower corners, as sheets are punched. */
export const DEFAULT_MARKS = [
  { x: 0.1, y: 0.92 },
  { x: 0.9, y: 0.92 },
] as const satisfies readonly [Point, Point];
export const DEFAULT_SCAN: ScanSettings = { levels: DEFAULT_LEVELS, dust: 12, hold: 2, marks: null };

interface Asking {
  readonly files: Files;
  readonly answer: (settings: ScanSettings | null) => void;
}

/** What is asked now, if anything. */
export const useScans = create<{ asking: Asking | null }>(() => ({ asking: null }));

/** Asks how scans are to be taken. @returns null where they are not wanted after all. */
const asked = (files: Files, signal: AbortSignal): Promise<ScanSettings | null> =>
  new Promise((resolve) => {
    const answer = (settings: ScanSettings | null): void => {
      useScans.setState({ asking: null });
      resolve(settings);
    };
    signal.addEventListener('abort', () => {
      answer(null);
    });
    useScans.setState({ asking: { files, answer } });
  });

/** From px of a picture to the space of the element: as large as fits the picture of the shot. */
function placeIn({ width, height }: Pick<Scanned, 'width' | 'height'>): Matrix | null {
  const now = current();
  if (!now) return null;
  const shot = shotOf(now.doc);
  const scale = Math.min(shot.width / width, shot.height / height);
  const [left, top] = [(shot.width - width * scale) / 2, (shot.height - height * scale) / 2];
  return multiply(invert(homeMatrix(now, selection().frame)), [scale, 0, 0, scale, left, top]);
}

const placed = ({ shapes }: Scanned, matrix: Matrix): ScannedDrawing =>
  shapes.map(({ opacity, rings }) => ({
    opacity,
    rings: rings.map((ring) => {
      const next = new Float32Array(ring.length);
      for (let i = 0; i < ring.length; i += 2) {
        const { x, y } = apply(matrix, { x: ring[i]!, y: ring[i + 1]! });
        next[i] = x;
        next[i + 1] = y;
      }
      return next;
    }),
  }));

/** In the worker; what cannot be decoded is reported by its name. */
async function inWorker<T>(file: File, work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch {
    throw new Error(`${file.name} is broken or no picture. Nothing came in.`);
  }
}

/** The two marks as they look on the first picture. @throws which of them lies on bare paper. */
async function marksOf(file: File, at: readonly [Point, Point]): Promise<[RegistrationMark, RegistrationMark]> {
  const { marks } = await inWorker(file, compute().scanReference(file, at));
  const [first, second] = marks;
  if (first && second) return [first, second];
  throw new Error(`The ${first ? 'second' : 'first'} mark lies on bare paper. Nothing came in.`);
}

/** @throws what is wrong with them, for the user: then nothing has changed. */
export async function bringScans(
  files: Files,
  signal: AbortSignal,
  tell: (done: number, of: number) => void,
): Promise<void> {
  const sorted = files.toSorted((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true })) as unknown as Files;
  const settings = await asked(sorted, signal);
  if (!settings) return;
  const [first] = sorted;
  const marks = settings.marks && (await marksOf(first, settings.marks));
  const drawings: Scanned[] = [];
  for (const file of sorted) {
    signal.throwIfAborted();
    const scanned = await inWorker(file, compute().scanDrawing(file, settings.levels, settings.dust, marks));
    if (!scanned) throw new Error(`The two marks were not found on ${file.name}. Nothing came in.`);
    drawings.push(scanned);
    tell(drawings.length, sorted.length);
  }
  signal.throwIfAborted();
  const now = current();
  const matrix = placeIn(drawings[0]!);
  if (!now || !matrix) return;
  let layerId: Id = '';
  edit('bring in scans', (doc) => {
    const scans = drawings.map((each) => placed(each, matrix));
    const laid = layScans(doc, now.element.id, scans, { name: 'Scans', hold: settings.hold }, randomId);
    layerId = laid.layerId;
    return laid.doc;
  });
  setSelection({ layerId, selectedRuns: null });
  const empty = drawings.filter(({ shapes }) => shapes.length === 0).length;
  const bare = empty > 0 ? ` ${empty} of them ${empty === 1 ? 'is' : 'are'} empty.` : '';
  say(`${drawings.length === 1 ? 'One drawing' : `${drawings.length} drawings`} came in on a rough layer.${bare}`);
}
