/** Accidents in an element, looked for in the painter: layer by layer, so that the picture is asked for in between. */
import { factsOf, findingsOf, type DrawingFacts, type Finding } from '@tallow/core/checks';
import { find, findAll, type Id } from '@tallow/core/document';
import { isLaidByItself } from '@tallow/core/edit';
import { elementLength, timedLayers } from '@tallow/core/timing';
import { seenPart } from '@tallow/core/assembly';
import type { Board } from './board.ts';

/** Drawings asked of the page at once. */
const AT_ONCE = 4;

/** What of a board accidents are looked for on. */
type FindingsBoard = Pick<Board, 'doc' | 'changes' | 'ready'> & { readonly facts: Map<Id, DrawingFacts> };

/**
 * What is worth a look on an element's layers. What is known of a drawing is kept, also when the drawing itself is given up:
 * only those that changed are asked for and looked through again.
 * @param nextTurn comes after whatever else was asked for meanwhile.
 * @returns null when the document changed meanwhile: it is looked for anew then.
 */
export async function findingsIn(
  board: FindingsBoard,
  elementId: Id,
  nextTurn: () => Promise<void>,
): Promise<Finding[] | null> {
  const { changes } = board;
  const element = find(board.doc, 'element', elementId);
  if (!element) return null;
  const seen = seenPart(board.doc, element);
  const length = elementLength(board.doc, element);
  const found: Finding[] = [];
  for (const { layer } of timedLayers(board.doc, element)) {
    const unknown = [...new Set(Object.values(layer.slots))].filter((id) => !board.facts.has(id));
    for (let i = 0; i < unknown.length; i += AT_ONCE) {
      const ids = unknown.slice(i, i + AT_ONCE);
      await board.ready(ids, true);
      if (board.changes !== changes) return null;
      for (const drawing of findAll(board.doc, 'drawing', ids)) {
        await nextTurn();
        if (board.changes !== changes) return null;
        board.facts.set(drawing.id, factsOf(drawing));
      }
    }
    const timed = timedLayers(board.doc, element).find((each) => each.layer.id === layer.id);
    const factsFor = (id: Id) => board.facts.get(id);
    if (timed)
      found.push(
        ...findingsOf(timed, length, element.time === 'cycle', seen, factsFor, isLaidByItself(board.doc, layer.id)),
      );
    await nextTurn();
    if (board.changes !== changes) return null;
  }
  return found;
}
