/** Plates of a frame: which pictures they show, and where. */
import { findAll, shotOf, type AssetId, type Plate, type ShotDocument } from '../document/index.ts';
import { multiply, projectionTo, type Box, type Matrix, type Projection } from '../geometry/index.ts';
import type { Picture } from '../canvas/index.ts';

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

/** From px of a plate's picture to shot px. */
export function plateMatrix({ x, y, width, height, scale, angle }: Plate): Matrix {
  const [cos, sin] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  return multiply([cos, sin, -sin, cos, x, y], [1, 0, 0, 1, -width / 2, -height / 2]);
}

/** What its four corners make of a plate's picture, px of it; null where it lies flat, or they are no rectangle seen in perspective. */
export const plateBend = ({ corners, width, height }: Plate): Projection | null =>
  corners && projectionTo({ left: 0, top: 0, right: width, bottom: height }, corners);

/** What a plate's picture takes up, px of it: more or less than its size where it lies tilted. */
export function plateRoom(plate: Plate): Box {
  const whole = { left: 0, top: 0, right: plate.width, bottom: plate.height };
  const at = plateBend(plate) ? plate.corners! : null;
  if (!at) return whole;
  const [xs, ys] = [at.map(({ x }) => x), at.map(({ y }) => y)];
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}
