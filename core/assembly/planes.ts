/** How planes of depth are seen: smaller the farther they are, shifted, turned and zoomed by the camera. */
import {
  find,
  findAll,
  keysIn,
  shotOf,
  valueAt,
  type Id,
  type Placement,
  type Plane,
  type Shot,
  type ShotDocument,
} from '../document/index.ts';
import { IDENTITY, type Matrix } from '../geometry/index.ts';
import { shakenBy } from './shake.ts';
import { onWay } from './way.ts';

/** The camera as it is on a frame. */
interface CameraNow {
  /** px of the picture plane that its middle is off. */
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
  /** Radians, clockwise. */
  readonly angle: number;
}

const REST: CameraNow = { x: 0, y: 0, zoom: 1, angle: 0 };

/** px from which the picture is seen. */
export const focalOf = ({ focal, width }: Pick<Shot, 'focal' | 'width'>): number => focal ?? width;

/** Nearer than this share of the way to the eye nothing is seen nearer still. */
const NEAREST = 0.05;

/**
 * By how much things at a depth are seen smaller: f / (f + d) of the distance f that the picture is seen from. A depth nearer than
 * a twentieth of that distance counts as there.
 * @param depth px; 0 is the picture plane, positive is farther.
 */
export const depthScale = (focal: number, depth: number): number => focal / Math.max(NEAREST * focal, focal + depth);

/** The depth at which things are seen so much smaller: the inverse of `depthScale`. @param scale above 0, at most 20. */
export const depthOfScale = (focal: number, scale: number): number => focal / scale - focal;

/** Whether the camera does anything at all. */
export function isAtRest({ camera: { x, y, zoom, angle, pathId, shakes } }: Shot): boolean {
  const stays = (value: typeof x, rest: number) => keysIn(value).length === 0 && valueAt(value, 0, null) === rest;
  return shakes.length === 0 && pathId === null && stays(x, 0) && stays(y, 0) && stays(zoom, 1) && stays(angle, 0);
}

/** Whether the camera goes anywhere over the shot, shakes left out. */
export const cameraMoves = ({ camera: { x, y, zoom, angle, pathId } }: Shot): boolean =>
  pathId !== null || [x, y, zoom, angle].some((value) => keysIn(value).length > 0);

/** The camera on a frame of the shot. @param steady without its shakes. */
export function cameraOn(doc: ShotDocument, shotFrame: number, steady = false): CameraNow {
  const shot = shotOf(doc);
  if (isAtRest(shot)) return REST;
  const { x, y, zoom, angle, pathId, shakes } = shot.camera;
  const path = find(doc, 'path', pathId);
  const [first, here] = path ? [onWay(path, -Infinity), onWay(path, shotFrame)] : [REST, REST];
  const shaken = steady ? REST : shakenBy(shakes, shotFrame, shot.rate);
  return {
    x: valueAt(x, shotFrame, null) + here.x - first.x + shaken.x,
    y: valueAt(y, shotFrame, null) + here.y - first.y + shaken.y,
    zoom: valueAt(zoom, shotFrame, null),
    angle: valueAt(angle, shotFrame, null) + shaken.angle,
  };
}

/** How the shot is looked at. */
export interface HowSeen {
  /** Whether the camera is left at rest, as while drawing. */
  readonly still?: boolean;
  /** Whether its shakes are left out. */
  readonly steady?: boolean;
}

/**
 * From a plane's own px to px of the picture: about the middle of the picture, what the camera has moved away shrinks with depth,
 * then it is turned and zoomed. At depth 0 without a camera nothing is changed, to the bit.
 */
export function depthMatrix(
  doc: ShotDocument,
  depth: number,
  shotFrame: number,
  { still, steady }: HowSeen = {},
): Matrix {
  const shot = shotOf(doc);
  const near = depthScale(focalOf(shot), depth);
  const { x, y, zoom, angle } = still ? REST : cameraOn(doc, shotFrame, steady);
  const size = near * zoom;
  if (size === 1 && x === 0 && y === 0 && angle === 0) return IDENTITY;
  const [cos, sin] = [Math.cos(-angle) * size, Math.sin(-angle) * size];
  const [mx, my] = [shot.width / 2, shot.height / 2];
  const [ox, oy] = [mx + x, my + y];
  return [cos, sin, -sin, cos, mx - cos * ox + sin * oy, my - sin * ox - cos * oy];
}

/** The plane that something lies on; undefined for what lies on none. */
export const planeOf = (doc: ShotDocument, id: Id): Plane | undefined =>
  findAll(doc, 'plane', shotOf(doc).planes).find(({ placements }) => placements.includes(id));

/** Whether a use stays where it is: locked by itself, or with its plane. */
export const isFixed = (doc: ShotDocument, { id, locked }: Pick<Placement, 'id' | 'locked'>): boolean =>
  locked || planeOf(doc, id)?.locked === true;

/** From the space that a placement on a plane, or a plate, lies in to px of the picture. */
export const planeMatrix = (doc: ShotDocument, id: Id, shotFrame: number, how: HowSeen = {}): Matrix =>
  depthMatrix(doc, planeOf(doc, id)?.depth ?? 0, shotFrame, how);

/** How much of the air's colour has come at a depth, 0 to 1: half of it at its reach, half of what is left at twice that. */
export const airAt = ({ air }: Pick<Shot, 'air'>, depth: number): number =>
  air && depth > 0 ? 1 - 0.5 ** (depth / air.reach) : 0;
