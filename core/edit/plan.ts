/** Edits of what is planned: paths, guides, anchor, bases, phases and mood. */
import { drawingOf } from '../starters/index.ts';
import {
  constant,
  find,
  newGuide,
  newLayer,
  newPath,
  putEntities,
  shotOf,
  type Element,
  type Guide,
  type GuideForm,
  type Id,
  type LayerRole,
  type Mark,
  type NewId,
  type Path,
  type Run,
  type ShotDocument,
} from '../document/index.ts';
import { deleteEntities } from './remove.ts';
import {
  cutWay,
  joinWays,
  partOfStroke,
  reachOn,
  revealCount,
  stampRing,
  stampsOf,
  type Revealing,
} from '../plan/index.ts';

/** Adds a path to an element. The edit says which id it got. */
export function addPath(
  doc: ShotDocument,
  elementId: Id,
  way: Pick<Path, 'nodes' | 'closed'>,
  from: number,
  newId: NewId,
): { doc: ShotDocument; pathId: Id } {
  const element = find(doc, 'element', elementId);
  if (!element) throw new Error(`Element ${elementId} is not in this shot`);
  const name = `Path ${element.paths.length + 1}`;
  const path = { ...newPath(elementId, name, way.nodes, way.closed, newId), from };
  return { doc: putEntities(doc, path, { ...element, paths: [...element.paths, path.id] }), pathId: path.id };
}

/** What of a path can be set directly. */
export type PathSettings = Partial<Omit<Path, 'kind' | 'id' | 'elementId'>>;

export function setPath(doc: ShotDocument, pathId: Id, settings: PathSettings): ShotDocument {
  const path = find(doc, 'path', pathId);
  return path ? putEntities(doc, { ...path, ...settings }) : doc;
}

/** Deletes a path. What was stamped along it stays. */
export const deletePath = (doc: ShotDocument, pathId: Id): ShotDocument =>
  find(doc, 'path', pathId) ? deleteEntities(doc, [pathId]) : doc;

/** Joins another open path of the element to the end that is nearest; the other is gone. */
export function joinPaths(doc: ShotDocument, pathId: Id, otherId: Id): ShotDocument {
  const [path, other] = [find(doc, 'path', pathId), find(doc, 'path', otherId)];
  if (!path || !other || path.closed || other.closed) return doc;
  return setPath(deletePath(doc, otherId), pathId, { nodes: joinWays(path.nodes, other.nodes) });
}

/** Takes a path apart at one of its nodes: a closed one is opened there, an open one becomes two. */
export function cutPath(doc: ShotDocument, pathId: Id, node: number, newId: NewId): ShotDocument {
  const path = find(doc, 'path', pathId);
  if (!path) return doc;
  const [first, second] = cutWay(path, node);
  if (!first || (!second && !path.closed)) return doc;
  const cut = setPath(doc, pathId, { nodes: first, closed: false });
  if (!second) return cut;
  const added = addPath(cut, path.elementId, { nodes: second, closed: false }, path.from, newId);
  const made = find(added.doc, 'path', added.pathId)!;
  return putEntities(added.doc, { ...path, id: made.id, name: made.name, nodes: second, closed: false, placed: {} });
}

/** Adds a guide to an element, or to the whole shot for null. The edit says which id it got. */
export function addGuide(
  doc: ShotDocument,
  elementId: Id | null,
  form: GuideForm,
  at: Pick<Guide, 'x' | 'y' | 'toX' | 'toY'>,
  newId: NewId,
): { doc: ShotDocument; guideId: Id } {
  const shot = shotOf(doc);
  const words: Record<GuideForm, string> = { level: 'Floor', plumb: 'Wall', line: 'Line', grid: 'Grid' };
  const guide = newGuide(elementId, form, words[form], at, newId);
  return { doc: putEntities(doc, guide, { ...shot, guides: [...shot.guides, guide.id] }), guideId: guide.id };
}

export type GuideSettings = Partial<Omit<Guide, 'kind' | 'id'>>;

export function setGuide(doc: ShotDocument, guideId: Id, settings: GuideSettings): ShotDocument {
  const guide = find(doc, 'guide', guideId);
  return guide ? putEntities(doc, { ...guide, ...settings }) : doc;
}

export const deleteGuide = (doc: ShotDocument, guideId: Id): ShotDocument =>
  find(doc, 'guide', guideId) ? deleteEntities(doc, [guideId]) : doc;

/** Sets an element's anchor, bases, phases or mood. */
export function setPlan(
  doc: ShotDocument,
  elementId: Id,
  plan: Partial<Pick<Element, 'anchor' | 'bases' | 'phases' | 'mood'>>,
): ShotDocument {
  const element = find(doc, 'element', elementId);
  return element ? putEntities(doc, { ...element, ...plan }) : doc;
}

interface NewLayer {
  readonly name: string;
  readonly role: LayerRole;
  /** Element frame of its first drawing. */
  readonly from: number;
  readonly parts: readonly { readonly marks: readonly Mark[]; readonly hold: number }[];
}

/** Lays drawings on a new layer on top of an element. */
function onNewLayer(
  doc: ShotDocument,
  element: Element,
  { name, role, from, parts }: NewLayer,
  newId: NewId,
): { doc: ShotDocument; layerId: Id } {
  const { layer, list } = newLayer(element.id, name, role, newId);
  const lead: Run[] = from > 0 ? [{ id: newId(), slot: null, length: from }] : [];
  const drawings = parts.map(({ marks }) => drawingOf(newId(), marks));
  const runs = parts.map(({ hold }): Run => ({ id: newId(), slot: newId(), length: hold }));
  const slots = Object.fromEntries(runs.map((run, i) => [run.slot!, drawings[i]!.id]));
  return {
    doc: putEntities(
      doc,
      ...drawings,
      { ...list, runs: [...lead, ...runs] },
      // What is stamped to be drawn over is for work.
      { ...layer, slots, forWork: role === 'rough' },
      { ...element, layers: [layer.id, ...element.layers] },
    ),
    layerId: layer.id,
  };
}

/**
 * Stamps a path's stand-in onto a new layer on top: one drawing per tick, from the path's first frame,
 * held as the path holds. The edit says which layer it made.
 * @param every frames each drawing is held; drawings between are left out.
 */
export function stampPath(
  doc: ShotDocument,
  pathId: Id,
  swatch: Id,
  every: number,
  newId: NewId,
  role: LayerRole = 'rough',
): { doc: ShotDocument; layerId: Id } {
  const path = find(doc, 'path', pathId);
  const element = find(doc, 'element', path?.elementId);
  if (!path || !element) throw new Error(`Path ${pathId} is not in this shot`);
  const step = Math.max(1, Math.round(every / path.hold));
  const chosen = stampsOf(path).filter((_, i) => i % step === 0);
  const end = path.from + path.ticks * path.hold;
  const parts = chosen.map((stamp) => {
    const rings = [stampRing(path.standIn, stamp)];
    const mark: Mark = { kind: 'shape', id: newId(), swatch, rings, rule: 'nonzero', opacity: stamp.opacity };
    return { marks: [mark], hold: Math.min(step * path.hold, end - stamp.frame) };
  });
  return onNewLayer(doc, element, { name: path.name, role, from: path.from, parts }, newId);
}

/**
 * Reveals the strokes of a drawing along their length and takes them away again, as drawings on a new layer on top.
 * What is no stroke is left out. Needs the drawing loaded. The edit says which layer it made.
 * @param from element frame of the first drawing. @param hold frames each is held.
 * @throws if the drawing is not loaded or has no stroke.
 */
export function revealDrawing(
  doc: ShotDocument,
  elementId: Id,
  drawingId: Id,
  revealing: Revealing,
  from: number,
  hold: number,
  newId: NewId,
): { doc: ShotDocument; layerId: Id } {
  const element = find(doc, 'element', elementId);
  const drawing = find(doc, 'drawing', drawingId);
  const strokes = (drawing?.order ?? []).flatMap((id) => {
    const mark = drawing!.marks[id]!;
    return mark.kind === 'stroke' ? [mark] : [];
  });
  if (!element || strokes.length === 0) throw new Error('There is no stroke here to reveal');
  const parts = Array.from({ length: revealCount(revealing) }, (_, i) => ({
    marks: strokes.flatMap((stroke): Mark[] => {
      const part = partOfStroke(stroke, reachOn(revealing, i));
      return part ? [{ ...part, id: newId() }] : [];
    }),
    hold,
  }));
  return onNewLayer(doc, element, { name: 'Revealed', role: 'line', from, parts }, newId);
}

/** Adds a faint layer on top for a rough sketch, shown throughout and never exported. The edit says which it is. */
export function addSketch(doc: ShotDocument, elementId: Id, newId: NewId): { doc: ShotDocument; layerId: Id } {
  const element = find(doc, 'element', elementId);
  if (!element) throw new Error(`Element ${elementId} is not in this shot`);
  const { layer, list } = newLayer(elementId, 'Rough sketch', 'guide', newId);
  return {
    doc: putEntities(
      doc,
      { ...list, period: 1 },
      { ...layer, opacity: constant(0.45) },
      { ...element, layers: [layer.id, ...element.layers] },
    ),
    layerId: layer.id,
  };
}
