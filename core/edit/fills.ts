/** Laying fills on a layer under the lines that bound them, and laying them again when the lines change. */
import {
  find,
  putEntities,
  type Drawing,
  type Fill,
  type FilledRegion,
  type FilledSlot,
  type Id,
  type NewId,
  type Shape,
  type ShotDocument,
  entitiesOf,
} from '../document/index.ts';
import { withoutArea, type Point } from '../geometry/index.ts';
import { isAsLaid, outlineOf, staleOf } from '../derived/index.ts';
import { markAt } from '../marks/index.ts';
import type { FilledShape } from '../paint/index.ts';
import { shownOn, frameOfSlot, placeOf } from '../timing/index.ts';
import { addMarks } from './drawings.ts';

/** What is filled, and by which rules. */
export type FillPlan = Pick<Fill, 'layerId' | 'bounds' | 'gap' | 'under'>;

export const fillOfLayer = (doc: ShotDocument, layerId: Id): Fill | undefined =>
  entitiesOf(doc, 'fill').find((e) => e.layerId === layerId);

const shapeFrom = ({ rings, swatch }: FilledShape, id: Id): Shape => ({
  kind: 'shape',
  id,
  swatch,
  rings,
  rule: 'evenodd',
  opacity: 1,
});

/** The filled regions of a slot whose shapes are still there. */
const regionsStill = (drawing: Drawing | undefined, filled: FilledSlot | undefined): FilledRegion[] =>
  (filled?.regions ?? []).filter(({ markId }) => drawing?.marks[markId]);

/**
 * Fills regions of the drawing a layer shows on a frame: where one of them is filled already its shape takes the
 * new one's place and swatch. The drawing is made where there is none.
 * @param hangsOn the fingerprint of the lines they were filled from. @param gap px that were closed in this drawing.
 */
export function layFills(
  doc: ShotDocument,
  plan: FillPlan,
  frame: number,
  shapes: readonly FilledShape[],
  hangsOn: string,
  newId: NewId,
  gap = plan.gap,
): ShotDocument {
  const filled = shapes.filter(({ rings }) => rings.length > 0);
  const place = placeOf(doc, plan.layerId);
  const shown = shownOn(place.timed, frame, place.turn);
  const before = find(doc, 'drawing', shown?.drawingId);
  const fill = fillOfLayer(doc, plan.layerId);
  const known = regionsStill(before, shown ? fill?.slots[shown.slot] : undefined);
  const replaced = new Map<Id, FilledRegion>();
  const regions = filled.map((shape): { region: FilledRegion; shape: Shape } => {
    const at = before ? markAt(before, shape.seed, 0) : null;
    const old = known.find(({ markId }) => markId === at && !replaced.has(markId));
    const mark = shapeFrom(shape, old?.markId ?? newId());
    if (old) replaced.set(old.markId, old);
    const { x, y } = shape.seed;
    return { shape: mark, region: { markId: mark.id, x, y, swatch: mark.swatch, print: outlineOf(mark) } };
  });
  let next = doc;
  if (before && replaced.size > 0) {
    const marks = { ...before.marks };
    for (const { shape } of regions) if (replaced.has(shape.id)) marks[shape.id] = shape;
    next = putEntities(next, { ...before, marks });
  }
  const added = regions.flatMap(({ shape }) => (replaced.has(shape.id) ? [] : [shape]));
  if (added.length > 0) next = addMarks(next, plan.layerId, frame, added, newId);
  const now = placeOf(next, plan.layerId);
  const slot = shownOn(now.timed, frame, now.turn)?.slot;
  if (!slot) return next;
  const kept = known.filter(({ markId }) => !replaced.has(markId));
  const slots = {
    ...fill?.slots,
    [slot]: {
      hangsOn,
      regions: [...kept, ...regions.map(({ region }) => region)],
      ...(gap === plan.gap ? {} : { gap }),
    },
  };
  return putEntities(next, {
    kind: 'fill',
    id: fill?.id ?? newId(),
    elementId: place.element.id,
    ...plan,
    slots,
  });
}

/** px² under which what is left of a shape goes too. */
const SPECK = 4;

/** Takes the fill away under a point: a filled region whole, or that part of a larger shape. */
export function unfill(
  doc: ShotDocument,
  layerId: Id,
  frame: number,
  at: Point,
  region: readonly Float32Array[],
): ShotDocument {
  const { timed, turn } = placeOf(doc, layerId);
  const shown = shownOn(timed, frame, turn);
  const drawing = find(doc, 'drawing', shown?.drawingId);
  const markId =
    drawing && markAt({ ...drawing, order: drawing.order.filter((id) => drawing.marks[id]!.kind === 'shape') }, at, 0);
  const mark = drawing && markId ? drawing.marks[markId] : undefined;
  if (!shown || !drawing || mark?.kind !== 'shape') return doc;
  const rings = region.length > 0 ? withoutArea(mark.rings, region, SPECK) : [];
  const marks = { ...drawing.marks };
  if (rings.length > 0) marks[mark.id] = { ...mark, rings, rule: 'evenodd' };
  else Reflect.deleteProperty(marks, mark.id);
  const order = drawing.order.filter((id) => marks[id]);
  const fill = fillOfLayer(doc, layerId);
  const own = fill?.slots[shown.slot];
  const forgotten =
    fill && own
      ? [
          {
            ...fill,
            slots: {
              ...fill.slots,
              [shown.slot]: { ...own, regions: own.regions.filter((r) => r.markId !== mark.id) },
            },
          },
        ]
      : [];
  return putEntities(doc, { ...drawing, marks, order }, ...forgotten);
}

/** Paints the shape under a point in another swatch. */
export function repaint(doc: ShotDocument, layerId: Id, frame: number, at: Point, swatch: Id): ShotDocument {
  const { timed, turn } = placeOf(doc, layerId);
  const shown = shownOn(timed, frame, turn);
  const drawing = find(doc, 'drawing', shown?.drawingId);
  const mark = drawing?.marks[markAt(drawing, at, 0) ?? ''];
  if (!shown || !drawing || !mark || mark.kind === 'rub' || mark.swatch === swatch) return doc;
  const fill = fillOfLayer(doc, layerId);
  const own = fill?.slots[shown.slot];
  const regions = own?.regions.map((r) => (r.markId === mark.id ? { ...r, swatch } : r)) ?? [];
  return putEntities(
    doc,
    { ...drawing, marks: { ...drawing.marks, [mark.id]: { ...mark, swatch } } },
    ...(fill && own ? [{ ...fill, slots: { ...fill.slots, [shown.slot]: { ...own, regions } } }] : []),
  );
}

/** A filled slot whose lines have changed since, with the frame it first shows on. */
export interface StaleFill {
  readonly fill: Fill;
  readonly slot: Id;
  readonly frame: number;
}

/** Slots of an element's fills whose lines have changed since they were filled. */
export const staleFills = (doc: ShotDocument, elementId: Id): StaleFill[] =>
  staleOf(doc, elementId, 'when asked').flatMap(({ entity, sources }) =>
    entity.kind === 'fill'
      ? sources.map(({ part }) => ({ fill: entity, slot: part, frame: frameOfSlot(doc, entity.layerId, part)! }))
      : [],
  );

/** What of a slot is filled again from new lines: regions as they were laid. Those changed by hand are kept. */
export function refillable(doc: ShotDocument, { fill, slot }: StaleFill): FilledRegion[] {
  const drawingId = find(doc, 'layer', fill.layerId)?.slots[slot];
  return drawingId
    ? (fill.slots[slot]?.regions ?? []).filter(({ markId, print }) => isAsLaid(doc, { drawingId, markId, print }))
    : [];
}

/** Fills a slot again. @param shapes one for each region, null for one that is not there any more: it stays as it was. */
export function relayFills(
  doc: ShotDocument,
  stale: StaleFill,
  regions: readonly FilledRegion[],
  shapes: readonly (FilledShape | null)[],
  hangsOn: string,
): ShotDocument {
  const { fill, slot } = stale;
  const drawing = find(doc, 'drawing', find(doc, 'layer', fill.layerId)?.slots[slot]);
  const own = find(doc, 'fill', fill.id)?.slots[slot];
  if (!drawing || !own) return doc;
  const marks = { ...drawing.marks };
  const anew = new Map<Id, FilledRegion>();
  regions.forEach((region, i) => {
    const shape = shapes[i];
    const old = marks[region.markId];
    if (!shape || shape.rings.length === 0 || old?.kind !== 'shape') return;
    const mark: Shape = { ...old, rings: shape.rings, rule: 'evenodd' };
    marks[mark.id] = mark;
    anew.set(mark.id, { ...region, x: shape.seed.x, y: shape.seed.y, print: outlineOf(mark) });
  });
  const filled = own.regions.map((region) => anew.get(region.markId) ?? region);
  return putEntities(
    doc,
    { ...drawing, marks },
    { ...fill, slots: { ...fill.slots, [slot]: { ...own, hangsOn, regions: filled } } },
  );
}
