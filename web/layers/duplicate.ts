/** Copies of layers, folders and elements on the desk: one step of undo, the copy in hand afterwards. */
import { entitiesOf, find, findAll, randomId, type Id } from '@tallow/core/document';
import { copyParts } from '@tallow/core/edit';
import { withDrawings } from '../saving/drawings.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, useDocument } from '../shot/document.ts';

/** Copies parts of the shot once their drawings are here. @param then gets what each of them has become. */
function duplicate(step: string, ids: readonly Id[], then: (copies: ReadonlyMap<Id, Id>) => void): void {
  const { doc } = useDocument.getState();
  if (!doc) return;
  const layers = entitiesOf(doc, 'layer').filter(
    ({ id, elementId }) =>
      ids.includes(id) ||
      ids.includes(elementId) ||
      findAll(doc, 'folder', ids).some((each) => each.layers.includes(id)),
  );
  withDrawings(
    layers.flatMap(({ slots }) => Object.values(slots)),
    () => {
      let copies: ReadonlyMap<Id, Id> = new Map();
      edit(step, (now) => {
        const made = copyParts(now, ids, randomId);
        ({ copies } = made);
        return made.doc;
      });
      then(copies);
    },
  );
}

/** Copies a layer, and those that are tied in time to it where these are wanted. */
export function duplicateLayer(layerId: Id, withTied: boolean): void {
  const { doc } = useDocument.getState();
  const layer = doc && find(doc, 'layer', layerId);
  if (!layer) return;
  const tied = entitiesOf(doc, 'layer').filter(
    ({ id, runListId, elementId }) =>
      id !== layerId && runListId === layer.runListId && elementId === layer.elementId && withTied,
  );
  duplicate(
    tied.length > 0 ? 'duplicate tied layers' : 'duplicate layer',
    [layerId, ...tied.map(({ id }) => id)],
    (copies) => {
      setSelection({ layerId: copies.get(layerId) ?? layerId, picked: null });
    },
  );
}

export const duplicateFolder = (folderId: Id): void => {
  duplicate('duplicate folder', [folderId], () => undefined);
};

export const duplicateElement = (elementId: Id): void => {
  duplicate('duplicate element', [elementId], (copies) => {
    setSelection({ elementId: copies.get(elementId) ?? elementId, layerId: null, picked: null });
  });
};
