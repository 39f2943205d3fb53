/** What happens when two people changed the same thing in ways that cannot be put together: both are kept. */
import {
  constant,
  find,
  newLayer,
  putEntities,
  type Drawing,
  type Element,
  type Entity,
  type Id,
  type Layer,
  type NewId,
  type ShotDocument,
} from '../document/index.ts';
import { listOf } from './layers.ts';
import { addSwatch } from './shot.ts';

/** A document in which both are kept, and what to tell the user. */
export interface KeptBoth {
  readonly doc: ShotDocument;
  readonly notice: string;
}

const mineOf = (name: string): string => `${name.slice(0, 190).toWellFormed()} (yours)`;

function copyLayer(
  doc: ShotDocument,
  layer: Layer,
  mine: Partial<Layer>,
  runs: Entity | undefined,
  newId: NewId,
): ShotDocument {
  const into = listOf(doc, layer.id);
  const list = runs?.kind === 'runlist' ? runs : find(doc, 'runlist', layer.runListId);
  if (!into || !list) return doc;
  const listCopy = { ...list, id: newId() };
  const copy: Layer = { ...layer, ...mine, id: newId(), name: mineOf(mine.name ?? layer.name), runListId: listCopy.id };
  return putEntities(doc, listCopy, copy, {
    ...into,
    layers: into.layers.toSpliced(into.layers.indexOf(layer.id), 0, copy.id),
  });
}

/** Keeps `mine` beside what the document now has under its id, as a copy where the kind allows one. */
export function keepBoth(doc: ShotDocument, mine: Entity, fields: readonly string[], newId: NewId): KeptBoth {
  switch (mine.kind) {
    case 'swatch':
      return {
        doc: addSwatch(doc, { ...mine, name: mineOf(mine.name) }, newId).doc,
        notice: `“${mine.name}” was changed in two places. Both colours are kept.`,
      };
    case 'layer': {
      const theirs = find(doc, 'layer', mine.id);
      return {
        doc: theirs ? copyLayer(doc, theirs, mine, undefined, newId) : doc,
        notice: `“${mine.name}” was changed in two places. Yours is kept as a copy.`,
      };
    }
    case 'runlist': {
      const layer = Object.values(doc.entities).find((e): e is Layer => e.kind === 'layer' && e.runListId === mine.id);
      return {
        doc: layer ? copyLayer(doc, layer, {}, mine, newId) : doc,
        notice: `The timing of “${layer?.name ?? 'a layer'}” was changed in two places. Yours is kept as a copy of the layer.`,
      };
    }
    default:
      return {
        doc,
        notice: `The ${fields.join(', ')} of this ${mine.kind} was changed elsewhere at the same time; that change holds.`,
      };
  }
}

/** Gives a drawing that somebody else deleted while it was being drawn on a layer of its own again. */
export function rescueDrawing(doc: ShotDocument, drawing: Drawing, newId: NewId): ShotDocument {
  const isShown = Object.values(doc.entities).some(
    (e) => e.kind === 'layer' && Object.values(e.slots).includes(drawing.id),
  );
  const element = Object.values(doc.entities).find((e): e is Element => e.kind === 'element');
  if (isShown || !element) return doc;
  const { layer, list } = newLayer(element.id, 'Kept drawing', 'rough', newId);
  const slot: Id = newId();
  return putEntities(
    doc,
    { ...list, runs: [{ id: newId(), slot, length: 2 }] },
    { ...layer, opacity: constant(1), slots: { [slot]: drawing.id } },
    { ...element, layers: [layer.id, ...element.layers] },
  );
}
