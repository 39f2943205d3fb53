/** The one open shot of this page, and who saves it. */

import { closeDocument } from '../shot/document.ts';
import { beginAnew } from '../shot/opening.ts';
import { Saver } from './saver.ts';

let saver: Saver | null = null;

let turn: Promise<unknown> = Promise.resolve();

/**
 * Opens a shot in place of the one before. The desk starts at its first frame.
 * @param isLeft whether the page that asked is gone by now; then nothing is opened.
 * @returns how to close it, or null if nothing was opened.
 */
export function openShot(shotId: string, isLeft: () => boolean): Promise<(() => void) | null> {
  const opening = turn.then(async () => {
    if (isLeft()) return null;
    const opened = await Saver.open(shotId);
    await saver?.close();
    saver = opened;
    beginAnew();
    return () => {
      // The next opening waits, so that it finds what is not saved yet.
      turn = turn.then(() => opened.close());
      if (saver !== opened) return;
      saver = null;
      closeDocument();
    };
  });
  turn = opening.catch(() => undefined);
  return opening;
}

export const openSaver = (): Saver | null => saver;
