/** Accidents found in the drawings of a layer: what was left empty, drawn twice or drawn out of sight. */
import { find, same, shotOf, type Drawing, type Id, type ShotDocument } from '../document/index.ts';

import { intersection, isEmpty, type Box } from '../geometry/index.ts';
import { drawingBox, markBox } from '../render/index.ts';
import { placedElements, exposures, runStart, timedLayers, type TimedLayer } from '../timing/index.ts';

export type FindingKind = 'empty' | 'twice' | 'outside';

export interface Finding {
  readonly kind: FindingKind;
  readonly layerId: Id;
  /** Index of the run that shows it. */
  readonly index: number;
  /** Element frame on which it first shows. */
  readonly frame: number;
  /** Said to the user. */
  readonly text: string;
}

const isSame = (a: Drawing, b: Drawing): boolean =>
  a.order.length > 0 &&
  a.order.length === b.order.length &&
  a.order.every((id, i) => {
    const other = b.marks[b.order[i]!]!;
    return same({ ...a.marks[id]!, id: other.id }, other);
  });

/** What was found of drawings. They never change, so each is looked through once, and again when the frame is another. */
const pairs = new WeakMap<Drawing, { readonly next: Drawing; readonly alike: boolean }>();
const strays = new WeakMap<Drawing, { readonly seen: string; readonly stray: number | 'all' }>();

function areAlike(a: Drawing, b: Drawing): boolean {
  const known = pairs.get(a);
  if (known?.next === b) return known.alike;
  const alike = isSame(a, b);
  pairs.set(a, { next: b, alike });
  return alike;
}

/** How many marks of a drawing lie wholly outside a part of its space. */
function strayIn(drawing: Drawing, seen: Box): number | 'all' {
  const key = `${seen.left} ${seen.top} ${seen.right} ${seen.bottom}`;
  const known = strays.get(drawing);
  if (known?.seen === key) return known.stray;
  const stray = isEmpty(intersection(drawingBox(drawing), seen))
    ? 'all'
    : Object.values(drawing.marks).filter((mark) => mark.kind !== 'rub' && isEmpty(intersection(markBox(mark), seen)))
        .length;
  strays.set(drawing, { seen: key, stray });
  return stray;
}

/**
 * Looks through one layer. Drawings not loaded are passed over.
 * @param turn the element's length in frames. @param wraps whether the last drawing leads to the first.
 * @param seen the part of element space that the shot's frame shows.
 */
export function findingsOf(doc: ShotDocument, timed: TimedLayer, turn: number, wraps: boolean, seen: Box): Finding[] {
  const { layer, list } = timed;
  // What a starter laid was not left empty or drawn out of sight by accident.
  if (list.period === 1 || layer.starterId) return [];
  const shown = exposures(list).flatMap(({ run, index }) => {
    const drawing = run.slot ? find(doc, 'drawing', layer.slots[run.slot]) : undefined;
    return drawing ? [{ drawing, index }] : [];
  });
  return shown.flatMap(({ drawing, index }, i): Finding[] => {
    const at = (kind: FindingKind, text: string): Finding => ({
      kind,
      layerId: layer.id,
      index,
      frame: runStart(list, index, turn),
      text: `Drawing ${i + 1} of ${layer.name} ${text}`,
    });
    if (drawing.order.length === 0) return [at('empty', 'is empty')];
    const next = shown[i + 1] ?? (wraps && shown.length > 1 ? shown[0] : undefined);
    const found: Finding[] = [];
    if (next && next.drawing !== drawing && areAlike(drawing, next.drawing))
      found.push(at('twice', `is the same as drawing ${((i + 1) % shown.length) + 1}`));
    const stray = strayIn(drawing, seen);
    if (stray === 'all') found.push(at('outside', 'lies wholly outside the frame'));
    else if (stray > 0)
      found.push(at('outside', `has ${stray === 1 ? 'a mark' : `${stray} marks`} wholly outside the frame`));
    return found;
  });
}

/** How many drawings reach beyond a shot's frame, and how many of those lie wholly outside it. */
export function beyondFrame(doc: ShotDocument): { reaching: number; outside: number } {
  const { width, height } = shotOf(doc);
  const drawings = new Map<Id, Box>();
  for (const {
    element,
    placement: { x, y },
  } of placedElements(doc))
    for (const { layer } of timedLayers(doc, element))
      for (const id of Object.values(layer.slots))
        drawings.set(id, { left: -x, top: -y, right: width - x, bottom: height - y });
  let [reaching, outside] = [0, 0];
  for (const [id, seen] of drawings) {
    const drawing = find(doc, 'drawing', id);
    const box = drawing && drawingBox(drawing);
    if (!box || isEmpty(box)) continue;
    const within = box.left >= seen.left && box.top >= seen.top && box.right <= seen.right && box.bottom <= seen.bottom;
    if (!within) reaching += 1;
    if (isEmpty(intersection(box, seen))) outside += 1;
  }
  return { reaching, outside };
}
