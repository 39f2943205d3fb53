/** Frames of a shot: which drawings lie on one another. */
import { lyingOn } from '../assembly/index.ts';
import type { Id, ShotDocument } from '../document/index.ts';
import { showVariant } from '../edit/index.ts';
import { fallingOn } from './lights.ts';
import { planeWholes, shiningOn, litWholes, airBefore, matteOf, cutWholes } from './plane-wholes.ts';
import type { DrawItem, DrawOptions } from './draw-item.ts';
import { isAsked, drawListIn, cutBy, plateItem } from './use-draw-list.ts';

/** Documents with a variant shown, worked out once each. */
const shownWith = new WeakMap<ShotDocument, Map<Id, ShotDocument>>();

/** The document as it is with a kept variant shown. */
export function withVariant(doc: ShotDocument, variantId: Id): ShotDocument {
  const known = shownWith.get(doc) ?? new Map<Id, ShotDocument>();
  shownWith.set(doc, known);
  const shown = known.get(variantId) ?? showVariant(doc, variantId);
  known.set(variantId, shown);
  return shown;
}

/** The drawings of a frame, lowest first. Hidden layers and drawings not yet loaded are left out. */
export function drawListOf(now: ShotDocument, shotFrame: number, options: DrawOptions): DrawItem[] {
  const doc = options.variant ? withVariant(now, options.variant) : now;
  let items: DrawItem[] = [];
  const shining = shiningOn(doc, shotFrame, options);
  for (const each of lyingOn(doc, shotFrame, options).reverse()) {
    if (options.plane && each.plane.id !== options.plane) continue;
    const thing =
      'plate' in each
        ? ({ kind: 'plate', id: each.plate.id, cut: each.plate.cut } as const)
        : ({ kind: 'placement', id: each.use.placement.id, cut: each.use.placement.cut } as const);
    const wholes = [
      ...planeWholes(doc, each.plane, shotFrame, options),
      ...cutWholes(thing.id, matteOf(doc, thing.cut, shotFrame, options)),
      ...litWholes(each.plane, fallingOn(shining, thing, each.plane), airBefore(doc, each.plane, options)),
    ];
    if ('plate' in each) {
      items.push(...plateItem(each.plate, each.matrix, shotFrame, wholes, options));
      continue;
    }
    const { use } = each;
    if (!isAsked(use.key, options)) continue;
    const found = drawListIn(doc, use, { wholes, tint: null }, options);
    items = [...cutBy(items, found.mattes), ...found.items];
  }
  return items;
}
