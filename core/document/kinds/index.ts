/** Every kind of entity there is. A new one is a file beside these and a line here; the contract over this list tells what it still lacks. */
import { shot } from './shot.ts';
import { plane } from './plane.ts';
import { placement } from './placement.ts';
import { element } from './element.ts';
import { folder } from './folder.ts';
import { layer } from './layer.ts';
import { runList } from './runlist.ts';
import { drawing } from './drawing.ts';
import { swatch } from './swatch.ts';
import { path } from './path.ts';
import { guide } from './guide.ts';
import { starter } from './starter.ts';
import { plate } from './plate.ts';
import { variant } from './variant.ts';
import { between } from './between.ts';
import { fill } from './fill.ts';
import { tone } from './tone.ts';
import { smear } from './smear.ts';
import { ride } from './ride.ts';
import { scatter } from './scatter.ts';
import { light } from './light.ts';
import { sound } from './sound.ts';
import type { Kind } from './kind.ts';

export const KINDS = {
  shot,
  plane,
  placement,
  element,
  folder,
  layer,
  runlist: runList,
  drawing,
  swatch,
  path,
  guide,
  starter,
  plate,
  variant,
  between,
  fill,
  tone,
  smear,
  ride,
  scatter,
  light,
  sound,
} as const;

export type EntityKind = keyof typeof KINDS;
export type EntityOf<K extends EntityKind> = (typeof KINDS)[K] extends Kind<infer E> ? E : never;
export type Entity = { [K in EntityKind]: EntityOf<K> }[EntityKind];

/** The names of all kinds. */
export const entityKinds = (): EntityKind[] => Object.keys(KINDS) as EntityKind[];

/** What is to be known of the kind of an entity. */
export const descriptorOf = <E extends Entity>(entity: E): Kind<E> => KINDS[entity.kind] as unknown as Kind<E>;

export * from './shot.ts';
export * from './plane.ts';
export * from './placement.ts';
export * from './element.ts';
export * from './folder.ts';
export * from './layer.ts';
export * from './runlist.ts';
export * from './drawing.ts';
export * from './swatch.ts';
export * from './path.ts';
export * from './guide.ts';
export * from './starter.ts';
export * from './plate.ts';
export * from './variant.ts';
export * from './between.ts';
export * from './fill.ts';
export * from './tone.ts';
export * from './smear.ts';
export * from './ride.ts';
export * from './scatter.ts';
export * from './light.ts';
export * from './sound.ts';
