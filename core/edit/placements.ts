/** Edits of placements: elements used on planes and inside one another, parted, split, moved, put elsewhere. */
import {
  find,
  findAll,
  newPlacement,
  putEntities,
  shotOf,
  valueAt,
  withValues,
  type Element,
  type Id,
  type NewId,
  type Placement,
  type ShotDocument,
  type Value,
} from '../document/index.ts';
import { planeOf } from '../assembly/index.ts';
import { elementLength, momentOn, placedInside, seenFrames, timedLayers, placementsOf } from '../timing/index.ts';
import { copyParts } from './copy-parts.ts';
import { deleteEntities } from './remove.ts';

/** What of a placement can be set. */
export type PlacementSettings = Partial<Omit<Placement, 'kind' | 'id' | 'elementId' | 'holderId'>>;

/** Sets some placements alike. */
export const setPlacements = (doc: ShotDocument, ids: readonly Id[], settings: PlacementSettings): ShotDocument =>
  putEntities(doc, ...findAll(doc, 'placement', ids).map((placement) => ({ ...placement, ...settings })));

/** Whether an element lies in another one, however deep. */
function liesIn(doc: ShotDocument, inner: Id, outer: Element, seen: ReadonlySet<Id> = new Set()): boolean {
  if (outer.id === inner) return true;
  if (seen.has(outer.id)) return false;
  const deeper = new Set(seen).add(outer.id);
  return placedInside(doc, outer).some(({ element }) => liesIn(doc, inner, element, deeper));
}

/** Why an element cannot be used inside another, or null: it would lie in itself. */
export function whyNotInside(doc: ShotDocument, elementId: Id, holderId: Id): string | null {
  const [element, holder] = [find(doc, 'element', elementId), find(doc, 'element', holderId)];
  if (!element || !holder) return 'It is gone.';
  if (elementId === holderId) return `“${element.name}” would lie in itself.`;
  return liesIn(doc, holderId, element) ? `“${holder.name}” lies in “${element.name}” already.` : null;
}

/** Where a placement goes: onto a plane, or into an element. */
export type Into = { readonly planeId: Id } | { readonly holderId: Id };

/** A list with a thing right over another one of it, or on top. */
const over = (list: readonly Id[], id: Id, overId: Id | null): Id[] => {
  const at = overId === null ? -1 : list.indexOf(overId);
  return at < 0 ? [id, ...list] : list.toSpliced(at, 0, id);
};

function listed(doc: ShotDocument, placement: Placement, into: Into, overId: Id | null): ShotDocument {
  if ('planeId' in into) {
    const plane = find(doc, 'plane', into.planeId);
    if (!plane) return doc;
    const placements = over(plane.placements, placement.id, overId);
    return putEntities(doc, { ...placement, holderId: null }, { ...plane, placements });
  }
  const holder = find(doc, 'element', into.holderId);
  if (!holder || whyNotInside(doc, placement.elementId, holder.id)) return doc;
  const layers = over(holder.layers, placement.id, overId);
  return putEntities(doc, { ...placement, holderId: holder.id }, { ...holder, layers });
}

/** Takes a placement out of the list it stands in; it is to be put into another one. */
function unlisted(doc: ShotDocument, { id, holderId }: Placement): ShotDocument {
  const without = (list: readonly Id[]) => list.filter((each) => each !== id);
  const [plane, holder] = [planeOf(doc, id), find(doc, 'element', holderId)];
  const planes = plane ? [{ ...plane, placements: without(plane.placements) }] : [];
  const holders = holder ? [{ ...holder, layers: without(holder.layers) }] : [];
  return putEntities(doc, ...planes, ...holders);
}

/** Uses an element once more, on top of a plane or of what lies in an element. The edit says which id it got; none where it would lie in itself. */
export function placeElement(
  doc: ShotDocument,
  elementId: Id,
  into: Into,
  at: Pick<Placement, 'start' | 'x' | 'y'>,
  newId: NewId,
): { doc: ShotDocument; placementId: Id | null } {
  const placement = newPlacement(elementId, at, newId);
  const next = find(doc, 'element', elementId) ? listed(doc, placement, into, null) : doc;
  return { doc: next, placementId: next === doc ? null : placement.id };
}

/** One more of a placement right over it, with some of it set. */
export function copyPlacement(
  doc: ShotDocument,
  placementId: Id,
  settings: PlacementSettings,
  newId: NewId,
): { doc: ShotDocument; placementId: Id | null } {
  const placement = find(doc, 'placement', placementId);
  if (!placement) return { doc, placementId: null };
  const plane = planeOf(doc, placementId);
  const into = plane ? { planeId: plane.id } : placement.holderId ? { holderId: placement.holderId } : null;
  if (!into) return { doc, placementId: null };
  const copy = { ...placement, ...settings, id: newId(), scatterId: settings.scatterId ?? null };
  return { doc: listed(doc, copy, into, placementId), placementId: copy.id };
}

/** Moves a placement to another plane or into an element, right over a thing of it or on top. */
export function movePlacement(doc: ShotDocument, placementId: Id, into: Into, overId: Id | null = null): ShotDocument {
  const placement = find(doc, 'placement', placementId);
  if (!placement || overId === placementId) return doc;
  const next = listed(unlisted(doc, placement), placement, into, overId);
  const isThere = planeOf(next, placementId) !== undefined || find(next, 'placement', placementId)?.holderId !== null;
  return isThere ? next : doc;
}

/** Takes uses away; their elements stay in the shot, to be used again. */
export const removePlacements = (doc: ShotDocument, ids: readonly Id[]): ShotDocument => deleteEntities(doc, ids);

/** Parts a placement in two at a frame of its holder: the second goes on where the first ends. Nothing that is seen changes. */
export function splitPlacement(
  doc: ShotDocument,
  placementId: Id,
  outer: number,
  newId: NewId,
): { doc: ShotDocument; placementId: Id | null } {
  const placement = find(doc, 'placement', placementId);
  const element = find(doc, 'element', placement?.elementId);
  if (!placement || !element) return { doc, placementId: null };
  const length = elementLength(doc, element);
  const seen = seenFrames(placement, element, length);
  const since = outer - placement.start;
  const moment = momentOn(placement, element, length, outer);
  if (since <= 0 || since >= seen || !moment) return { doc, placementId: null };
  const first = { ...placement, lasts: since, after: 'nothing' as const };
  const second = {
    start: outer,
    phase: moment.frame,
    repeats: null,
    lasts: seen === Infinity ? null : seen - since,
    before: 'nothing' as const,
    // What changes over time is counted from its start: its place, opacity and looks.
    ...valuesLater(placement, since),
    x: placement.x + placement.drift.x * moment.turn,
    y: placement.y + placement.drift.y * moment.turn,
  };
  const made = copyPlacement(putEntities(doc, first), placementId, second, newId);
  return made.placementId ? { ...made, doc: litAsBefore(made.doc, placementId, made.placementId, newId) } : made;
}

/** The second part of a use shines as the first did, and is lit by what lit that. */
function litAsBefore(doc: ShotDocument, firstId: Id, secondId: Id, newId: NewId): ShotDocument {
  const shot = shotOf(doc);
  const lights = findAll(doc, 'light', shot.lights);
  const lit = lights.flatMap((light) => {
    const chosen = light.fallsOn?.placements;
    return light.fallsOn && chosen?.includes(firstId)
      ? [{ ...light, fallsOn: { ...light.fallsOn, placements: [...chosen, secondId] } }]
      : [];
  });
  const next = lit.length > 0 ? putEntities(doc, ...lit) : doc;
  const own = findAll(next, 'light', shot.lights).filter(({ sourceId }) => sourceId === firstId);
  if (own.length === 0) return next;
  const copies = own.map((light) => ({ ...light, id: newId(), sourceId: secondId }));
  return putEntities(next, ...copies, { ...shot, lights: [...copies.map(({ id }) => id), ...shot.lights] });
}

/** All that changes over the time of a use, as it goes on from a frame since its start. */
const valuesLater = (placement: Placement, by: number): Pick<Placement, 'shift' | 'opacity' | 'finishes'> => {
  const { shift, opacity, finishes } = withValues(placement, (value) => later(value, by));
  return { shift, opacity, finishes };
};

/** A value as it goes on from a frame. */
function later(value: Value, by: number): Value {
  if ('constant' in value) return value;
  const keys = value.keys.map((key) => ({ ...key, frame: key.frame - by }));
  const kept = keys.filter(({ frame }) => frame >= 0);
  const before = keys.findLast(({ frame }) => frame < 0);
  const first = kept[0];
  if (!before) return { keys };
  if (!first) return { constant: before.value };
  if (first.frame === 0) return { keys: kept };
  return { keys: [{ frame: 0, value: valueAt(value, by, null), ease: before.ease }, ...kept] };
}

/** Begins a use later, or earlier as far as there is something before: what it shows on each frame stays. @param outer a frame of what it lies in. */
export function trimStart(doc: ShotDocument, placementId: Id, outer: number): ShotDocument {
  const placement = find(doc, 'placement', placementId);
  const element = find(doc, 'element', placement?.elementId);
  if (!placement || !element) return doc;
  const length = elementLength(doc, element);
  const { over, of } = placement.speed;
  const isCycle = element.time === 'cycle';
  // What does not loop has nothing before its first drawing.
  const earliest = isCycle ? -Infinity : placement.start - Math.floor((placement.phase * of) / over);
  const seen = seenFrames(placement, element, length);
  const to = Math.max(earliest, Math.min(placement.start + seen - 1, outer));
  const by = to - placement.start;
  if (by === 0) return doc;
  const at = placement.phase + Math.floor((by * over) / of);
  return putEntities(doc, {
    ...placement,
    start: to,
    phase: isCycle ? ((at % length) + length) % length : Math.max(0, at),
    lasts: seen === Infinity ? null : Math.max(1, seen - by),
    repeats: isCycle ? null : placement.repeats,
    ...valuesLater(placement, by),
  });
}

/** Ends a use earlier, or later as far as there is something left. @param outer one past its last frame. */
export function trimEnd(doc: ShotDocument, placementId: Id, outer: number): ShotDocument {
  const placement = find(doc, 'placement', placementId);
  const element = find(doc, 'element', placement?.elementId);
  if (!placement || !element) return doc;
  const whole = seenFrames({ ...placement, lasts: null }, element, elementLength(doc, element));
  const lasts = Math.max(1, outer - placement.start);
  return putEntities(doc, { ...placement, lasts: lasts >= whole ? null : lasts });
}

/** Gives a placement an element of its own: a copy, which can be drawn on without changing other uses. Needs its drawings loaded. */
export function makeUseOwn(doc: ShotDocument, placementId: Id, newId: NewId): ShotDocument {
  const placement = find(doc, 'placement', placementId);
  const element = find(doc, 'element', placement?.elementId);
  if (!placement || !element || placementsOf(doc, element.id).length < 2) return doc;
  const { doc: copied, copies } = copyParts(doc, [element.id], newId);
  const own = find(copied, 'element', copies.get(element.id))!;
  const made = placementsOf(copied, own.id).map(({ id }) => id);
  const [sources, ownLayers] = [element, own].map((each) => timedLayers(copied, each).map(({ layer }) => layer.id)) as [
    Id[],
    Id[],
  ];
  // Copies keep their order, in folders too.
  const layers = placement.layers && placement.layers.map((id) => ownLayers[sources.indexOf(id)] ?? id);
  return putEntities(deleteEntities(copied, made), { ...placement, elementId: own.id, layers });
}
