/** Edits of layers and of the element they belong to. */
import {
  constant,
  dropEntities,
  find,
  newLayer,
  putEntities,
  type ElementTime,
  type Id,
  type Layer,
  type LayerRole,
  type NewId,
  type ShotDocument,
} from '../document/index.ts';

/** Adds a layer above `aboveId`, or on top. The edit says which id it got. */
export function addLayer(
  doc: ShotDocument,
  elementId: Id,
  name: string,
  role: LayerRole,
  aboveId: Id | null,
  newId: NewId,
): { doc: ShotDocument; layerId: Id } {
  const { layer, list } = newLayer(elementId, name, role, newId);
  const element = find(doc, 'element', elementId);
  if (!element) throw new Error(`Element ${elementId} is not in this shot`);
  const layers = element.layers.toSpliced(Math.max(0, aboveId ? element.layers.indexOf(aboveId) : 0), 0, layer.id);
  return { doc: putEntities(doc, layer, list, { ...element, layers }), layerId: layer.id };
}

/** Deletes a layer with its drawings and, when no other layer points at it, its run list. */
export function deleteLayer(doc: ShotDocument, layerId: Id): ShotDocument {
  const layer = find(doc, 'layer', layerId);
  if (!layer) return doc;
  const others = Object.values(doc.entities).filter((e): e is Layer => e.kind === 'layer' && e.id !== layerId);
  const usedElsewhere = new Set(others.flatMap((other) => Object.values(other.slots)));
  const gone = [layerId, ...Object.values(layer.slots).filter((id) => !usedElsewhere.has(id))];
  if (!others.some((other) => other.runListId === layer.runListId)) gone.push(layer.runListId);
  const element = find(doc, 'element', layer.elementId);
  const kept = element ? putEntities(doc, { ...element, layers: element.layers.filter((id) => id !== layerId) }) : doc;
  return dropEntities(kept, gone);
}

/** Moves a layer to an index in its element's list, 0 being the topmost. */
export function moveLayer(doc: ShotDocument, layerId: Id, index: number): ShotDocument {
  const element = find(doc, 'element', find(doc, 'layer', layerId)?.elementId);
  if (!element || element.layers[index] === layerId) return doc;
  const layers = element.layers.filter((id) => id !== layerId).toSpliced(index, 0, layerId);
  return putEntities(doc, { ...element, layers });
}

/** What of a layer can be set directly. */
export type LayerSettings = Partial<Pick<Layer, 'name' | 'role' | 'visible' | 'locked'>> & { opacity?: number };

/** Sets a layer's name, role, visibility, lock or opacity (0 to 1). */
export function setLayer(doc: ShotDocument, layerId: Id, { opacity, ...settings }: LayerSettings): ShotDocument {
  const layer = find(doc, 'layer', layerId);
  if (!layer) return doc;
  const next: Layer = {
    ...layer,
    ...settings,
    opacity: opacity === undefined ? layer.opacity : constant(Math.min(1, Math.max(0, opacity))),
  };
  return putEntities(doc, next);
}

/** Closes an element into a cycle, ends it as a one-shot, or opens it again. */
export function setElementTime(doc: ShotDocument, elementId: Id, time: ElementTime): ShotDocument {
  const element = find(doc, 'element', elementId);
  if (!element || element.time === time) return doc;
  return putEntities(doc, { ...element, time });
}
