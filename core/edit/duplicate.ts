/** Copies of whole shots. */
import {
  documentOf,
  type Drawing,
  type Entity,
  type Finish,
  type Id,
  type Mark,
  type NewId,
  type ShotDocument,
} from '../document/index.ts';
import { reprinted } from './reprint.ts';

/** The longest name a copy is made from; what is longer is cut so that the copy's name still fits. */
const ROOM = 190;

/** A copy of a shot in which every entity has a new id and points only at the copy's own. */
export function duplicateShot(doc: ShotDocument, shotId: Id, newId: NewId): ShotDocument {
  const ids = new Map(Object.keys(doc.entities).map((id) => [id, id === doc.shotId ? shotId : newId()]));
  // Run lists of kept variants need not be rows of their own.
  for (const entity of Object.values(doc.entities))
    if (entity.kind === 'variant')
      for (const { id } of entity.held?.lists ?? []) if (!ids.has(id)) ids.set(id, newId());
  const of = (id: Id): Id => ids.get(id) ?? id;
  const known = (list: readonly Id[]) => list.filter((id) => ids.has(id)).map(of);
  const maybe = (id: Id | null) => (id && ids.has(id) ? of(id) : null);
  const named = (record: Readonly<Record<string, Id>>) =>
    Object.fromEntries(Object.entries(record).flatMap(([key, id]) => (ids.has(id) ? [[key, of(id)]] : [])));
  const finishesOf = (list: readonly Finish[]): Finish[] =>
    list.map((each) => ({ ...each, swatch: each.swatch && of(each.swatch) }));
  const mark = (each: Mark): Mark => (each.kind === 'rub' ? each : { ...each, swatch: of(each.swatch) });
  // Prints tell swatches apart, and a copy has its own: what was as it was laid is so in the copy.
  const copied = (entity: Entity): Entity => withIds(reprinted(doc, entity, (drawing) => withIds(drawing) as Drawing));
  const withIds = (entity: Entity): Entity => {
    const id = of(entity.id);
    switch (entity.kind) {
      case 'shot':
        return {
          ...entity,
          id,
          name: `${entity.name.slice(0, ROOM).toWellFormed()} copy`,
          planes: known(entity.planes),
          elements: known(entity.elements),
          swatches: known(entity.swatches),
          guides: known(entity.guides),
          plates: known(entity.plates),
        };
      case 'plane':
        return { ...entity, id, placements: known(entity.placements) };
      case 'placement':
      case 'path':
      case 'runlist':
        return { ...entity, id, elementId: of(entity.elementId) };
      case 'between':
        return {
          ...entity,
          id,
          elementId: of(entity.elementId),
          layerId: of(entity.layerId),
          pathId: maybe(entity.pathId),
        };
      case 'variant':
        return {
          ...entity,
          id,
          elementId: of(entity.elementId),
          scope: known(entity.scope),
          held: entity.held && {
            lists: entity.held.lists.map((list) => ({
              ...list,
              id: of(list.id),
              elementId: of(list.elementId),
            })),
            layers: entity.held.layers
              .filter(({ layerId }) => ids.has(layerId))
              .map((take) => ({
                layerId: of(take.layerId),
                runListId: of(take.runListId),
                slots: named(take.slots),
              })),
          },
        };
      case 'element':
        return {
          ...entity,
          id,
          layers: known(entity.layers),
          paths: known(entity.paths),
          finishes: finishesOf(entity.finishes),
          recolours: entity.recolours.map((each) => ({
            ...each,
            map: Object.fromEntries(
              Object.entries(each.map).flatMap(([from, to]) =>
                ids.has(from) && ids.has(to) ? [[of(from), of(to)]] : [],
              ),
            ),
          })),
          traces: entity.traces
            .filter(({ layerId }) => ids.has(layerId))
            .map((t) => ({ ...t, layerId: of(t.layerId) })),
        };
      case 'folder':
        return { ...entity, id, elementId: of(entity.elementId), layers: known(entity.layers) };
      case 'layer': {
        const slots = Object.entries(entity.slots).filter(([, drawing]) => ids.has(drawing));
        return {
          ...entity,
          id,
          elementId: of(entity.elementId),
          runListId: of(entity.runListId),
          slots: Object.fromEntries(slots.map(([slot, d]) => [slot, of(d)])),
          starterId: maybe(entity.starterId),
          tint: maybe(entity.tint),
          finishes: finishesOf(entity.finishes),
        };
      }
      case 'drawing':
        return {
          ...entity,
          id,
          marks: Object.fromEntries(Object.entries(entity.marks).map(([key, m]) => [key, mark(m)])),
        };
      case 'plate':
        return { ...entity, id };
      case 'swatch': {
        const { gradient } = entity;
        const stops = gradient?.stops.map((stop) => ({ ...stop, swatch: of(stop.swatch) })) ?? [];
        return { ...entity, id, gradient: gradient && { ...gradient, stops } };
      }
      case 'fill':
        return {
          ...entity,
          id,
          elementId: of(entity.elementId),
          layerId: of(entity.layerId),
          bounds: known(entity.bounds),
          slots: Object.fromEntries(
            Object.entries(entity.slots).map(([slot, filled]) => [
              slot,
              { ...filled, regions: filled.regions.map((region) => ({ ...region, swatch: of(region.swatch) })) },
            ]),
          ),
        };
      case 'tone':
        return {
          ...entity,
          id,
          elementId: of(entity.elementId),
          bodyId: of(entity.bodyId),
          details: known(entity.details),
          layers: named(entity.layers as Record<string, Id>),
          swatches: named(entity.swatches as Record<string, Id>),
          laid: Object.fromEntries(Object.entries(entity.laid).map(([layerId, prints]) => [of(layerId), prints])),
        };
      case 'guide':
        return { ...entity, id, elementId: maybe(entity.elementId) };
      case 'starter':
        return {
          ...entity,
          id,
          elementId: of(entity.elementId),
          pathId: maybe(entity.pathId),
          layers: named(entity.layers),
          paints: named(entity.paints),
          laid: Object.fromEntries(
            Object.entries(entity.laid).map(([key, laid]) => [
              key,
              laid.flatMap(({ drawingId, slot, print }) =>
                ids.has(drawingId) ? [{ drawingId: of(drawingId), slot, print }] : [],
              ),
            ]),
          ),
        };
    }
  };
  return documentOf(shotId, Object.values(doc.entities).map(copied));
}
