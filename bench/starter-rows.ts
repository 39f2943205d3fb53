/** Rows of the starters: a fire laid whole, one drawing of it for a preview, and what the field kernel's cost grows with. */
import { gridOver } from '@tallow/core/geometry';
import { layAll, sceneFor, starterOf, unionField, type Ball } from '@tallow/core/starters';
import { against, sideBySide, timed, timeRow, type Row } from './measure.ts';

/** Goals of the design in ms; rows are held against them. */
const LAID_MS = 1500;
const PREVIEW_MS = 60;

/** Discs on a square raster that together cover as much as one of 400 px. */
function discsCovering(count: number): Ball[] {
  const side = Math.sqrt(count);
  const r = 400 / side;
  return Array.from({ length: count }, (_, i) => ({
    x: (i % side) * 2 * r + r,
    y: Math.floor(i / side) * 2 * r + r,
    r,
  }));
}

export async function starterRows(): Promise<Row[]> {
  const kind = starterOf('fire');
  // As large as a shot of 1920 x 1080 has room for.
  const preset = { name: 'whole frame', settings: { height: 760, width: 620, tongues: 6 }, length: 24, hold: 1 };
  const scene = sceneFor(kind, preset, 7);
  const grid = gridOver({ left: 0, top: 0, right: 800, bottom: 800 }, 3);
  const many = discsCovering(64);
  const one = discsCovering(1);
  return [
    against(
      'a fire of 24 drawings, laid whole',
      timed(5, () => layAll(kind, scene)),
      LAID_MS,
    ),
    against(
      'one drawing of it, for a preview',
      timed(11, () => kind.draw(scene, 11)),
      PREVIEW_MS,
    ),
    timeRow(
      'field of 64 balls',
      'one ball over the same area',
      2,
      await sideBySide(
        31,
        () => unionField(many, grid, 10),
        () => unionField(one, grid, 10),
      ),
    ),
  ];
}
