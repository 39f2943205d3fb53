/** Things laid as whole drawings on several layers, with their fingerprints by layer and slot. */
import { find, type Id, type ShotDocument } from '../document/index.ts';
import type { LaidThing, Renewed } from './derived.ts';

type Prints = Readonly<Record<Id, Readonly<Record<Id, string>>>>;

/** What is still there of them. */
export const laidByLayer = (doc: ShotDocument, laid: Prints): LaidThing[] =>
  Object.entries(laid).flatMap(([layerId, prints]) => {
    const slots = find(doc, 'layer', layerId)?.slots ?? {};
    return Object.entries(prints).flatMap(([slot, print]) =>
      slots[slot] ? [{ slot, drawingId: slots[slot], markId: null, print }] : [],
    );
  });

/** The same with every fingerprint renewed. */
export const renewedByLayer = (doc: ShotDocument, laid: Prints, renewed: Renewed): Prints =>
  Object.fromEntries(
    Object.entries(laid).map(([layerId, prints]) => {
      const slots = find(doc, 'layer', layerId)?.slots ?? {};
      return [
        layerId,
        Object.fromEntries(Object.entries(prints).map(([slot, print]) => [slot, renewed(print, slots[slot])])),
      ];
    }),
  );
