/** Copies of layers, folders and elements: right over what they were made from, or taken to elsewhere, another shot too. */
import { entitiesOf, find, findAll, randomId, type Id, type ShotDocument } from '@tallow/core/document';
import { copyParts, pasteParts, takeParts, type PartsClip } from '@tallow/core/edit';
import { withDrawings } from '../saving/drawings.ts';
import { current } from '../selection/current.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, say, useDocument } from '../shot/document.ts';

/** Does something with parts of the shot once their drawings are here. */
function withParts(ids: readonly Id[], then: (doc: ShotDocument) => void): void {
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
      const { doc: now } = useDocument.getState();
      if (now) then(now);
    },
  );
}

function duplicate(step: string, ids: readonly Id[], then: (copies: ReadonlyMap<Id, Id>) => void): void {
  withParts(ids, () => {
    let copies: ReadonlyMap<Id, Id> = new Map();
    edit(step, (now) => {
      const made = copyParts(now, ids, randomId);
      ({ copies } = made);
      return made.doc;
    });
    then(copies);
  });
}

/** A layer, and those that are tied in time to it where these are wanted. */
function layersOf(layerId: Id, withTied: boolean): Id[] {
  const { doc } = useDocument.getState();
  const layer = doc && find(doc, 'layer', layerId);
  if (!layer) return [];
  const tied = entitiesOf(doc, 'layer').filter(
    ({ id, runListId, elementId }) =>
      id !== layerId && runListId === layer.runListId && elementId === layer.elementId && withTied,
  );
  return [layerId, ...tied.map(({ id }) => id)];
}

export function duplicateLayer(layerId: Id, withTied: boolean): void {
  const ids = layersOf(layerId, withTied);
  duplicate(ids.length > 1 ? 'duplicate tied layers' : 'duplicate layer', ids, (copies) => {
    setSelection({ layerId: copies.get(layerId) ?? layerId, selectedRuns: null });
  });
}

export const duplicateFolder = (folderId: Id): void => {
  duplicate('duplicate folder', [folderId], () => undefined);
};

export const duplicateElement = (elementId: Id): void => {
  duplicate('duplicate element', [elementId], (copies) => {
    setSelection({ elementId: copies.get(elementId) ?? elementId, layerId: null, selectedRuns: null });
  });
};

/** What was copied last, whichever shot it lay in, and what it is called. */
let clip: { readonly parts: PartsClip; readonly name: string } | null = null;

function copy(ids: readonly Id[]): void {
  withParts(ids, (doc) => {
    const first = doc.entities[ids[0]!];
    const name = (first && 'name' in first ? first.name : null) ?? '';
    clip = { parts: takeParts(doc, ids), name };
    say(
      `“${name}” is copied${ids.length > 1 ? ' with what is tied to it' : ''}. It can be pasted here or in another shot.`,
    );
  });
}

export const copyLayer = (layerId: Id, withTied: boolean): void => {
  copy(layersOf(layerId, withTied));
};
/** Copies a folder or an element. */
export const copyPart = (id: Id): void => {
  copy([id]);
};

export const whyNotPasteLayers = (): string | null =>
  clip === null
    ? 'Nothing is copied. Copy a layer, a folder or an element first, here or in another shot.'
    : current()?.active
      ? null
      : 'There is no layer to paste over. Add one first.';

/** Puts what was copied into the shot: an element in front of the others, layers and folders over the active layer. */
export function pasteLayers(): void {
  const over = current()?.active?.layer;
  if (!clip || !over) return;
  const { parts } = clip;
  let made: ReturnType<typeof pasteParts> | undefined;
  edit('paste', (doc) => {
    made = pasteParts(doc, parts, over.id, randomId);
    return made.doc;
  });
  if (!made) return;
  const [root] = parts.roots;
  const id = (root && made.copies.get(root)) ?? null;
  if (find(made.doc, 'element', id)) setSelection({ elementId: id, layerId: null, selectedRuns: null });
  else if (find(made.doc, 'layer', id)) setSelection({ layerId: id, selectedRuns: null });
  const { broughtSwatches: brought } = made;
  if (brought > 0)
    say(brought === 1 ? 'One swatch came along into the palette.' : `${brought} swatches came along into the palette.`);
}
