/** Scanned drawings on a rough layer of their own. */
import {
  find,
  findAll,
  putEntities,
  shotOf,
  type Drawing,
  type Element,
  type Id,
  type NewId,
  type RunList,
  type ShotDocument,
} from '../document/index.ts';
import { addLayer } from './layers.ts';
import { keptFull } from './place.ts';

/** What a scan came to: shapes, the lightest first, in the space of the element. */
export type ScannedDrawing = readonly { readonly opacity: number; readonly rings: readonly Float32Array[] }[];

/** The swatch that pencil is laid in: the palette's outline, else its first. */
const pencilSwatch = (doc: ShotDocument): Id => {
  const { swatches } = shotOf(doc);
  return findAll(doc, 'swatch', swatches).find(({ role }) => role === 'outline')?.id ?? swatches[0]!;
};

/**
 * Lays scans as a rough layer below all others of an element, a drawing for each, one after another. The edit says which id it got.
 * @param hold frames each drawing is seen.
 * @throws where there is no such element.
 */
export function layScans(
  doc: ShotDocument,
  elementId: Id,
  scans: readonly ScannedDrawing[],
  { name, hold }: { readonly name: string; readonly hold: number },
  newId: NewId,
): { doc: ShotDocument; layerId: Id } {
  const added = addLayer(doc, elementId, name, 'rough', null, newId);
  const swatch = pencilSwatch(doc);
  const drawings = scans.map((shapes): Drawing => {
    const marks = shapes.map(({ opacity, rings }) => ({
      ...({ kind: 'shape', rule: 'evenodd', swatch, opacity } as const),
      id: newId(),
      rings: [...rings],
    }));
    const order = marks.map(({ id }) => id);
    return { kind: 'drawing', id: newId(), marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])), order };
  });
  const slots = drawings.map(({ id }) => [newId(), id] as const);
  const layer = find(added.doc, 'layer', added.layerId)!;
  const list: RunList = {
    ...find(added.doc, 'runlist', layer.runListId)!,
    runs: slots.map(([slot]) => ({ id: newId(), slot, length: hold })),
  };
  const element: Element = find(added.doc, 'element', elementId)!;
  const layers = [...element.layers.filter((id) => id !== layer.id), layer.id];
  return {
    doc: keptFull(
      doc,
      putEntities(added.doc, ...drawings, list, { ...layer, slots: Object.fromEntries(slots) }, { ...element, layers }),
      element,
    ),
    layerId: layer.id,
  };
}
