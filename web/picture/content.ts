/** Tells contents apart: entities never change, so an object that is another is another content. */
import { findAll, shotOf, type ShotDocument } from '@tallow/core/document';

const ids = new WeakMap<object, number>();
let nextId = 1;

/** A number of its own for every content. */
export function contentId(content: object): number {
  let id = ids.get(content);
  if (id === undefined) {
    id = nextId++;
    ids.set(content, id);
  }
  return id;
}

const colourings = new WeakMap<ShotDocument, string>();

/** Everything that decides what swatches look like, as one text for each document. */
export function coloursIn(doc: ShotDocument): string {
  let text = colourings.get(doc);
  if (text !== undefined) return text;
  const { swatches, elements } = shotOf(doc);
  const own = findAll(doc, 'swatch', swatches).map(({ colour, gradient }) => [colour, gradient]);
  const seen = findAll(doc, 'element', elements).map(({ anchor, tip, recolour, recolours }) =>
    own.some(([, gradient]) => gradient) || recolour
      ? [anchor, tip, recolours.find(({ id }) => id === recolour)?.map]
      : [],
  );
  text = JSON.stringify([own, seen]);
  colourings.set(doc, text);
  return text;
}
