/** In-betweens of layers that are tied in time: which of them are to get one with a layer's own, and how. */
import { find, putEntities, type Id, type ShotDocument, entitiesOf } from '../document/index.ts';
import { placeOf, timedLayers } from '../timing/index.ts';
import type { Gap } from './betweens.ts';
import { fillOfLayer } from './fills.ts';
import { isByTone } from './tones.ts';

/** How a layer gets its in-betweens: computed from its own drawings, or filled from the lines that are there then. */
interface TiedBetween {
  readonly layerId: Id;
  readonly by: 'drawings' | 'fills';
}

/** Whether all that a filled layer shows in some slots was filled from lines: then it can be filled from others. */
function isFilled(doc: ShotDocument, layerId: Id, slots: readonly Id[]): boolean {
  const fill = fillOfLayer(doc, layerId);
  const shown = find(doc, 'layer', layerId)?.slots ?? {};
  return slots.every((slot) => {
    const regions = new Set((fill?.slots[slot]?.regions ?? []).map(({ markId }) => markId));
    return regions.size > 0 && (find(doc, 'drawing', shown[slot])?.order ?? []).every((id) => regions.has(id));
  });
}

/**
 * Layers tied in time to the one a gap lies in that are drawn on both sides of it and show nothing in it: they would be
 * bare where its in-betweens come. Tone is cut anew by itself and is not among them, nor is what is locked.
 */
export function tiedBetweens(doc: ShotDocument, gap: Gap): TiedBetween[] {
  const { timed, element } = placeOf(doc, gap.layerId);
  return timedLayers(doc, element).flatMap(({ layer, folder }): TiedBetween[] => {
    if (layer.id === gap.layerId || layer.runListId !== timed.layer.runListId) return [];
    if (isByTone(doc, layer.id) || layer.locked || folder?.locked) return [];
    if (!layer.slots[gap.from] || !layer.slots[gap.to] || gap.bare.some((slot) => layer.slots[slot])) return [];
    return [{ layerId: layer.id, by: isFilled(doc, layer.id, [gap.from, gap.to]) ? 'fills' : 'drawings' }];
  });
}

/** Drawings that must be loaded for it. */
export const tiedBetweenDrawings = (doc: ShotDocument, gap: Gap): Id[] =>
  [gap.layerId, ...tiedBetweens(doc, gap).map(({ layerId }) => layerId)].flatMap((layerId) => {
    const slots = find(doc, 'layer', layerId)?.slots ?? {};
    return [gap.from, gap.to].flatMap((slot) => slots[slot] ?? []);
  });

/** Lets tone that lies on both sides of some in-betweens be cut for them too. */
export function tonedBetween(
  doc: ShotDocument,
  bodyIds: ReadonlySet<Id>,
  gap: Pick<Gap, 'from' | 'to'>,
  slots: readonly Id[],
): ShotDocument {
  const more = entitiesOf(doc, 'tone').flatMap((tone) => {
    if (!bodyIds.has(tone.bodyId) || tone.everywhere) return [];
    if (!(gap.from in tone.hangsOn) || !(gap.to in tone.hangsOn)) return [];
    return [{ ...tone, hangsOn: { ...tone.hangsOn, ...Object.fromEntries(slots.map((slot) => [slot, ''])) } }];
  });
  return more.length > 0 ? putEntities(doc, ...more) : doc;
}
