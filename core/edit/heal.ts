/** Documents that could not be drawn on: what is missing is put in when they are opened. */
import {
  derivedId,
  entitiesOf,
  find,
  findAll,
  FIRST_SWATCHES,
  IN_ORDER,
  newElement,
  newPlane,
  putEntities,
  shotOf,
  type Entity,
  type Layer,
  type RunList,
  type ShotDocument,
} from '../document/index.ts';

interface Healed {
  readonly doc: ShotDocument;
  /** What was put in, a sentence each for the user; empty where nothing was missing. */
  readonly told: readonly string[];
}

/**
 * Puts in what a document needs so that something can be drawn in it: an element, swatches, and a run list for each layer.
 * Such documents come from a save that was made by hand, or of two people who deleted different halves of a thing. The
 * ids hang on the document: two pages that open it put in the same. What is there stays as it is.
 */
export function heal(doc: ShotDocument): Healed {
  let made = 0;
  const newId = () => derivedId(doc.shotId, { heals: made++ });
  const told: string[] = [];
  let next = doc;
  const put = (sentence: string, ...entities: readonly Entity[]): void => {
    next = putEntities(next, ...entities);
    told.push(sentence);
  };

  if (findAll(doc, 'swatch', shotOf(doc).swatches).length === 0) {
    const swatches = FIRST_SWATCHES.map((each) => ({ kind: 'swatch' as const, id: newId(), ...each, gradient: null }));
    const shot = { ...shotOf(next), swatches: swatches.map(({ id }) => id) };
    put('The shot had no swatch; those of a new shot were put in.', ...swatches, shot);
  }
  if (findAll(doc, 'element', shotOf(doc).elements).length === 0) {
    const { width, height, planes } = shotOf(next);
    const middle = { start: 0, x: width / 2, y: height / 2 };
    const { element, placement, layer, list } = newElement('Element 1', middle, newId);
    const [there] = findAll(next, 'plane', planes);
    const plane = there ?? newPlane('Picture plane', 0, newId);
    put(
      'The shot had no element; an empty one was put in.',
      { ...plane, placements: [...plane.placements, placement.id] },
      placement,
      element,
      layer,
      list,
      { ...shotOf(next), elements: [element.id], planes: there ? planes : [...planes, plane.id] },
    );
  }
  for (const layer of entitiesOf(doc, 'layer')) {
    if (find(doc, 'runlist', layer.runListId)) continue;
    const [own, list] = withRuns(layer, newId());
    put(`“${layer.name}” had lost its timing; its drawings stand one after the other, a frame each.`, own, list);
  }
  return { doc: next, told };
}

/** A layer with a run list that shows each of its drawings once. */
function withRuns(layer: Layer, id: string): [Layer, RunList] {
  const runs = Object.keys(layer.slots).map((slot, i) => ({ id: derivedId(id, { run: i }), slot, length: 1 }));
  const list = { kind: 'runlist', id, elementId: layer.elementId, runs, period: null, offset: 0, ...IN_ORDER } as const;
  return [{ ...layer, runListId: id }, list];
}
