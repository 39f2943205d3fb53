/** What takes the pen as it lands on the picture: the canvas feeds it, and so does the practice pen. */
import type { PenDoing, PenSample } from './pen-doing.ts';

type Pen = (first: PenSample) => PenDoing | null;
let pen: Pen | null = null;

export const openPen = (): Pen | null => pen;
export const setPen = (next: Pen | null): void => {
  pen = next;
};
