/** Accidents in an element, looked for in the painter: layer by layer, so that the picture is asked for in between. */
import { findingsOf, type Finding } from '@tallow/core/checks';
import { find, shotOf, type Id, type ShotDocument } from '@tallow/core/document';
import { elementLength, placedElements, timedLayers } from '@tallow/core/timing';

/** Comes after whatever else was asked for meanwhile. */
const whenFree = (): Promise<void> => new Promise((next) => setTimeout(next));

/**
 * What is worth a look on an element's layers. What was found of a drawing is kept with it: only those that changed are
 * looked through again.
 * @param docNow the document as it is: what changes while it is looked for is asked for anew. @returns null when it changed.
 */
export async function findingsIn(docNow: () => ShotDocument, elementId: Id): Promise<Finding[] | null> {
  const doc = docNow();
  const element = find(doc, 'element', elementId);
  if (!element) return null;
  const { width, height } = shotOf(doc);
  const { x, y } = placedElements(doc).find((placed) => placed.element.id === elementId)?.placement ?? { x: 0, y: 0 };
  const seen = { left: -x, top: -y, right: width - x, bottom: height - y };
  const length = elementLength(doc, element);
  const found: Finding[] = [];
  for (const timed of timedLayers(doc, element)) {
    found.push(...findingsOf(doc, timed, length, element.time === 'cycle', seen));
    await whenFree();
    if (docNow() !== doc) return null;
  }
  return found;
}
