/** Marks from outside, as an element of their own. */
import {
  find,
  findAll,
  shotOf,
  type Id,
  type LayerRole,
  type Mark,
  type NewId,
  type Shape,
  type ShotDocument,
  type Stroke,
} from '../document/index.ts';
import { addMarks } from './drawings.ts';
import { addElement, setElement } from './elements.ts';
import { holdFor } from './exposures.ts';
import { addLayer, setLayer } from './layers.ts';
import { addSwatch } from './shot.ts';

/** A mark whose paint is a colour, `#rrggbb`. */
export type ColouredMark = (Omit<Shape, 'id' | 'swatch'> | Omit<Stroke, 'id' | 'swatch'>) & { readonly colour: string };

export interface BroughtMarks {
  /** px the places of the marks are in: they go from 0 to these. */
  readonly width: number;
  readonly height: number;
  /** Lowest first. */
  readonly layers: readonly { readonly name: string; readonly marks: readonly ColouredMark[] }[];
}

/** A mark moved and scaled. */
function placedMark(mark: Mark, scale: number, dx: number, dy: number): Mark {
  const x = (v: number): number => v * scale + dx;
  const y = (v: number): number => v * scale + dy;
  if (mark.kind === 'shape')
    return { ...mark, rings: mark.rings.map((ring) => ring.map((v, i) => (i % 2 === 0 ? x(v) : y(v)))) };
  return {
    ...mark,
    samples: { ...mark.samples, x: mark.samples.x.map(x), y: mark.samples.y.map(y) },
    brush: { ...mark.brush, width: Math.min(2000, Math.max(0.1, mark.brush.width * scale)) },
  };
}

/** The swatches of some colours: one of the palette where it has the colour, else a new one of its name. */
function swatchesFor(
  doc: ShotDocument,
  colours: readonly string[],
  newId: NewId,
): { doc: ShotDocument; ids: ReadonlyMap<string, Id> } {
  const ids = new Map<string, Id>();
  for (const { id, colour, gradient, role } of findAll(doc, 'swatch', shotOf(doc).swatches))
    if (!gradient && role !== 'hole' && !ids.has(colour)) ids.set(colour, id);
  let next = doc;
  for (const colour of colours) {
    if (ids.has(colour)) continue;
    const added = addSwatch(next, { name: colour, role: 'body', colour }, newId);
    next = added.doc;
    ids.set(colour, added.swatchId);
  }
  return { doc: next, ids };
}

const roleOf = (marks: readonly ColouredMark[]): LayerRole =>
  marks.every(({ kind }) => kind === 'stroke') ? 'line' : 'body';

/**
 * Puts marks in as an element in front of the others, its layers as they lay, as large as fits the picture, held from a
 * frame of the shot to its end. The edit says which id the element got.
 * @param start frame of the shot, from 0.
 */
export function addBrought(
  doc: ShotDocument,
  name: string,
  { width, height, layers }: BroughtMarks,
  start: number,
  newId: NewId,
): { doc: ShotDocument; elementId: Id } {
  const shot = shotOf(doc);
  const scale = Math.min(shot.width / width, shot.height / height);
  const colours = [...new Set(layers.flatMap(({ marks }) => marks.map(({ colour }) => colour)))];
  const palette = swatchesFor(doc, colours, newId);
  const added = addElement(palette.doc, name, start, newId);
  let next = setElement(added.doc, added.elementId, { time: 'open' });
  let layerId = find(next, 'element', added.elementId)!.layers[0]!;
  for (const [i, { name: named, marks }] of layers.entries()) {
    const role = roleOf(marks);
    if (i === 0) next = setLayer(next, layerId, { name: named, role });
    else {
      const above = addLayer(next, added.elementId, named, role, layerId, newId);
      [next, layerId] = [above.doc, above.layerId];
    }
    const own = marks.map(({ colour, ...mark }): Mark => {
      const whole = { ...mark, id: newId(), swatch: palette.ids.get(colour)! } as Mark;
      return placedMark(whole, scale, (-width / 2) * scale, (-height / 2) * scale);
    });
    next = addMarks(next, layerId, 0, own, newId);
    next = holdFor(next, layerId, 0, Math.max(1, shot.length - start)).doc;
  }
  return { doc: next, elementId: added.elementId };
}
