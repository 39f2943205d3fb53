/** What happens when two people changed the same thing in ways that cannot be put together: both are kept. */
import {
  constant,
  derivedId,
  find,
  newLayer,
  putEntities,
  type Drawing,
  type Entity,
  type Id,
  type Layer,
  type ShotDocument,
  entitiesOf,
} from '../document/index.ts';
import { listOf } from './layers.ts';
import { addSwatch } from './shot.ts';

/** A document in which both are kept, and what to tell the user. */
interface KeptBoth {
  readonly doc: ShotDocument;
  readonly notice: string;
}

const mineOf = (name: string): string => `${name.slice(0, 190).toWellFormed()} (yours)`;

function copyLayer(
  doc: ShotDocument,
  layer: Layer,
  mine: Partial<Layer>,
  runs: Entity | undefined,
  id: Id,
): ShotDocument {
  const into = listOf(doc, layer.id);
  const list = runs?.kind === 'runlist' ? runs : find(doc, 'runlist', layer.runListId);
  if (!into || !list || doc.entities[id]) return doc;
  const listCopy = { ...list, id: derivedId(id, 'runs') };
  const copy: Layer = { ...layer, ...mine, id, name: mineOf(mine.name ?? layer.name), runListId: listCopy.id };
  return putEntities(doc, listCopy, copy, {
    ...into,
    layers: into.layers.toSpliced(into.layers.indexOf(layer.id), 0, copy.id),
  });
}

/**
 * Keeps `mine` beside what the document now has under its id, as a copy where the kind allows one. The copy's id hangs
 * on what is copied: the same clash met again adds nothing.
 */
export function keepBoth(doc: ShotDocument, mine: Entity, fields: readonly string[]): KeptBoth {
  const copyId = derivedId(mine.id, mine);
  switch (mine.kind) {
    case 'swatch':
      return {
        doc: doc.entities[copyId] ? doc : addSwatch(doc, { ...mine, name: mineOf(mine.name) }, () => copyId).doc,
        notice: `“${mine.name}” was changed in two places. Both colours are kept.`,
      };
    case 'layer': {
      const theirs = find(doc, 'layer', mine.id);
      return {
        doc: theirs ? copyLayer(doc, theirs, mine, undefined, copyId) : doc,
        notice: `“${mine.name}” was changed in two places. Yours is kept as a copy.`,
      };
    }
    case 'runlist': {
      const layer = entitiesOf(doc, 'layer').find((e) => e.runListId === mine.id);
      return {
        doc: layer ? copyLayer(doc, layer, {}, mine, copyId) : doc,
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
export function rescueDrawing(doc: ShotDocument, drawing: Drawing): ShotDocument {
  const isShown = entitiesOf(doc, 'layer').some((e) => Object.values(e.slots).includes(drawing.id));
  const element = entitiesOf(doc, 'element')[0];
  if (isShown || !element) return doc;
  let made = 0;
  const nextId = () => derivedId(drawing.id, `kept ${(made += 1)}`);
  const { layer, list } = newLayer(element.id, 'Kept drawing', 'rough', nextId);
  const slot = nextId();
  return putEntities(
    doc,
    { ...list, runs: [{ id: nextId(), slot, length: 2 }] },
    { ...layer, opacity: constant(1), slots: { [slot]: drawing.id } },
    { ...element, layers: [layer.id, ...element.layers.filter((id) => id !== layer.id)] },
  );
}
