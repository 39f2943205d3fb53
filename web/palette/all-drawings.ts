/** Edits of the palette reach into every drawing: all of them have to be here. */
import { useDocument } from '../state/document.ts';
import { withDrawings } from '../state/time-edits.ts';

/** Runs something that needs all drawings here. */
export const withAllDrawings = (then: () => void): void => {
  withDrawings([...useDocument.getState().missing], then);
};
