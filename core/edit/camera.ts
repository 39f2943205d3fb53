/** Edits of the camera of a shot, of how far it is off, and of the air between. */
import {
  find,
  putEntities,
  SHAKE_LIMITS,
  shotOf,
  withKey,
  withNumber,
  withoutKey,
  valueAt,
  ZOOM_LIMITS,
  type Camera,
  type Ease,
  type Id,
  type NewId,
  type Shake,
  type Shot,
  type ShotDocument,
  type Value,
} from '../document/index.ts';
import { clamp } from '../geometry/index.ts';

/** What of the camera can change over time. Lengths are px, angles radians. */
export const CAMERA_VALUES = ['x', 'y', 'zoom', 'angle'] as const;
export type CameraValue = (typeof CAMERA_VALUES)[number];

const FAR = 100_000;
const LIMITS: Readonly<Record<CameraValue, readonly [number, number]>> = {
  x: [-FAR, FAR],
  y: [-FAR, FAR],
  zoom: [ZOOM_LIMITS.min, ZOOM_LIMITS.max],
  angle: [-1000, 1000],
};

const withCamera = (doc: ShotDocument, change: (camera: Camera) => Partial<Camera>): ShotDocument => {
  const shot = shotOf(doc);
  return putEntities(doc, { ...shot, camera: { ...shot.camera, ...change(shot.camera) } });
};

const withValue = (doc: ShotDocument, which: CameraValue, change: (value: Value) => Value): ShotDocument =>
  withCamera(doc, (camera) => ({ [which]: change(camera[which]) }));

/** Sets a number of the camera on a frame of the shot: throughout, or at that frame where it changes over time. */
export const setCamera = (doc: ShotDocument, which: CameraValue, frame: number, number: number): ShotDocument =>
  withValue(doc, which, (value) => withNumber(value, frame, clamp(number, ...LIMITS[which])));

/** Sets a key of the camera at a frame, with the number it has there; from the first key on it changes over time. */
export const setCameraKey = (doc: ShotDocument, which: CameraValue, frame: number, ease: Ease): ShotDocument =>
  withValue(doc, which, (value) => withKey(value, frame, valueAt(value, frame, null), ease));

export const dropCameraKey = (doc: ShotDocument, which: CameraValue, frame: number): ShotDocument =>
  withValue(doc, which, (value) => withoutKey(value, frame));

/** Has the camera go along a path, or along none. Unknown ids change nothing. */
export const setCameraPath = (doc: ShotDocument, pathId: Id | null): ShotDocument =>
  pathId !== null && !find(doc, 'path', pathId) ? doc : withCamera(doc, () => ({ pathId }));

/** A shaking as a hit of some size gives it. */
const FIRST_SHAKE = { lasts: 16, amount: 24, turn: 0.01, frequency: 6 } as const;

/** Shakes the camera from a frame on. The edit says which id the shaking got. */
export function addShake(
  doc: ShotDocument,
  from: number,
  seed: number,
  newId: NewId,
): { doc: ShotDocument; shakeId: Id } {
  const shake: Shake = { id: newId(), from, seed, ...FIRST_SHAKE };
  return { doc: withCamera(doc, ({ shakes }) => ({ shakes: [...shakes, shake] })), shakeId: shake.id };
}

/** Changes a shaking; numbers are kept within their limits. */
export function setShake(doc: ShotDocument, shakeId: Id, settings: Partial<Omit<Shake, 'id'>>): ShotDocument {
  const kept = { ...settings };
  for (const key of ['amount', 'turn', 'frequency'] as const) {
    const { min, max } = SHAKE_LIMITS[key];
    if (settings[key] !== undefined) kept[key] = clamp(settings[key], min, max);
  }
  if (settings.lasts !== undefined) kept.lasts = Math.max(1, Math.round(settings.lasts));
  return withCamera(doc, ({ shakes }) => ({
    shakes: shakes.map((shake) => (shake.id === shakeId ? { ...shake, ...kept } : shake)),
  }));
}

export const removeShake = (doc: ShotDocument, shakeId: Id): ShotDocument =>
  withCamera(doc, ({ shakes }) => ({ shakes: shakes.filter(({ id }) => id !== shakeId) }));

/** Sets how far the picture is seen from, or what the air does to what is far. */
export const setDepthOfShot = (doc: ShotDocument, settings: Partial<Pick<Shot, 'focal' | 'air'>>): ShotDocument =>
  putEntities(doc, { ...shotOf(doc), ...settings });
