/** An effect of the shelf put into the open shot: by a press where it belongs, or dropped in the picture. */
import { find, randomId, shotOf } from '@tallow/core/document';
import { apply, invert, type Point } from '@tallow/core/geometry';
import { putFromShelf, type ShelfClip } from '@tallow/core/shelf';
import { request } from '../api/client.ts';
import { readBodies } from '../api/read-bodies.ts';
import type { ShelfItem, ShelfParts } from '../api/types.ts';
import { showing } from '../picture/showing.ts';
import { shotFrameNow } from '../playback/shot-time.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { openInside, selectUses } from '../tools/place/placing.ts';
import { viewMatrix } from '../view/view.ts';
import { viewed } from '../view/viewed.ts';

/** The place of the shot under a place of the page, px of the shot; null beside the picture. */
export function shotPlace({ x, y }: Point): Point | null {
  const { doc } = useDocument.getState();
  const box = document.querySelector('[data-testid=picture]')?.getBoundingClientRect();
  if (!doc || !box || x < box.left || x > box.right || y < box.top || y > box.bottom) return null;
  const { view, area } = viewed();
  return apply(invert(viewMatrix(view, shotOf(doc), area)), { x: x - box.left, y: y - box.top });
}

/** An effect as the shelf has it now. @throws what is said to the user. */
export async function effectClip({ id, name }: Pick<ShelfItem, 'id' | 'name'>): Promise<ShelfClip> {
  const parts = await request<ShelfParts>('GET', `/shelf/${id}/parts`);
  return { ...parts, entities: readBodies(parts.entities, name) };
}

/** @param at where its anchor stands, px of the shot; null for where it stood in its own. */
export async function putIn(item: ShelfItem, at: Point | null): Promise<void> {
  const { name, time } = item;
  let clip: ShelfClip;
  try {
    clip = await effectClip(item);
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
    return;
  }
  // What loops is there from the beginning; what ends begins at the playhead.
  const start = time === 'cycle' ? 0 : shotFrameNow();
  let made: ReturnType<typeof putFromShelf> | undefined;
  edit(`put in ${name}`, (doc) => {
    made = putFromShelf(doc, clip, { at, start }, randomId);
    return made.doc;
  });
  if (!made || !find(made.doc, 'element', made.elementId)) return;
  setSelection({ elementId: made.elementId, layerId: null, selectedRuns: null, place: null });
  if (showing().assembling && made.placementId) {
    // It lies on a plane of the shot, not inside of what was open.
    openInside(null);
    selectUses([made.placementId]);
  }
  const { broughtSwatches: brought } = made;
  const swatches = brought === 1 ? ' One swatch came along.' : brought > 1 ? ` ${brought} swatches came along.` : '';
  say(`“${name}” is in the shot.${swatches}`);
}
