/** All values over time of an entity, whatever they are of. */
import type { Finish } from './look-types.ts';
import type { Entity } from './types.ts';
import type { Value } from './value.ts';

const finishesWith = (finishes: readonly Finish[], change: (value: Value) => Value): readonly Finish[] =>
  finishes.map((finish) => ({
    ...finish,
    numbers: Object.fromEntries(Object.entries(finish.numbers).map(([key, value]) => [key, change(value)])),
  }));

/** An entity with each of its values over time changed; kinds that have none come back as they are. */
export function withValues<E extends Entity>(entity: E, change: (value: Value) => Value): E;
export function withValues(entity: Entity, change: (value: Value) => Value): Entity {
  switch (entity.kind) {
    case 'layer': {
      const { x, y, scale, angle } = entity.shift;
      return {
        ...entity,
        opacity: change(entity.opacity),
        shift: { x: change(x), y: change(y), scale: change(scale), angle: change(angle) },
        finishes: finishesWith(entity.finishes, change),
      };
    }
    case 'folder':
      return { ...entity, opacity: change(entity.opacity) };
    case 'element':
      return { ...entity, light: change(entity.light), finishes: finishesWith(entity.finishes, change) };
    default:
      return entity;
  }
}
