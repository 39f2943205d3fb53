/** The paints that what lies on a layer is seen in. */
import { find, type Element, type Id, type ShotDocument } from '../document/index.ts';
import { IDENTITY } from '../geometry/index.ts';
import { axisOf, isHole, paintsOn, type PaintOf } from './paint.ts';
import type { DrawItem } from './draw-item.ts';

/** What is painted on: the layer's element and place tell what a swatch looks like there. */
export type PaintedOn = Pick<DrawItem, 'layerId' | 'matrix' | 'tint'> & { readonly recolour?: Id | null };

/** An element as it is seen in another of its recolourings. */
export const inRecolouring = (element: Element, recolour: Id | null | undefined): Element =>
  recolour ? { ...element, recolour } : element;

/** The paints an item's marks are seen in: its tint for all of them, else their own. */
export function paintsOf(doc: ShotDocument, { layerId, matrix, tint, recolour }: PaintedOn): PaintOf {
  const own = find(doc, 'element', find(doc, 'layer', layerId)?.elementId);
  const element = own && inRecolouring(own, recolour);
  const picture = find(doc, 'shot', doc.shotId) ?? { width: 0, height: 0 };
  const paints = paintsOn(doc, element, { axis: element ? axisOf(element, picture.height) : null, matrix, picture });
  // What is cut out is cut out in a tint, too.
  return tint ? (id) => (isHole(paints(id)) ? paints(id) : paints(tint)) : paints;
}

/** The same for a drawing whose layer alone is known, wherever it is seen. */
export const paintsOnLayer = (doc: ShotDocument, layerId: Id | undefined): PaintOf =>
  paintsOf(doc, { layerId: layerId ?? '', matrix: IDENTITY, tint: find(doc, 'layer', layerId)?.tint ?? null });
