/** Prints kept with computed content, when drawings change their paint or their ids but were not touched by hand. */
import { find, type Drawing, type Entity, type Id, type ShotDocument } from '../document/index.ts';
import { printOf } from './print.ts';

/**
 * An entity whose prints are those of what its drawings have become. A print that was not that of its drawing before
 * stays as it is: that drawing was touched by hand, and still counts as touched.
 * @param doc before the change. @param become what a drawing has become.
 */
export function reprinted(doc: ShotDocument, entity: Entity, become: (drawing: Drawing) => Drawing): Entity {
  const renewed = (print: string, drawingId: Id | undefined): string => {
    const drawing = find(doc, 'drawing', drawingId);
    return drawing && printOf(drawing) === print ? printOf(become(drawing)) : print;
  };
  const slotsOf = (layerId: Id) => find(doc, 'layer', layerId)?.slots ?? {};
  const renewedAll = (prints: Readonly<Record<Id, string>>, layerId: Id) =>
    Object.fromEntries(Object.entries(prints).map(([slot, print]) => [slot, renewed(print, slotsOf(layerId)[slot])]));
  switch (entity.kind) {
    case 'between': {
      const slots = slotsOf(entity.layerId);
      const [from, to] = entity.hangsOn;
      return {
        ...entity,
        laid: renewedAll(entity.laid, entity.layerId),
        hangsOn: [renewed(from, slots[entity.from]), renewed(to, slots[entity.to])],
      };
    }
    case 'tone':
      return {
        ...entity,
        laid: Object.fromEntries(
          Object.entries(entity.laid).map(([layerId, prints]) => [layerId, renewedAll(prints, layerId)]),
        ),
      };
    case 'starter':
      return {
        ...entity,
        laid: Object.fromEntries(
          Object.entries(entity.laid).map(([key, all]) => [
            key,
            all.map((each) => ({ ...each, print: renewed(each.print, each.drawingId) })),
          ]),
        ),
      };
    default:
      return entity;
  }
}
