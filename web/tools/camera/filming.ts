/** Standing beside the camera: the picture is still, and its frame is moved over it. */
import { cameraOn, depthMatrix } from '@tallow/core/assembly';
import { CAMERA_VALUES, setCamera, type CameraValue } from '@tallow/core/edit';
import { shotOf, valueAt, type ShotDocument } from '@tallow/core/document';
import { apply, invert, type Point, type Quad } from '@tallow/core/geometry';
import { setShowing, showing } from '../../picture/showing.ts';
import { setReferences } from '../../references/references.ts';
import { selectPlane } from '../place/placing.ts';

/** Begins to stand beside the camera, or looks through it again. */
export function filmCamera(on: boolean): void {
  if (on) {
    selectPlane(null);
    setReferences({ shown: false });
  }
  setShowing({ filming: on });
}

export const isFilming = (): boolean => showing().filming;

/** The camera's frame on the picture plane: its corners from the top left one on, px of the shot. */
export function frameOfCamera(doc: ShotDocument, shotFrame: number): Quad {
  const { width, height } = shotOf(doc);
  const back = invert(depthMatrix(doc, 0, shotFrame));
  const at = (x: number, y: number): Point => apply(back, { x, y });
  return [at(0, 0), at(width, 0), at(width, height), at(0, height)];
}

/** Where the middle of the camera's frame is, px of the shot. */
export function middleOfCamera(doc: ShotDocument, shotFrame: number): Point {
  const { width, height } = shotOf(doc);
  const { x, y } = cameraOn(doc, shotFrame);
  return { x: width / 2 + x, y: height / 2 + y };
}

/** How a camera is moved: px of the picture plane, times its zoom, radians. */
interface CameraMove {
  readonly dx?: number;
  readonly dy?: number;
  readonly zoom?: number;
  readonly angle?: number;
}

/** Moves the camera on a frame: what changes over time is set there. */
export function moveCamera(
  doc: ShotDocument,
  frame: number,
  { dx = 0, dy = 0, zoom = 1, angle = 0 }: CameraMove,
): ShotDocument {
  const { camera } = shotOf(doc);
  const wanted: Readonly<Record<CameraValue, (now: number) => number>> = {
    x: (now) => now + dx,
    y: (now) => now + dy,
    zoom: (now) => now * zoom,
    angle: (now) => now + angle,
  };
  return CAMERA_VALUES.reduce((next, which) => {
    const now = valueAt(camera[which], frame, null);
    const to = wanted[which](now);
    return to === now ? next : setCamera(next, which, frame, to);
  }, doc);
}
