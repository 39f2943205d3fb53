/** All values over time of an entity, whatever they are of. */
import { descriptorOf, type Entity } from './kinds/index.ts';
import type { Value } from './value.ts';

/** An entity with each of its values over time changed; kinds that have none come back as they are. */
export const withValues = <E extends Entity>(entity: E, change: (value: Value) => Value): E =>
  descriptorOf(entity).mapValues?.(entity, change) ?? entity;
