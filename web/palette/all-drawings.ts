/** Edits of the palette reach into every drawing: all of them have to be here. */
import { useDocument } from '../shot/document.ts';
import { withDrawings } from '../saving/drawings.ts';

/** Runs something that needs all drawings here. */
export const withAllDrawings = (then: () => void): void => {
  withDrawings([...useDocument.getState().missing], then);
};
