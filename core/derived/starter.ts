/** Starters: under-drawings computed from settings and a seed, perhaps along a path. */
import { find, type Starter } from '../document/index.ts';
import type { Derived } from './derived.ts';
import { pathFingerprint } from './fingerprint.ts';

export const starter: Derived<Starter> = {
  kind: 'starter',
  again: 'by itself',
  laid: (_, { laid }) =>
    Object.values(laid)
      .flat()
      .map(({ slot, drawingId, print }) => ({ slot, drawingId, markId: null, print })),
  sources: (doc, { pathId, layers, along }) => {
    const path = find(doc, 'path', pathId);
    // Whose layers are all deleted lays nothing any more.
    const lays = Object.values(layers).some((id) => find(doc, 'layer', id));
    return path && lays ? [{ part: 'path', was: along, now: pathFingerprint(path), hangsOn: [path.id] }] : [];
  },
  withPrints: (_, entity, renewed) => ({
    ...entity,
    laid: Object.fromEntries(
      Object.entries(entity.laid).map(([output, all]) => [
        output,
        all.map((each) => ({ ...each, print: renewed(each.print, each.drawingId) })),
      ]),
    ),
  }),
};
