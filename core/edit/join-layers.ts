/** Joining layers into one, their marks kept. */
import {
  constant,
  find,
  AT_HOME,
  newLayer,
  putEntities,
  same,
  type Drawing,
  type Id,
  type Layer,
  type Mark,
  type NewId,
  type Run,
  type ShotDocument,
} from '../document/index.ts';
import { elementLength, isVisible, shownOn, timedLayers, type TimedLayer } from '../timing/index.ts';
import { deleteLayer, listOf } from './layers.ts';

/** What of a layer would be lost, or look different, on a layer with another one's marks; said to the user. */
function peculiar({ layer }: TimedLayer): string | null {
  if (!isPlain(layer))
    return `${layer.name} is blended, faded, moved or clipped; its marks would look different on one layer. Set it to normal at 100 %, where it was drawn, first.`;
  if (layer.finishes.length > 0)
    return `${layer.name} has looks, which would fall on the marks of both. Take its looks away first.`;
  if (layer.role === 'matte')
    return `${layer.name} is a matte: joined, it would hide nothing any more and be seen itself. Join it with no other layer.`;
  return null;
}

const isPlain = ({ opacity, blend, clip, shift }: Layer): boolean =>
  blend === 'normal' && !clip && same(opacity, constant(1)) && same(shift, AT_HOME);

/** Drawings a layer shows, loaded or not. */
const drawingIds = ({ layer }: TimedLayer): Id[] => Object.values(layer.slots);

/** Why two layers cannot become one with the same picture and all marks, said to the user, or null. */
export function whyNotJoined(doc: ShotDocument, upper: TimedLayer, lower: TimedLayer): string | null {
  const trouble = peculiar(upper) ?? peculiar(lower);
  if (trouble) return trouble;
  if (upper.layer.visible !== lower.layer.visible) {
    const [hidden, seen] = upper.layer.visible ? [lower, upper] : [upper, lower];
    return `${hidden.layer.name} is hidden and ${seen.layer.name} is not; on one layer both would be seen. Show it, or leave it out.`;
  }
  if (upper.layer.forWork !== lower.layer.forWork) {
    const { layer } = upper.layer.forWork ? upper : lower;
    return `${layer.name} is for work only; joined, it would be taken away with the rest. Make both the same first.`;
  }
  if (upper.folder?.id !== lower.folder?.id) return 'The two lie in different folders. Put them in one first.';
  for (const id of drawingIds(upper)) {
    const drawing = find(doc, 'drawing', id);
    if (!drawing) return 'A drawing is not loaded yet. Try again in a moment.';
    if (Object.values(drawing.marks).some((mark) => mark.kind === 'rub'))
      return `${upper.layer.name} has rubbed-out places; on one layer they would cut what is below. Join keeps marks only.`;
    if (Object.values(drawing.marks).some((mark) => mark.kind !== 'rub' && mark.lays))
      return `${upper.layer.name} has marks drawn behind or inside others; on one layer they would lie elsewhere.`;
  }
  return drawingIds(lower).every((id) => find(doc, 'drawing', id))
    ? null
    : 'A drawing is not loaded yet. Try again in a moment.';
}

/** A drawing's marks in order, with ids of their own, in the layer's tint if it has one. */
function marksOf(drawing: Drawing | undefined, { tint }: Layer, newId: NewId): Mark[] {
  return (drawing?.order ?? []).map((id) => {
    const mark = { ...drawing!.marks[id]!, id: newId() };
    return tint && mark.kind !== 'rub' ? { ...mark, swatch: tint } : mark;
  });
}

/** Which of two joined layers are left there, hidden. */
export interface Keeps {
  readonly upper: boolean;
  readonly lower: boolean;
}

/**
 * A layer that shows on each frame what two showed, in place of them. The edit says which id it got.
 * @throws if they cannot be joined, see `whyNotJoined`.
 */
export function joinLayers(
  doc: ShotDocument,
  upperId: Id,
  lowerId: Id,
  keeps: Keeps,
  newId: NewId,
): { doc: ShotDocument; layerId: Id } {
  const element = find(doc, 'element', find(doc, 'layer', lowerId)?.elementId);
  const all = element ? timedLayers(doc, element) : [];
  const [upper, lower] = [upperId, lowerId].map((id) => all.find(({ layer }) => layer.id === id));
  const trouble = upper && lower ? whyNotJoined(doc, upper, lower) : 'The layers are not in this shot.';
  if (!element || !upper || !lower || trouble) throw new Error(trouble ?? '');
  const turn = elementLength(doc, element);
  const slots: Record<Id, Id> = {};
  const made = new Map<string, { slot: Id; drawing: Drawing }>();
  const runs: Run[] = [];
  let last = '';
  for (let frame = 0; frame < turn; frame++) {
    const [over, under] = [upper, lower].map((timed) => shownOn(timed, frame, turn)?.drawingId);
    const key = `${under ?? ''}|${over ?? ''}`;
    if (key === last && runs.length > 0) {
      runs.push({ ...runs.pop()!, length: frame - runs.reduce((sum, run) => sum + run.length, 0) + 1 });
      continue;
    }
    last = key;
    if (!over && !under) {
      runs.push({ id: newId(), slot: null, length: 1 });
      continue;
    }
    let joined = made.get(key);
    if (!joined) {
      const marks = [
        ...marksOf(find(doc, 'drawing', under), lower.layer, newId),
        ...marksOf(find(doc, 'drawing', over), upper.layer, newId),
      ];
      const drawing: Drawing = {
        kind: 'drawing',
        id: newId(),
        marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
        order: marks.map(({ id }) => id),
      };
      joined = { slot: newId(), drawing };
      made.set(key, joined);
      slots[joined.slot] = drawing.id;
    }
    runs.push({ id: newId(), slot: joined.slot, length: 1 });
  }
  const { layer, list } = newLayer(element.id, lower.layer.name, lower.layer.role, newId);
  const into = listOf(doc, lowerId)!;
  const at = into.layers.indexOf(lowerId);
  const still = upper.list.period === 1 && lower.list.period === 1;
  const put = putEntities(
    doc,
    { ...layer, slots, tag: lower.layer.tag, visible: lower.layer.visible, forWork: lower.layer.forWork },
    { ...list, runs: still ? runs.map((run) => ({ ...run, length: 1 })).slice(0, 1) : runs, period: still ? 1 : null },
    { ...into, layers: into.layers.toSpliced(at, 0, layer.id) },
    ...[...made.values()].map(({ drawing }) => drawing),
  );
  let next = put;
  for (const [each, stays] of [
    [upper.layer, keeps.upper],
    [lower.layer, keeps.lower],
  ] as const)
    next = stays ? putEntities(next, { ...each, visible: false }) : deleteLayer(next, each.id);
  return { doc: next, layerId: layer.id };
}

/**
 * Joins the layers of an element that are seen, from the top down, as far as that changes nothing of the picture.
 * @param keeps leaves the layers that were joined there, hidden.
 * @returns how many became one, and why no more did.
 */
export function joinSeen(
  doc: ShotDocument,
  elementId: Id,
  keeps: boolean,
  newId: NewId,
): { doc: ShotDocument; layerId: Id | null; joined: number; trouble: string | null } {
  const seen = (now: ShotDocument) => {
    const element = find(now, 'element', elementId);
    return element ? timedLayers(now, element).filter(isVisible) : [];
  };
  let [next, joined, layerId]: [ShotDocument, number, Id | null] = [doc, 0, null];
  for (;;) {
    const [upper, lower] = seen(next);
    if (!upper || !lower) return { doc: next, layerId, joined, trouble: null };
    const trouble = whyNotJoined(next, upper, lower);
    if (trouble) return { doc: next, layerId, joined, trouble };
    // What has been joined already is no layer of the user's to keep.
    const made = joinLayers(
      next,
      upper.layer.id,
      lower.layer.id,
      { upper: keeps && upper.layer.id !== layerId, lower: keeps },
      newId,
    );
    next = made.doc;
    joined += joined === 0 ? 2 : 1;
    ({ layerId } = made);
  }
}

/**
 * Moves what a layer shows on one frame onto the layer below, where both hold it for the same frames.
 * @returns the document, or why it cannot be done.
 */
export function joinDrawing(
  doc: ShotDocument,
  upperId: Id,
  lowerId: Id,
  frame: number,
  newId: NewId,
): ShotDocument | string {
  const element = find(doc, 'element', find(doc, 'layer', lowerId)?.elementId);
  const all = element ? timedLayers(doc, element) : [];
  const [upper, lower] = [upperId, lowerId].map((id) => all.find(({ layer }) => layer.id === id));
  if (!element || !upper || !lower) return 'The layers are not in this shot.';
  const trouble = whyNotJoined(doc, upper, lower);
  if (trouble) return trouble;
  const turn = elementLength(doc, element);
  const framesOf = (timed: TimedLayer) => {
    const id = shownOn(timed, frame, turn)?.drawingId;
    return { id, frames: Array.from({ length: turn }, (_, f) => shownOn(timed, f, turn)?.drawingId === id).join() };
  };
  const [over, under] = [framesOf(upper), framesOf(lower)];
  const [drawing, below] = [find(doc, 'drawing', over.id), find(doc, 'drawing', under.id)];
  if (!drawing || !below) return 'Both layers need a drawing on this frame.';
  if (over.frames !== under.frames)
    return 'The two drawings are not held for the same frames. Hold them alike, or join the whole layers.';
  const marks = marksOf(drawing, upper.layer, newId);
  return putEntities(
    doc,
    { ...drawing, marks: {}, order: [] },
    {
      ...below,
      marks: { ...below.marks, ...Object.fromEntries(marks.map((mark) => [mark.id, mark])) },
      order: [...below.order, ...marks.map(({ id }) => id)],
    },
  );
}
