/** How large the picture is and how the shot lies in it, and what who works on it asks of the engine. */
import type { Matrix } from '@tallow/core/geometry';

export interface PicturePlace {
  /** Device pixels. */
  readonly width: number;
  readonly height: number;
  /** Shot px to device pixels. */
  readonly view: Matrix;
}

/** What is asked of the engine by who shows something before the document has it. */
export interface PictureWork {
  readonly place: () => PicturePlace;
  /** What can wait, waits from now on. */
  readonly begins: () => void;
  /** The document has what is shown: pictures from before are not shown any more. */
  readonly settled: () => void;
  /** The picture is asked for anew. */
  readonly again: () => void;
}
