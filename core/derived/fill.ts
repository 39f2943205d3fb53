/** Fills: shapes traced from the regions that lines bound. */
import { find, type Drawing, type Fill, type ShotDocument } from '../document/index.ts';
import { frameOfSlot, placeOf, shownOn, timedLayers } from '../timing/index.ts';
import type { Derived } from './derived.ts';
import { outlinesOf } from './fingerprint.ts';

/** The drawings whose lines bound a layer's fills on a frame, or null while one of them is not loaded. */
export function boundDrawings(
  doc: ShotDocument,
  { layerId, bounds }: Pick<Fill, 'layerId' | 'bounds'>,
  frame: number,
): Drawing[] | null {
  const layer = find(doc, 'layer', layerId);
  const element = find(doc, 'element', layer?.elementId);
  if (!layer || !element) return null;
  const { turn } = placeOf(doc, layer.id);
  const drawings: Drawing[] = [];
  for (const timed of timedLayers(doc, element)) {
    const id = bounds.includes(timed.layer.id) ? shownOn(timed, frame, turn)?.drawingId : undefined;
    if (!id) continue;
    const drawing = find(doc, 'drawing', id);
    if (!drawing) return null;
    drawings.push(drawing);
  }
  return drawings;
}

/** The fingerprint of the lines that bound a layer's fills on a frame, or null while one of them is not loaded. */
export function boundsFingerprint(
  doc: ShotDocument,
  fill: Pick<Fill, 'layerId' | 'bounds'>,
  frame: number,
): string | null {
  const drawings = boundDrawings(doc, fill, frame);
  return drawings && outlinesOf(drawings);
}

export const fill: Derived<Fill> = {
  kind: 'fill',
  again: 'when asked',
  laid: (doc, { layerId, slots }) => {
    const shown = find(doc, 'layer', layerId)?.slots ?? {};
    return Object.entries(slots).flatMap(([slot, { regions }]) => {
      const drawing = find(doc, 'drawing', shown[slot]);
      return regions.flatMap(({ markId, print }) =>
        drawing?.order.includes(markId) ? [{ slot, drawingId: drawing.id, markId, print }] : [],
      );
    });
  },
  sources: (doc, entity) => {
    if (!find(doc, 'layer', entity.layerId)) return [];
    return Object.entries(entity.slots).flatMap(([slot, { hangsOn, regions }]) => {
      const frame = regions.length > 0 ? frameOfSlot(doc, entity.layerId, slot) : null;
      const drawings = frame === null ? null : boundDrawings(doc, entity, frame);
      // Where no line is left nothing could be filled again.
      return drawings?.length
        ? [{ part: slot, was: hangsOn, now: outlinesOf(drawings), hangsOn: drawings.map(({ id }) => id) }]
        : [];
    });
  },
  // Outlines alone are kept, which neither paint nor ids change.
  withPrints: (_, entity) => entity,
};
