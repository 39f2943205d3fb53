/** Plates of a frame: which pictures lie behind everything, and their drawing. */
import { findAll, shotOf, type AssetId, type Id, type Plate, type ShotDocument } from '../document/index.ts';
import { depthMatrix, type HowSeen } from '../assembly/index.ts';
import { multiply, type Matrix } from '../geometry/index.ts';
import type { Picture, Surface } from '../canvas/index.ts';

/** The picture of an asset, or null while it is not there. */
export type AssetPicture = (asset: AssetId) => Picture | null;

/** The asset a plate shows on a frame of the shot, or null when it shows none. A sequence goes with the shot's frames. */
export function assetAt({ assets, span }: Plate, shotFrame: number): AssetId | null {
  const at = shotFrame - (span?.from ?? 0);
  if (span && (at < 0 || at >= span.length)) return null;
  return (assets.length === 1 ? assets[0] : assets[at]) ?? null;
}

/** The asset of a plate that is seen on a frame, or null. @param guides whether those for working are seen. */
export const shownOnPlate = (plate: Plate, shotFrame: number, guides: boolean): AssetId | null =>
  plate.visible && !plate.beside && (guides || !plate.guide) ? assetAt(plate, shotFrame) : null;

/** All plates in the picture on a frame, the farthest first. @param guides whether those for working are seen. */
export const platesAt = (doc: ShotDocument, shotFrame: number, guides: boolean): { plate: Plate; asset: AssetId }[] =>
  findAll(doc, 'plate', shotOf(doc).plates)
    .reverse()
    .flatMap((plate) => {
      const asset = shownOnPlate(plate, shotFrame, guides);
      return asset ? [{ plate, asset }] : [];
    });

/** Plates that lie on a plane, between uses of elements. */
const onPlane = (doc: ShotDocument): Set<Id> =>
  new Set(findAll(doc, 'plane', shotOf(doc).planes).flatMap(({ placements }) => placements));

/** From px of a plate's picture to shot px. */
export function plateMatrix({ x, y, width, height, scale, angle }: Plate): Matrix {
  const [cos, sin] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  return multiply([cos, sin, -sin, cos, x, y], [1, 0, 0, 1, -width / 2, -height / 2]);
}

/** Draws the plates of a frame that lie behind all planes. What is not there yet is left out. @param strength 0 to 1, of all of them. */
export function drawPlates(
  { context }: Surface,
  doc: ShotDocument,
  shotFrame: number,
  view: Matrix,
  guides: boolean,
  pictureOf: AssetPicture,
  strength = 1,
  how: HowSeen = {},
): void {
  const others = onPlane(doc);
  const seen = multiply(view, depthMatrix(doc, 0, shotFrame, how));
  for (const { plate, asset } of platesAt(doc, shotFrame, guides)) {
    if (others.has(plate.id)) continue;
    const picture = pictureOf(asset);
    if (!picture) continue;
    context.setTransform(...multiply(seen, plateMatrix(plate)));
    context.globalAlpha = plate.opacity * strength;
    context.drawImage(picture, 0, 0);
    context.globalAlpha = 1;
  }
}
