/** Scanned pictures read, registered and traced, away from the main thread. */
import { apply, type Matrix, type Point } from '@tallow/core/geometry';
import {
  darknessOf,
  findMark,
  scanMarkAt,
  markReach,
  overlaid,
  scannedShapes,
  type Darkness,
  type Levels,
  type RegistrationMark,
  type ScannedShape,
} from '@tallow/core/scan';

/** px of the longer side that is looked at: finer than pencil on paper scanned at 150 dpi. */
const LOOKED_AT = 1600;

/** A picture as it is looked at, at most so large. @throws where it cannot be decoded. */
export async function decodedAtMost(file: Blob, largest = LOOKED_AT): Promise<ImageData> {
  const whole = await createImageBitmap(file);
  const scale = Math.min(1, largest / Math.max(whole.width, whole.height));
  const [width, height] = [Math.max(1, Math.round(whole.width * scale)), Math.max(1, Math.round(whole.height * scale))];
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(whole, 0, 0, width, height);
  whole.close();
  return context.getImageData(0, 0, width, height);
}

const read = async (file: Blob): Promise<Darkness> => darknessOf(await decodedAtMost(file));

/** The marks of the first picture; null for one that lies on bare paper. */
interface ScanReference {
  readonly marks: readonly [RegistrationMark | null, RegistrationMark | null];
}

/** @param marks as shares of width and height. */
export async function scanReference(file: Blob, marks: readonly [Point, Point]): Promise<ScanReference> {
  const picture = await read(file);
  const [first, second] = marks;
  const found = ({ x, y }: Point) => scanMarkAt(picture, { x: x * picture.width, y: y * picture.height });
  return { marks: [found(first), found(second)] };
}

export interface Scanned {
  readonly width: number;
  readonly height: number;
  readonly shapes: readonly ScannedShape[];
}

/** Rings in place, through a map. */
function mapped(ring: Float32Array, matrix: Matrix): void {
  for (let i = 0; i < ring.length; i += 2) {
    const { x, y } = apply(matrix, { x: ring[i]!, y: ring[i + 1]! });
    ring[i] = x;
    ring[i + 1] = y;
  }
}

/** @param dust px² under which a speck is left out. @returns null where a mark is not found. */
export async function scanDrawing(
  file: Blob,
  levels: Levels,
  dust: number,
  marks: readonly [RegistrationMark, RegistrationMark] | null,
): Promise<Scanned | null> {
  const picture = await read(file);
  const { width, height } = picture;
  if (!marks) return { width, height, shapes: scannedShapes(picture, levels, dust) };
  const [first, second] = marks.map((mark) => findMark(picture, mark));
  if (!first || !second) return null;
  const left = { around: [first, second], reach: 1.5 * markReach(picture) };
  const shapes = scannedShapes(picture, levels, dust, left);
  const onto = overlaid([first, second], [marks[0].at, marks[1].at]);
  for (const { rings } of shapes) for (const ring of rings) mapped(ring, onto);
  return { width, height, shapes };
}
