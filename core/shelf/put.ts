/** An effect from the shelf put into a shot: its anchor at a place, sized to the shot, its swatches mapped or brought along. */
import {
  find,
  findAll,
  putEntities,
  shotOf,
  type Id,
  type NewId,
  type Placement,
  type Shot,
  type ShotDocument,
} from '../document/index.ts';
import type { Point } from '../geometry/index.ts';
import { pasteParts, type PartsClip } from '../edit/index.ts';
import { placedElements } from '../timing/index.ts';

/** An effect as it comes from the shelf. */
export interface ShelfClip extends PartsClip {
  /** The size and rate of the shot it was kept from. */
  readonly made: Pick<Shot, 'width' | 'height'>;
  /** Which effect it is, and its revision. */
  readonly from: { readonly shelfId: Id; readonly revision: number };
}

/** How much larger it is put in than it was drawn, so that it covers as much of this picture. */
const sizedTo = (shot: Pick<Shot, 'width' | 'height'>, made: ShelfClip['made']): number =>
  Math.min(shot.width / made.width, shot.height / made.height);

/**
 * Puts an effect in front of all else.
 * @param at where its anchor stands, px of the shot; null for where it stood in its own. @param start frame of the shot.
 */
export function putFromShelf(
  doc: ShotDocument,
  clip: ShelfClip,
  { at, start }: { readonly at: Point | null; readonly start: number },
  newId: NewId,
): { doc: ShotDocument; elementId: Id; placementId: Id | null; broughtSwatches: number } {
  const put = pasteParts(doc, clip, '', newId);
  const [root] = clip.roots;
  const elementId = put.copies.get(root!)!;
  const element = find(put.doc, 'element', elementId)!;
  const shot = shotOf(doc);
  const placement = placedElements(put.doc).find((each) => each.element.id === elementId)?.placement;
  const marked = putEntities(put.doc, { ...element, shelf: clip.from });
  if (!placement) return { doc: marked, elementId, placementId: null, broughtSwatches: put.broughtSwatches };
  const size = sizedTo(shot, clip.made);
  const { anchor } = element;
  const stood = {
    x: ((placement.x + anchor.x) / clip.made.width) * shot.width,
    y: ((placement.y + anchor.y) / clip.made.height) * shot.height,
  };
  const stands = at ?? stood;
  const placed: Placement = {
    ...placement,
    start,
    x: stands.x - anchor.x,
    y: stands.y - anchor.y,
    shift: { ...placement.shift, scale: { constant: size } },
  };
  return {
    doc: putEntities(marked, placed),
    elementId,
    placementId: placement.id,
    broughtSwatches: put.broughtSwatches,
  };
}

/** Elements of a shot that came from the shelf, with which effect and revision. */
export const fromShelf = (doc: ShotDocument): { elementId: Id; shelfId: Id; revision: number }[] =>
  findAll(doc, 'element', shotOf(doc).elements).flatMap(({ id, shelf }) =>
    shelf ? [{ elementId: id, shelfId: shelf.shelfId, revision: shelf.revision }] : [],
  );
