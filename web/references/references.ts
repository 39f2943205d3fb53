/** Bringing pictures in, and which plate is selected. */
import { find, randomId, shotOf, type Id, type Plate } from '@tallow/core/document';
import { addPlate, setPlate } from '@tallow/core/edit';
import { create } from 'zustand';
import { uploadFile } from '../api/long-work.ts';
import { shotFrameNow } from '../playback/shot-time.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { bringSound, isSound } from '../sound/bring.ts';
import { isOpenRaster, readOpenRaster } from './open-raster.ts';
import { unzipped } from './unzip.ts';
import { bringFootage, FOOTAGE_ENDINGS, isFootage, type Footage } from './footage.ts';

interface References {
  /** Whether the column shows them. */
  readonly shown: boolean;
  readonly plateId: Id | null;
  /** What is on its way to the server, or null. */
  readonly coming: { readonly done: number; readonly of: number } | null;
}
export const useReferences = create<References>(() => ({ shown: false, plateId: null, coming: null }));
export const references = useReferences.getState;
export const setReferences = useReferences.setState;

export interface Brought {
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
}

let stopping: AbortController | null = null;
export const stopBringing = (): void => {
  stopping?.abort();
};

/** Keeps a picture on the server. @throws what the server says of it, for the user. */
export const sent = (file: File, signal: AbortSignal): Promise<Brought> =>
  uploadFile<Brought>(`/assets?name=${encodeURIComponent(file.name)}`, file, signal);

/** Files in the order of the numbers in their names. */
const byNumber = (a: File, b: File): number => a.name.localeCompare(b.name, 'en', { numeric: true });

/** The pictures in a zip, as files. */
async function picturesIn(file: File, signal: AbortSignal): Promise<File[]> {
  const all = await unzipped(file, (name) => isPicture(name) && !name.startsWith('__'), signal);
  return all.map(({ name, bytes }) => new File([bytes as Uint8Array<ArrayBuffer>], name.split('/').at(-1)!));
}

/** What can be brought in, in a file chooser's terms. */
export const ACCEPTED = `.png,.jpg,.jpeg,.webp,.gif,.svg,.zip,.ora,${FOOTAGE_ENDINGS.map((each) => `.${each}`).join()}`;

export const isPicture = (name: string): boolean => /\.(png|jpe?g|webp|gif|svg)$/i.test(name);
export const isZip = ({ name }: Pick<File, 'name'>): boolean => /\.zip$/i.test(name);

/** Does something that takes its time, one thing at once: told, stopped by `stopBringing`; what goes wrong is said. */
export async function underway(of: number, work: (signal: AbortSignal) => Promise<void>): Promise<void> {
  if (references().coming) {
    say('Something is coming in already: wait for it, or stop it.');
    return;
  }
  const abort = new AbortController();
  stopping = abort;
  setReferences({ coming: { done: 0, of } });
  try {
    await work(abort.signal);
  } catch (error) {
    if (!abort.signal.aborted)
      say(
        error instanceof TypeError
          ? 'The server cannot be reached. Bring it in again when it can.'
          : (error as Error).message,
      );
  } finally {
    setReferences({ coming: null });
    stopping = null;
  }
}

/**
 * Brings pictures in: one is a still plate, several numbered ones or a zip of them are one plate, a picture a frame; a sound is laid on the shot.
 * What is wrong with one is said, and nothing changes.
 */
export async function bringIn(files: readonly File[]): Promise<void> {
  const [only] = files;
  if (!only) return;
  if (files.length > 1) await underway(files.length, (signal) => bringSequence(files, signal));
  else if (isSound(only)) await bringOneSound(only);
  else if (isFootage(only)) await underway(1, (signal) => bringFilm(only, signal));
  else if (isOpenRaster(only)) await underway(1, (signal) => bringLayers(only, signal));
  else if (isZip(only)) await underway(1, (signal) => bringZip(only, signal));
  else await underway(1, (signal) => bringSequence([only], signal));
}

/** Lays a sound on the shot from the playhead on. */
export async function bringOneSound(file: File): Promise<void> {
  if (await bringSound(file)) say(`${file.name} is heard from frame ${shotFrameNow() + 1} of the shot on.`);
}

/** Brings the pictures of a zip in as one plate. */
export async function bringZip(file: File, signal: AbortSignal): Promise<void> {
  const list = await picturesIn(file, signal);
  if (list.length === 0) throw new Error('There is no picture in this zip. PNG, JPEG, WebP, SVG and GIF can come in.');
  await bringSequence(list, signal);
}

/** Brings pictures in as one plate: a still, or numbered ones, a picture a frame. */
export async function bringSequence(files: readonly File[], signal: AbortSignal): Promise<void> {
  const list = [...files].sort(byNumber);
  const brought: Brought[] = [];
  for (const file of list) {
    setReferences({ coming: { done: brought.length, of: list.length } });
    brought.push(await sent(file, signal));
  }
  const { width, height } = brought[0]!;
  const other = brought.findIndex((each) => each.width !== width || each.height !== height);
  if (other > 0) throw new Error(`${list[other]!.name} has another size than the first picture of the sequence.`);
  const name = list[0]!.name.replace(/\.\w+$/, '').slice(0, 80) || 'Picture';
  let made: Id = '';
  edit(list.length > 1 ? 'bring in a sequence' : 'bring in a picture', (doc) => {
    const added = addPlate(doc, { name, assets: brought.map(({ sha256 }) => sha256), width, height }, randomId);
    made = added.plateId;
    return added.doc;
  });
  setReferences({ plateId: made, shown: true });
}

/** Brings an OpenRaster file in: each of its layers a plate, as they lie in it, the whole as large as fits the shot. */
export async function bringLayers(file: File, signal: AbortSignal): Promise<void> {
  const { width, height, layers } = await readOpenRaster(file, signal);
  const brought: Brought[] = [];
  for (const { picture } of layers) {
    setReferences({ coming: { done: brought.length, of: layers.length } });
    brought.push(await sent(picture, signal));
  }
  let first: Id = '';
  edit('bring in layers', (doc) => {
    const shot = shotOf(doc);
    const scale = Math.min(shot.width / width, shot.height / height);
    return layers.reduce((next, { name, x, y, opacity, visible }, i) => {
      const { sha256, ...size } = brought[i]!;
      const added = addPlate(next, { name, assets: [sha256], ...size }, randomId);
      if (i === 0) first = added.plateId;
      return setPlate(added.doc, added.plateId, {
        scale,
        x: shot.width / 2 + (x + size.width / 2 - width / 2) * scale,
        y: shot.height / 2 + (y + size.height / 2 - height / 2) * scale,
        opacity,
        visible,
        guide: false,
      });
    }, doc);
  });
  setReferences({ plateId: first, shown: true });
  say(`${layers.length} layers of ${file.name} came in, each a plate.`);
}

/** Brings a video in as a plate, a picture a frame at the shot's rate. */
export async function bringFilm(film: File, signal: AbortSignal): Promise<void> {
  const { doc } = useDocument.getState();
  if (!doc) return;
  const { rate } = shotOf(doc);
  const came = await bringFootage(film, rate, signal, (done, of) => {
    setReferences({ coming: { done, of } });
  });
  layFootage(came, film.name);
  say(`${came.assets.length} frames came in: ${came.told}.`);
}

/** Keeps a picture made here on the server, and lays it as a still plate. @throws what the server says, for the user. */
export async function layStill(picture: Blob, name: string): Promise<void> {
  const { sha256, width, height } = await sent(new File([picture], `${name}.png`), new AbortController().signal);
  edit('still of this frame', (doc) => addPlate(doc, { name, assets: [sha256], width, height }, randomId).doc);
}

/** Lays footage that has come in as a plate: seen from the first frame on, as large as the shot, part of the picture. */
export function layFootage(
  { assets, width, height }: Pick<Footage, 'assets' | 'width' | 'height'>,
  named: string,
): void {
  const name = named.replace(/\.\w+$/, '').slice(0, 80) || 'Footage';
  let made: Id = '';
  edit('bring in footage', (doc) => {
    const added = addPlate(doc, { name, assets, width, height }, randomId);
    made = added.plateId;
    return setPlate(added.doc, made, { guide: false, span: { from: 0, length: assets.length } });
  });
  setReferences({ plateId: made, shown: true });
}

/** The selected plate, if it is still there. */
export function selectedPlate(): Plate | undefined {
  const { doc } = useDocument.getState();
  return doc ? find(doc, 'plate', references().plateId) : undefined;
}

/** The first frames a plate is seen on when its span is first set: the whole shot's. */
export const wholeSpan = (): { from: number; length: number } => {
  const { doc } = useDocument.getState();
  return { from: 0, length: doc ? shotOf(doc).length : 1 };
};
