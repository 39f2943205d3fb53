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

export { AIR_LIMITS, FOCAL_LIMITS, type Shot, SHOT_LIMITS } from './shot.ts';
export { DEPTH_LIMITS, type Plane } from './plane.ts';
export {
  AS_DRAWN,
  type Corners,
  type Outside,
  OUTSIDES,
  type Placement,
  type Seat,
  SPEED_LIMITS,
} from './placement.ts';
export { type Element, type ElementForm, type ElementTime, LIGHT_ABOVE, type Trace } from './element.ts';
export type { Folder } from './folder.ts';
export { type Layer, LAYER_ROLES, type LayerRole } from './layer.ts';
export type { Pose, Run, RunList } from './runlist.ts';
export type { Drawing } from './drawing.ts';
export { type Swatch, SWATCH_ROLES, type SwatchRole } from './swatch.ts';
export type { Path, StandIn } from './path.ts';
export type { Guide, GuideForm } from './guide.ts';
export { type Effect, EFFECTS, type LaidDrawing, type Starter } from './starter.ts';
export { type AssetId, type Plate, PLATE_FRAMES } from './plate.ts';
export type { HeldTake, Variant } from './variant.ts';
export { type Between, type Tie, type WayKind, WAYS } from './between.ts';
export type { Fill, FilledRegion, FilledSlot } from './fill.ts';
export { type Tone, TONE_KEYS, type ToneKey } from './tone.ts';
export {
  REACHES,
  type Replaced,
  type Smear,
  type SmearForm,
  type Smearing,
  type SmearReach,
  type SmearTime,
  type SmearWay,
} from './smear.ts';
export type { Ride } from './ride.ts';
export type { Scatter } from './scatter.ts';
export { type Light, LIGHT_LIMITS, type LitThings } from './light.ts';
export { type Sound, SOUND_LIMITS } from './sound.ts';
