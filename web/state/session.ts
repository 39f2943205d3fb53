/** The one open shot of this page: who saves it, and which engine shows it. */
import type { Engine } from '../desk/engine.ts';
import type { PenDoing, PenSample } from '../desk/pen-hand.ts';
import { FRESH, setDesk } from './desk.ts';
import { NOTHING_PLANNED, setPlanning } from './plan.ts';
import { closeDocument } from './document.ts';
import { Saver } from '../saving/saver.ts';
import './place.ts';

let saver: Saver | null = null;
let engine: Engine | null = null;
/** Takes the pen as it lands on the picture: the canvas feeds it, and so does the practice pen. */
type Pen = (first: PenSample) => PenDoing | null;
let pen: Pen | null = null;

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
    setDesk(FRESH);
    setPlanning(NOTHING_PLANNED);
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
export const openPen = (): Pen | null => pen;
export const setPen = (next: Pen | null): void => {
  pen = next;
};
export const openEngine = (): Engine | null => engine;
export const setEngine = (next: Engine | null): void => {
  engine = next;
};
