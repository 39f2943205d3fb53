/** Bringing pictures in, and which plate is in hand. */
import { find, randomId, shotOf, type Id, type Plate } from '@tallow/core/document';
import { addPlate } from '@tallow/core/edit';
import { create } from 'zustand';
import { edit, say, useDocument } from '../shot/document.ts';

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

interface Brought {
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
}

let stopping: AbortController | null = null;
export const stopBringing = (): void => {
  stopping?.abort();
};

/** Sends one file. @throws what the server says of it, for the user. */
async function sent(file: File, signal: AbortSignal): Promise<Brought> {
  const answer = await fetch(`/api/assets?name=${encodeURIComponent(file.name)}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: file,
    signal,
  });
  const body = (await answer.json().catch(() => ({}))) as Brought & { title?: string };
  if (!answer.ok) throw new Error(`${file.name}: ${body.title ?? 'the server did not take it.'}`);
  return body;
}

/** Files in the order of the numbers in their names. */
const byNumber = (a: File, b: File): number => a.name.localeCompare(b.name, 'en', { numeric: true });

/** The pictures in a zip, as files. */
async function unzipped(file: File): Promise<File[]> {
  const { unzip } = await import('fflate');
  const entries = await new Promise<Record<string, Uint8Array>>((done, fail) => {
    void file.arrayBuffer().then((buffer) => {
      unzip(
        new Uint8Array(buffer),
        { filter: ({ name }) => isPicture(name) && !name.startsWith('__') },
        (error, all) => {
          if (error) fail(error);
          else done(all);
        },
      );
    }, fail);
  });
  return Object.entries(entries).map(
    ([name, bytes]) => new File([bytes as Uint8Array<ArrayBuffer>], name.split('/').at(-1)!),
  );
}
/** What can be brought in, as a file chooser is told. */
export const ACCEPTED = '.png,.jpg,.jpeg,.webp,.gif,.svg,.zip';

const isPicture = (name: string): boolean => /\.(png|jpe?g|webp|gif|svg)$/i.test(name);

/**
 * Brings pictures in: one is a still plate, several numbered ones or a zip of them are one plate, a picture a frame.
 * What is wrong with one is said, and nothing changes.
 */
export async function bringIn(files: readonly File[]): Promise<void> {
  if (files.length === 0 || references().coming) return;
  const abort = new AbortController();
  stopping = abort;
  setReferences({ coming: { done: 0, of: files.length } });
  try {
    const isZip = files.length === 1 && /\.zip$/i.test(files[0]!.name);
    const list = (isZip ? await unzipped(files[0]!) : [...files]).sort(byNumber);
    if (list.length === 0)
      throw new Error('There is no picture in this zip. PNG, JPEG, WebP, SVG and GIF can come in.');
    const brought: Brought[] = [];
    for (const file of list) {
      setReferences({ coming: { done: brought.length, of: list.length } });
      brought.push(await sent(file, abort.signal));
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
  } catch (error) {
    if (!abort.signal.aborted)
      say(
        error instanceof TypeError
          ? 'The server cannot be reached. Bring the picture in again when it can.'
          : (error as Error).message,
      );
  } finally {
    setReferences({ coming: null });
    stopping = null;
  }
}

/** The plate in hand, if it is still there. */
export function plateInHand(): Plate | undefined {
  const { doc } = useDocument.getState();
  return doc ? find(doc, 'plate', references().plateId) : undefined;
}

/** The first frames a plate is seen on when its span is first set: the whole shot's. */
export const wholeSpan = (): { from: number; length: number } => {
  const { doc } = useDocument.getState();
  return { from: 0, length: doc ? shotOf(doc).length : 1 };
};
