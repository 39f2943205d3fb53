/** Smears: fast moves computed from the drawings they lie between, along what these or the plan say. */
import { onlyUse, staysPut } from '../assembly/index.ts';
import { AT_HOME, find, keysIn, type Drawing, type Id, type ShotDocument, type Smear } from '../document/index.ts';
import { laidByLayer, renewedByLayer } from './by-layer.ts';
import type { Derived } from './derived.ts';
import { outlinesOf, textFingerprint, wayFingerprint } from './fingerprint.ts';

/** Drawings of the subject's layers on all slots a smear is laid from, or null while one is not loaded. */
function smearedDrawings(doc: ShotDocument, { layers, stops }: Pick<Smear, 'layers' | 'stops'>): Drawing[] | null {
  const all: Drawing[] = [];
  for (const layerId of layers) {
    const slots = find(doc, 'layer', layerId)?.slots ?? {};
    for (const slot of stops) {
      const id = slots[slot];
      if (!id) continue;
      const drawing = find(doc, 'drawing', id);
      if (!drawing) return null;
      all.push(drawing);
    }
  }
  return all;
}

/** Points of the element that were clicked on the drawings, as text: a swath follows the first two. */
function tracesOf(doc: ShotDocument, { elementId, layerId, stops }: Smear): string {
  const traces = find(doc, 'element', elementId)?.traces ?? [];
  return JSON.stringify(
    traces.flatMap((trace) => (trace.layerId === layerId ? [stops.map((slot) => trace.points[slot] ?? null)] : [])),
  );
}

/** What moves its layer, or the one use of its element, over time: the ids of these, and a text that changes with them. */
function motionOf(doc: ShotDocument, { elementId, layerId }: Smear): { ids: Id[]; text: string } {
  const layer = find(doc, 'layer', layerId);
  const use = onlyUse(doc, elementId);
  const { x, y, scale, angle } = layer?.shift ?? AT_HOME;
  const moves = layer && [x, y, scale, angle].some((value) => keysIn(value).length > 0);
  const carries = use && !staysPut(use);
  const path = carries ? find(doc, 'path', use.way?.pathId) : undefined;
  const told = [
    ...(moves ? [layer.shift] : []),
    ...(carries ? [use.shift, use.way?.turned, use.drift, path && wayFingerprint(path)] : []),
  ];
  return {
    ids: [...(moves ? [layer.id] : []), ...(carries ? [use.id] : []), ...(path ? [path.id] : [])],
    text: told.length > 0 ? JSON.stringify(told) : '',
  };
}

/** The fingerprint of all that a smear is laid from, or null while it can not be told. */
export function smearFingerprint(doc: ShotDocument, smear: Smear): string | null {
  const layer = find(doc, 'layer', smear.layerId);
  const [from, to] = [smear.stops.at(-2), smear.stops.at(-1)!];
  if (!layer?.slots[to] || (from !== undefined && !layer.slots[from])) return null;
  const drawings = smearedDrawings(doc, smear);
  if (!drawings) return null;
  const path = smear.way === 'path' ? find(doc, 'path', smear.pathId) : undefined;
  const { text } = motionOf(doc, smear);
  // Only outlines count: other paint or other ids do not change the way.
  return `${outlinesOf(drawings)} ${textFingerprint(tracesOf(doc, smear))}${path ? ` ${wayFingerprint(path)}` : ''}${text ? ` ${textFingerprint(text)}` : ''}`;
}

export const smear: Derived<Smear> = {
  kind: 'smear',
  again: 'by itself',
  laid: (doc, { laid }) => laidByLayer(doc, laid),
  sources: (doc, entity) => {
    const now = smearFingerprint(doc, entity);
    const drawings = now === null ? null : smearedDrawings(doc, entity);
    if (now === null || !drawings) return [];
    const hangsOn: Id[] = [entity.elementId, ...drawings.map(({ id }) => id), ...motionOf(doc, entity).ids];
    return [
      { part: 'drawings', was: entity.hangsOn, now, hangsOn: entity.pathId ? [...hangsOn, entity.pathId] : hangsOn },
    ];
  },
  withPrints: (doc, entity, renewed) => ({ ...entity, laid: renewedByLayer(doc, entity.laid, renewed) }),
};
