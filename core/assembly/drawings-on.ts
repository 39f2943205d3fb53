/** The drawings of a frame: what has to be there before it can be drawn. */
import { find, findAll, shotOf, type Element, type Id, type ShotDocument } from '../document/index.ts';
import { placedInside, shownOn, timedLayers } from '../timing/index.ts';
import { allOccurrences } from './occurrences.ts';

/** The uses whose lights go by what is drawn: all of their drawings tell how bright one of them is. */
function followedBy(doc: ShotDocument): ReadonlySet<Id> {
  const lights = findAll(doc, 'light', shotOf(doc).lights);
  return new Set(lights.flatMap(({ visible, follows, sourceId }) => (visible && follows > 0 && sourceId) || []));
}

/** All drawings of uses that cut other things, be they seen or not: what they have passed over so far may be any of them. */
function cutting(doc: ShotDocument): Id[] {
  const shot = shotOf(doc);
  const onPlanes = findAll(doc, 'plane', shot.planes).flatMap(({ placements }) => placements);
  const things = [...findAll(doc, 'placement', onPlanes), ...findAll(doc, 'plate', [...shot.plates, ...onPlanes])];
  const elements = new Set<Element>();
  const add = (element: Element | undefined): void => {
    if (!element || elements.has(element)) return;
    elements.add(element);
    for (const inner of placedInside(doc, element)) add(inner.element);
  };
  for (const { cut } of things) add(find(doc, 'element', find(doc, 'placement', cut?.by)?.elementId));
  return [...elements].flatMap((element) =>
    timedLayers(doc, element).flatMap(({ layer }) => Object.values(layer.slots)),
  );
}

/** The drawings that layers of placed elements show on a frame of the shot, seen or not, each once, and what lights hang on there. */
export function drawingsOn(doc: ShotDocument, shotFrame: number): Id[] {
  const followed = followedBy(doc);
  return [
    ...new Set([
      ...cutting(doc),
      ...allOccurrences(doc, shotFrame).flatMap(({ element, placement, moment, length }) =>
        timedLayers(doc, element).flatMap((timed) =>
          followed.has(placement.id)
            ? Object.values(timed.layer.slots)
            : (shownOn(timed, moment.frame, length)?.drawingId ?? []),
        ),
      ),
    ]),
  ];
}
