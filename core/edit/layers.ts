/** Edits of layers and of the folders they lie in. */
import {
  AT_HOME,
  constant,
  dropEntities,
  find,
  newLayer,
  putEntities,
  type Element,
  type Folder,
  type Id,
  type Layer,
  type LayerRole,
  type NewId,
  type ShotDocument,
  type Value,
  withNumber,
} from '../document/index.ts';
import { timedLayers } from '../timing/index.ts';
import { deleteEntities } from './remove.ts';

/** The element or folder that lists a layer or folder. */
export function listOf(doc: ShotDocument, id: Id): Element | Folder | undefined {
  return Object.values(doc.entities).find(
    (e): e is Element | Folder => (e.kind === 'element' || e.kind === 'folder') && e.layers.includes(id),
  );
}

/** Adds a layer above `aboveId`, in its folder if it lies in one, or on top. The edit says which id it got. */
export function addLayer(
  doc: ShotDocument,
  elementId: Id,
  name: string,
  role: LayerRole,
  aboveId: Id | null,
  newId: NewId,
): { doc: ShotDocument; layerId: Id } {
  const { layer, list } = newLayer(elementId, name, role, newId);
  const into = (aboveId && listOf(doc, aboveId)) || find(doc, 'element', elementId);
  if (!into) throw new Error(`Element ${elementId} is not in this shot`);
  const at = Math.max(0, aboveId ? into.layers.indexOf(aboveId) : 0);
  return {
    doc: putEntities(doc, layer, list, { ...into, layers: into.layers.toSpliced(at, 0, layer.id) }),
    layerId: layer.id,
  };
}

/** Adds a layer in front of all others or behind them that shows one drawing throughout. The edit says which id it got. */
export function addStill(
  doc: ShotDocument,
  elementId: Id,
  name: string,
  where: 'front' | 'behind',
  newId: NewId,
): { doc: ShotDocument; layerId: Id } {
  const { layer, list } = newLayer(elementId, name, 'body', newId);
  const element = find(doc, 'element', elementId);
  if (!element) throw new Error(`Element ${elementId} is not in this shot`);
  const layers = where === 'front' ? [layer.id, ...element.layers] : [...element.layers, layer.id];
  return { doc: putEntities(doc, layer, { ...list, period: 1 }, { ...element, layers }), layerId: layer.id };
}

function unlisted(doc: ShotDocument, id: Id): ShotDocument {
  const from = listOf(doc, id);
  return from ? putEntities(doc, { ...from, layers: from.layers.filter((each) => each !== id) }) : doc;
}

/** Deletes a layer with its drawings and, when no other layer points at it, its run list. */
export const deleteLayer = (doc: ShotDocument, layerId: Id): ShotDocument =>
  find(doc, 'layer', layerId) ? deleteEntities(doc, [layerId]) : doc;

/** Moves a layer or folder before the entry at an index of an element's or folder's list, 0 being the topmost. */
export function moveLayer(doc: ShotDocument, id: Id, intoId: Id, index: number): ShotDocument {
  const from = listOf(doc, id);
  if (from?.id === intoId && from.layers[index] === id) return doc;
  const without = unlisted(doc, id);
  const into = find(without, 'element', intoId) ?? find(without, 'folder', intoId);
  if (!into || (into.kind === 'folder' && !find(doc, 'layer', id))) return doc;
  return putEntities(without, { ...into, layers: into.layers.toSpliced(index, 0, id) });
}

/** What of a layer can be set directly. */
type LayerSettings = Partial<
  Pick<
    Layer,
    | 'name'
    | 'role'
    | 'visible'
    | 'locked'
    | 'blend'
    | 'onion'
    | 'tag'
    | 'inside'
    | 'clip'
    | 'tint'
    | 'finishes'
    | 'forWork'
    | 'matte'
  >
> & {
  opacity?: number;
};

const shared = (value: Value, opacity: number | undefined, frame: number): Value =>
  opacity === undefined ? value : withNumber(value, frame, Math.min(1, Math.max(0, opacity)));

/** Sets what can be set of a layer; opacity is 0 to 1, and set at a frame where it changes over time. */
export function setLayer(
  doc: ShotDocument,
  layerId: Id,
  { opacity, ...settings }: LayerSettings,
  frame = 0,
): ShotDocument {
  const layer = find(doc, 'layer', layerId);
  if (!layer) return doc;
  return putEntities(doc, { ...layer, ...settings, opacity: shared(layer.opacity, opacity, frame) });
}

/** Puts layers into a new folder, where the topmost of them stood. The edit says which id it got. */
export function addFolder(
  doc: ShotDocument,
  elementId: Id,
  name: string,
  layerIds: readonly Id[],
  newId: NewId,
): { doc: ShotDocument; folderId: Id } {
  const element = find(doc, 'element', elementId);
  if (!element) throw new Error(`Element ${elementId} is not in this shot`);
  const folder: Folder = {
    kind: 'folder',
    shift: AT_HOME,
    finishes: [],
    id: newId(),
    elementId,
    name,
    visible: true,
    locked: false,
    opacity: constant(1),
    layers: [...layerIds],
  };
  const at = element.layers.findIndex(
    (id) => layerIds.includes(id) || find(doc, 'folder', id)?.layers.some((each) => layerIds.includes(each)),
  );
  const without = layerIds.reduce(unlisted, doc);
  const now = find(without, 'element', elementId)!;
  return {
    doc: putEntities(without, folder, { ...now, layers: now.layers.toSpliced(Math.max(0, at), 0, folder.id) }),
    folderId: folder.id,
  };
}

/** Takes a folder away; its layers stay where it stood. */
export function dissolveFolder(doc: ShotDocument, folderId: Id): ShotDocument {
  const folder = find(doc, 'folder', folderId);
  const from = listOf(doc, folderId);
  if (!folder || !from) return doc;
  const layers = from.layers.toSpliced(from.layers.indexOf(folderId), 1, ...folder.layers);
  return dropEntities(putEntities(doc, { ...from, layers }), [folderId]);
}

type FolderSettings = Partial<Pick<Folder, 'name' | 'visible' | 'locked'>> & { opacity?: number };

/** Sets a folder's name, visibility, lock or opacity (0 to 1, at a frame where it changes over time). */
export function setFolder(
  doc: ShotDocument,
  folderId: Id,
  { opacity, ...settings }: FolderSettings,
  frame = 0,
): ShotDocument {
  const folder = find(doc, 'folder', folderId);
  if (!folder) return doc;
  return putEntities(doc, {
    ...folder,
    ...settings,
    opacity: shared(folder.opacity, opacity, frame),
  });
}

/** Locks every layer of an element but one. The edit says which were not locked before. */
export function lockOthers(doc: ShotDocument, elementId: Id, butId: Id): { doc: ShotDocument; locked: Id[] } {
  const element = find(doc, 'element', elementId);
  const others = element
    ? timedLayers(doc, element).flatMap(({ layer }) => (layer.id !== butId && !layer.locked ? [layer] : []))
    : [];
  return {
    doc: putEntities(doc, ...others.map((layer) => ({ ...layer, locked: true }))),
    locked: others.map((layer) => layer.id),
  };
}
