/** What drawings cover on a coarse grid, measured by the painter, kept for as long as the drawing is as it is. */
import { find, type Drawing, type Id, type ShotDocument } from '@tallow/core/document';
import type { Cover } from '@tallow/core/checks';
import type { Box } from '@tallow/core/geometry';
import { besidePainter } from '../workers/painter-client.ts';
import { boxAround } from './miniatures.ts';
import { pictureFirst } from './open-engine.ts';

const CELLS = 72;
/** Drawings measured at once, so that the painter is free for the picture in between. */
const AT_ONCE = 4;
/** The part of element space that is looked at grows in steps this large, px, so that it rarely changes. */
const ROOM = 128;

/** What each drawing covers, by the part that was looked at: a drawing never changes, its next version is another. */
const covered = new WeakMap<Drawing, { key: string; cover: Cover }>();

const roomy = ({ left, top, right, bottom }: Box): Box => ({
  left: Math.floor(left / ROOM) * ROOM,
  top: Math.floor(top / ROOM) * ROOM,
  right: Math.ceil(right / ROOM) * ROOM,
  bottom: Math.ceil(bottom / ROOM) * ROOM,
});

/** Coverage of drawings within a box; only those not known yet are asked of the painter. Null when it is no longer wanted. */
async function coverageIn(drawings: readonly Drawing[], box: Box, isLeft: () => boolean): Promise<Cover[] | null> {
  const key = Object.values(box).join();
  const unknown = [...new Set(drawings)].filter((drawing) => covered.get(drawing)?.key !== key);
  for (let i = 0; i < unknown.length; i += AT_ONCE) {
    const part = unknown.slice(i, i + AT_ONCE);
    await pictureFirst();
    if (isLeft()) return null;
    const covers = await besidePainter().coverage(
      part.map(({ id }) => id),
      box,
      CELLS,
    );
    if (isLeft()) return null;
    part.forEach((drawing, k) => covered.set(drawing, { key, cover: covers[k]! }));
  }
  return drawings.map((drawing) => covered.get(drawing)!.cover);
}

/** Coverage of drawings over the part they reach together, and px across one of its cells. */
interface Coverage {
  readonly covers: readonly Cover[];
  readonly cell: number;
}

/** Null when nothing is drawn, a drawing is not loaded, or it is no longer wanted. */
export async function coverageOf(
  doc: ShotDocument,
  drawingIds: readonly Id[],
  isLeft: () => boolean,
): Promise<Coverage | null> {
  const box = boxAround(doc, drawingIds);
  const drawings = drawingIds.flatMap((id) => find(doc, 'drawing', id) ?? []);
  if (!box || drawings.length < drawingIds.length) return null;
  const room = roomy(box);
  const covers = await coverageIn(drawings, room, isLeft);
  return covers && { covers, cell: Math.max(room.right - room.left, room.bottom - room.top) / CELLS };
}
