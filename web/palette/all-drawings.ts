/** Edits of the palette reach into every drawing: all of them have to be here. */
import { entitiesOf } from '@tallow/core/document';
import { useDocument } from '../shot/document.ts';
import { withDrawings } from '../saving/drawings.ts';

/** Runs something that needs all drawings here. */
export const withAllDrawings = (then: () => void): void => {
  const { doc, missing } = useDocument.getState();
  const here = doc ? entitiesOf(doc, 'drawing') : [];
  withDrawings([...missing, ...here.map(({ id }) => id)], then);
};
