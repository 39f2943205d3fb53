/** Accidents found in the drawings of a layer: what was left empty, drawn twice or drawn out of sight. */
import { fingerprintOf } from '../derived/index.ts';
import { find, marksInOrder, type Drawing, type Id, type ShotDocument } from '../document/index.ts';

import { intersection, isEmpty, type Box } from '../geometry/index.ts';
import { drawingBox, markBox } from '../render/index.ts';
import { seenPart } from '../assembly/index.ts';
import { exposures, runStart, timedLayers, usedElements, type TimedLayer } from '../timing/index.ts';

type FindingKind = 'empty' | 'twice' | 'outside';

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

/** What is known of a drawing once it has been looked through: it never changes, so that is done once. */
export interface DrawingFacts {
  readonly empty: boolean;
  /** The same for drawings whose marks are alike. */
  readonly print: string;
  /** The box of each of its marks, element space; none of rub-outs. */
  readonly boxes: readonly Box[];
}

const facts = new WeakMap<Drawing, DrawingFacts>();

export function factsOf(drawing: Drawing): DrawingFacts {
  const known = facts.get(drawing);
  if (known) return known;
  const marks = marksInOrder(drawing);
  const made = {
    empty: marks.length === 0,
    print: `${fingerprintOf(drawing)}${marks.map((mark) => (mark.kind === 'shape' ? mark.kind : mark.brush.kind)).join('')}`,
    boxes: marks.flatMap((mark) => (mark.kind === 'rub' ? [] : [markBox(mark)])),
  };
  facts.set(drawing, made);
  return made;
}

/** How many marks of a drawing lie wholly outside a part of its space. */
function strayIn({ boxes }: DrawingFacts, seen: Box): number | 'all' {
  const outside = boxes.filter((box) => isEmpty(intersection(box, seen))).length;
  return outside === boxes.length ? 'all' : outside;
}

/**
 * Looks through one layer. Drawings nothing is known of yet are passed over.
 * @param turn the element's length in frames. @param wraps whether the last drawing leads to the first.
 * @param seen the part of element space that the shot's frame shows.
 * @param factsFor what is known of a drawing.
 * @param byTone whether tone lays it: where there is none, nothing is missing.
 */
export function findingsOf(
  { layer, list }: Pick<TimedLayer, 'layer' | 'list'>,
  turn: number,
  wraps: boolean,
  seen: Box,
  factsFor: (drawingId: Id) => DrawingFacts | undefined,
  byTone = false,
): Finding[] {
  // What a starter laid was not left empty or drawn out of sight by accident.
  if (list.period === 1 || layer.starterId) return [];
  const shown = exposures(list).flatMap(({ run, index }) => {
    const id = run.slot ? layer.slots[run.slot] : undefined;
    const known = id ? factsFor(id) : undefined;
    return id && known ? [{ id, known, index }] : [];
  });
  return shown.flatMap(({ id, known, index }, i): Finding[] => {
    const at = (kind: FindingKind, text: string): Finding => ({
      kind,
      layerId: layer.id,
      index,
      frame: runStart(list, index, turn),
      text: `Drawing ${i + 1} of ${layer.name} ${text}`,
    });
    if (known.empty) return byTone ? [] : [at('empty', 'is empty')];
    const next = shown[i + 1] ?? (wraps && shown.length > 1 ? shown[0] : undefined);
    const found: Finding[] = [];
    if (next && next.id !== id && next.known.print === known.print && !byTone)
      found.push(at('twice', `is the same as drawing ${((i + 1) % shown.length) + 1}`));
    const stray = strayIn(known, seen);
    if (stray === 'all') found.push(at('outside', 'lies wholly outside the frame'));
    else if (stray > 0)
      found.push(at('outside', `has ${stray === 1 ? 'a mark' : `${stray} marks`} wholly outside the frame`));
    return found;
  });
}

/** How many drawings reach beyond a shot's frame, and how many of those lie wholly outside it. */
export function beyondFrame(doc: ShotDocument): { reaching: number; outside: number } {
  const drawings = new Map<Id, Box>();
  for (const element of usedElements(doc)) {
    const seen = seenPart(doc, element);
    for (const { layer } of timedLayers(doc, element))
      for (const id of Object.values(layer.slots)) drawings.set(id, seen);
  }
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
