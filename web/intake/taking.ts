/** What files that are dropped can be taken for. */

/** Files that come in as one thing. */
export type Files = readonly [File, ...File[]];

export interface Taking {
  /** What comes of them, as it is offered. */
  readonly label: string;
  /** The same in a few more words. */
  readonly says: string;
  /** Whether it can be made of them; the best way for most stands first in the list. */
  readonly fits: (files: Files) => boolean | Promise<boolean>;
  /** @throws what is wrong with them, for the user: then nothing has changed. */
  readonly bring: (files: Files, signal: AbortSignal, tell: (done: number, of: number) => void) => Promise<void>;
}

/** The ending of a file's name, in lower case. */
export const endingOf = ({ name }: File): string => name.slice(name.lastIndexOf('.') + 1).toLowerCase();

/** Whether files call themselves one of some kinds, by their endings. */
export const called = (files: Files, ...endings: readonly string[]): boolean =>
  files.every((file) => endings.includes(endingOf(file)));

/** Whether a file's first bytes hold a text. */
export async function fileHolds(file: File, text: string): Promise<boolean> {
  const head = new Uint8Array(await file.slice(0, 64 * 1024).arrayBuffer());
  return new TextDecoder('latin1').decode(head).includes(text);
}

/** A file's name without its ending, as a thing can be called. */
export const stemOf = ({ name }: File, preset: string): string => name.replace(/\.\w+$/, '').slice(0, 80) || preset;
