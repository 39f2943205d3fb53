/** Accidents in an element, looked for in the painter: layer by layer, so that the picture is asked for in between. */
import { findingsOf, type Finding } from '@tallow/core/checks';
import { find, shotOf, type Id } from '@tallow/core/document';
import { elementLength, placedElements, timedLayers } from '@tallow/core/timing';
import type { Board } from './board.ts';

/** Comes after whatever else was asked for meanwhile. */
const whenFree = (): Promise<void> => new Promise((next) => setTimeout(next));

/** Drawings asked of the page at once. */
const AT_ONCE = 4;

/**
 * What is worth a look on an element's layers. What was found of a drawing is kept with it: only those that changed are
 * looked through again.
 * @returns null when the document changed meanwhile: it is looked for anew then.
 */
export async function findingsIn(
  board: Pick<Board, 'doc' | 'changes' | 'ready'>,
  elementId: Id,
): Promise<Finding[] | null> {
  const { changes } = board;
  const element = find(board.doc, 'element', elementId);
  if (!element) return null;
  const { width, height } = shotOf(board.doc);
  const { placement } = placedElements(board.doc).find((placed) => placed.element.id === elementId) ?? {};
  const { x, y } = placement ?? { x: 0, y: 0 };
  const seen = { left: -x, top: -y, right: width - x, bottom: height - y };
  const length = elementLength(board.doc, element);
  const found: Finding[] = [];
  for (const { layer } of timedLayers(board.doc, element)) {
    const ids = Object.values(layer.slots);
    for (let i = 0; i < ids.length; i += AT_ONCE) {
      await board.ready(ids.slice(i, i + AT_ONCE), true);
      if (board.changes !== changes) return null;
    }
    const timed = timedLayers(board.doc, element).find((each) => each.layer.id === layer.id);
    if (timed) found.push(...findingsOf(board.doc, timed, length, element.time === 'cycle', seen));
    await whenFree();
    if (board.changes !== changes) return null;
  }
  return found;
}
