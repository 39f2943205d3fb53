/** Tone: shade and light cut from a body, creased by the lines on it, turned to the element's light. */
import { find, valueAt, type Drawing, type Id, type ShotDocument, type Tone } from '../document/index.ts';
import { placeOf, roundOf, runStart, shownOn, slotsInOrder } from '../timing/index.ts';
import { laidByLayer, renewedByLayer } from './by-layer.ts';
import type { Derived } from './derived.ts';
import { outlinesOf } from './fingerprint.ts';

/** A slot of a body with all that its tone hangs on. */
export interface BodySlot {
  readonly slot: Id;
  readonly body: Drawing;
  /** Drawings whose lines crease the body. */
  readonly details: readonly Drawing[];
  /** Direction the light comes from, degrees. */
  readonly light: number;
  readonly print: string;
}

/** The slots of a body with what their tone hangs on; those whose drawings are not loaded are left out. */
export function litSlots(
  doc: ShotDocument,
  { bodyId, details }: Pick<Tone, 'bodyId' | 'details'>,
  wanted: ReadonlySet<Id> | null = null,
): BodySlot[] {
  const { timed, turn, element } = placeOf(doc, bodyId);
  return slotsInOrder(timed.list).flatMap(({ slot, index }): BodySlot[] => {
    const body = find(doc, 'drawing', timed.layer.slots[slot]);
    if (!body || (wanted && !wanted.has(slot))) return [];
    const frame = runStart(timed.list, index, turn);
    const over = details.flatMap((id) => {
      if (!find(doc, 'layer', id)) return [];
      const place = placeOf(doc, id);
      return find(doc, 'drawing', shownOn(place.timed, frame, turn)?.drawingId) ?? [];
    });
    const light = valueAt(element.light, frame, roundOf(element, turn));
    return [{ slot, body, details: over, light, print: `${outlinesOf([body, ...over])}@${light.toFixed(1)}` }];
  });
}

/** Drawings never change: whether there is a body to cut tone from is looked for once. */
const shaped = new WeakMap<Drawing, boolean>();

export function hasShape(drawing: Drawing): boolean {
  const has = shaped.get(drawing) ?? Object.values(drawing.marks).some(({ kind }) => kind === 'shape');
  shaped.set(drawing, has);
  return has;
}

export const tone: Derived<Tone> = {
  kind: 'tone',
  again: 'by itself',
  laid: (doc, { laid }) => laidByLayer(doc, laid),
  sources: (doc, entity) => {
    const body = find(doc, 'layer', entity.bodyId);
    if (!body) return [];
    const details = entity.details.flatMap((id) => find(doc, 'layer', id) ?? []);
    // Other drawings may end up over a body: by a change of its layers' time, or of what they show.
    const around = [entity.elementId, body.id, ...details.flatMap(({ id, slots }) => [id, ...Object.values(slots)])];
    const laid = new Set(Object.keys(entity.hangsOn));
    return litSlots(doc, entity, entity.everywhere ? null : laid).flatMap(({ slot, body: drawing, print }) =>
      // A drawing that came later gets its tone once there is something to cut it from.
      laid.has(slot) || hasShape(drawing)
        ? [{ part: slot, was: entity.hangsOn[slot] ?? '', now: print, hangsOn: [...around, drawing.id] }]
        : [],
    );
  },
  withPrints: (doc, entity, renewed) => ({ ...entity, laid: renewedByLayer(doc, entity.laid, renewed) }),
};
