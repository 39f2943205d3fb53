/** Edits of lights: added from a use or on a plane, set, keyed over time, taken away. */
import {
  constant,
  find,
  LIGHT_LIMITS,
  putEntities,
  shotOf,
  valueAt,
  withKey,
  withNumber,
  withoutKey,
  type Ease,
  type Id,
  type Light,
  type LitThings,
  type NewId,
  type ShotDocument,
  type Value,
} from '../document/index.ts';
import { planeOf } from '../assembly/index.ts';
import { clamp } from '../geometry/index.ts';
import { deleteEntities } from './remove.ts';
import { nameOfUse } from '../timing/index.ts';

/** What of a light can change over time: px, and 1 for its colour in full. */
export type LightValue = 'strength' | 'radius' | 'x' | 'y';

const FAR = 100_000;
const LIMITS: Readonly<Record<LightValue, readonly [number, number]>> = {
  x: [-FAR, FAR],
  y: [-FAR, FAR],
  radius: [LIGHT_LIMITS.radius.min, LIGHT_LIMITS.radius.max],
  strength: [LIGHT_LIMITS.strength.min, LIGHT_LIMITS.strength.max],
};

/** A light as it is first: a third of the picture wide, following what is drawn where it shines from a use. */
function firstLight(
  doc: ShotDocument,
  name: string,
  newId: NewId,
): Omit<Light, 'sourceId' | 'planeId' | 'at' | 'follows'> {
  const { width, swatches } = shotOf(doc);
  const all = swatches.flatMap((id) => find(doc, 'swatch', id) ?? []);
  const own = all.find(({ role }) => role === 'light') ?? all[0];
  return {
    kind: 'light',
    id: newId(),
    name,
    x: constant(0),
    y: constant(0),
    swatch: own?.id ?? '',
    radius: constant(Math.round(width / 3)),
    strength: constant(0.6),
    dies: 2,
    smooth: 1,
    reach: 600,
    side: 0.5,
    blend: 'screen',
    fallsOn: null,
    visible: true,
  };
}

/** Why no light can be added, or null. */
export const whyNotLight = (doc: ShotDocument): string | null =>
  shotOf(doc).swatches.length === 0 ? 'A light takes its colour from a swatch: add one to the palette first.' : null;

/** Has a use on a plane shine: it follows the use, and what is drawn. The edit says which id the light got; unknown ids change nothing. */
export function addLightOf(
  doc: ShotDocument,
  placementId: Id,
  newId: NewId,
): { doc: ShotDocument; lightId: Id | null } {
  const placement = find(doc, 'placement', placementId);
  const element = find(doc, 'element', placement?.elementId);
  if (!placement || !element || !planeOf(doc, placementId) || whyNotLight(doc)) return { doc, lightId: null };
  const name = `Light of ${nameOfUse(doc, placement)}`;
  const light: Light = {
    ...firstLight(doc, name, newId),
    sourceId: placementId,
    planeId: null,
    at: 'middle',
    follows: 0.5,
  };
  return { doc: withLight(doc, light), lightId: light.id };
}

/** Puts a light on a plane. @param at px of the plane. The edit says which id it got. */
export function addLightOn(
  doc: ShotDocument,
  planeId: Id,
  at: { readonly x: number; readonly y: number },
  newId: NewId,
): { doc: ShotDocument; lightId: Id | null } {
  const plane = find(doc, 'plane', planeId);
  if (!plane || whyNotLight(doc)) return { doc, lightId: null };
  const light: Light = {
    ...firstLight(doc, `Light on ${plane.name}`, newId),
    sourceId: null,
    planeId,
    at: 'anchor',
    follows: 0,
    x: constant(at.x),
    y: constant(at.y),
  };
  return { doc: withLight(doc, light), lightId: light.id };
}

function withLight(doc: ShotDocument, light: Light): ShotDocument {
  const shot = shotOf(doc);
  return putEntities(doc, light, { ...shot, lights: [light.id, ...shot.lights] });
}

const changed = (doc: ShotDocument, lightId: Id, change: (light: Light) => Partial<Light>): ShotDocument => {
  const light = find(doc, 'light', lightId);
  return light ? putEntities(doc, { ...light, ...change(light) }) : doc;
};

/** Sets what does not change over time; numbers are kept within their limits. */
export function setLight(
  doc: ShotDocument,
  lightId: Id,
  settings: Partial<Omit<Light, 'kind' | 'id' | 'sourceId' | 'planeId' | LightValue>>,
): ShotDocument {
  const kept = { ...settings };
  for (const key of ['dies', 'smooth', 'reach'] as const) {
    const { min, max } = LIGHT_LIMITS[key];
    if (settings[key] !== undefined) kept[key] = clamp(settings[key], min, max);
  }
  if (kept.smooth !== undefined) kept.smooth = Math.round(kept.smooth);
  return changed(doc, lightId, () => kept);
}

const withValue = (doc: ShotDocument, lightId: Id, which: LightValue, change: (value: Value) => Value): ShotDocument =>
  changed(doc, lightId, (light) => ({ [which]: change(light[which]) }));

/** Sets a number of a light: throughout, or on a frame of its time where it changes. */
export const setLightValue = (
  doc: ShotDocument,
  lightId: Id,
  which: LightValue,
  frame: number,
  number: number,
): ShotDocument => withValue(doc, lightId, which, (value) => withNumber(value, frame, clamp(number, ...LIMITS[which])));

/** Sets a key of a light on a frame of its time, with the number it has there. @param round frames of a turn, or null. */
export const setLightKey = (
  doc: ShotDocument,
  lightId: Id,
  which: LightValue,
  frame: number,
  round: number | null,
  ease: Ease,
): ShotDocument => withValue(doc, lightId, which, (value) => withKey(value, frame, valueAt(value, frame, round), ease));

export const dropLightKey = (doc: ShotDocument, lightId: Id, which: LightValue, frame: number): ShotDocument =>
  withValue(doc, lightId, which, (value) => withoutKey(value, frame));

/** Has a light fall on a thing or not; from the first choice on it falls on the chosen things alone. @param all what it falls on without a choice. */
export function setFallsOn(
  doc: ShotDocument,
  lightId: Id,
  thing: keyof LitThings,
  id: Id,
  on: boolean,
  all: LitThings,
): ShotDocument {
  return changed(doc, lightId, ({ fallsOn }) => {
    const now = fallsOn ?? all;
    const rest = now[thing].filter((each) => each !== id);
    return { fallsOn: { ...now, [thing]: on ? [...rest, id] : rest } };
  });
}

export const removeLight = (doc: ShotDocument, lightId: Id): ShotDocument =>
  find(doc, 'light', lightId) ? deleteEntities(doc, [lightId]) : doc;
