export type { Id } from './id.ts';
export {
  AIR_LIMITS,
  type AssetId,
  type Between,
  type Corners,
  DEPTH_LIMITS,
  descriptorOf,
  type Drawing,
  type Effect,
  EFFECTS,
  type Element,
  type ElementForm,
  type ElementTime,
  type Entity,
  type EntityKind,
  entityKinds,
  type Fill,
  type FilledRegion,
  type FilledSlot,
  FOCAL_LIMITS,
  type Folder,
  type Guide,
  type GuideForm,
  type HeldTake,
  KINDS,
  type LaidDrawing,
  type Layer,
  LAYER_ROLES,
  type LayerRole,
  type Light,
  LIGHT_LIMITS,
  type LitThings,
  type Outside,
  OUTSIDES,
  type Path,
  type Placement,
  type Plane,
  type Plate,
  PLATE_FRAMES,
  type Pose,
  REACHES,
  type Replaced,
  type Ride,
  type Run,
  type RunList,
  type Scatter,
  type Seat,
  type Shot,
  SHOT_LIMITS,
  type Smear,
  type SmearForm,
  type Smearing,
  type SmearReach,
  type SmearTime,
  type SmearWay,
  type Sound,
  SOUND_LIMITS,
  SPEED_LIMITS,
  type StandIn,
  type Starter,
  type Swatch,
  SWATCH_ROLES,
  type SwatchRole,
  type Tie,
  type Tone,
  TONE_KEYS,
  type ToneKey,
  type Trace,
  type Variant,
  type WayKind,
  WAYS,
} from './kinds/index.ts';
export type { IdMap } from './kinds/kind.ts';
export { BLENDS, type Blend } from '../canvas/index.ts';
export {
  dropEntities,
  entitiesOf,
  find,
  findAll,
  marksAmong,
  marksInOrder,
  putEntities,
  type ShotDocument,
  shotOf,
} from './types.ts';
export {
  BRUSH_KINDS,
  type BrushKind,
  type BrushSettings,
  type Lays,
  type Mark,
  type Ring,
  type RubOut,
  type Samples,
  type Shape,
  type Stroke,
} from './mark-types.ts';
export { type Base, type Mood, MOODS, MOVES, type Phase } from './plan-types.ts';
export { type AppliedLook, type LookKind, type Gradient, GRADIENT_RUNS, type Recolour } from './look-types.ts';
export {
  constant,
  type Ease,
  EASES,
  jumpsAtSeam,
  type Key,
  keysIn,
  type Value,
  valueAt,
  withKey,
  withNumber,
  withoutKey,
} from './value.ts';
export { AT_HOME, type Shift } from './shift.ts';
export { withValues } from './values-of.ts';
export { CAMERA_AT_REST, SHAKE_LIMITS, ZOOM_LIMITS, type Camera, type Shake } from './camera.ts';
export type { CutBy } from './cut.ts';
export { assetsOf, holdsNothing, mapIds, pointersOf, pointersTo, referencesOf } from './pointers.ts';
export { decodeColumn, encodeColumn } from './columns.ts';
export { bytesOfMarks, packedMarks, unpackedMarks } from './packed-marks.ts';
export { NAME_LIMIT, textProblem } from './text.ts';
export { encodeEntity, isAsset, isId, readEntity } from './check.ts';
export { derivedId } from './derived-id.ts';
export { mergeOrder, same } from './merge-fields.ts';
export { mergeEntity } from './merge.ts';
export { applyStep, joinSteps, reversed, type Step, touchedBetween } from './history.ts';
export {
  documentOf,
  emptyDrawing,
  drawingLater,
  FIRST_SWATCHES,
  IN_ORDER,
  newElement,
  newGuide,
  type NewId,
  newLayer,
  newPath,
  newPlacement,
  newPlane,
  newShotDocument,
  NO_PLAN,
  randomId,
} from './create.ts';
