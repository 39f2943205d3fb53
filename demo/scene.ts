/** What the demo's shots are put together with: the same edits a user makes. */
import {
  CAMERA_AT_REST,
  newElement,
  newLayer,
  newPlane,
  putEntities,
  documentOf,
  find,
  type Effect,
  type LookKind,
  type Id,
  type Mark,
  type NewId,
  type Shot,
  type ShotDocument,
  type Starter,
  type Swatch,
  type SwatchRole,
  entitiesOf,
} from '@tallow/core/document';
import { addLook, layStarter, newLook, setLook, setLookNumber } from '@tallow/core/edit';
import { settingsOf } from '@tallow/core/controls';
import { drawingOf, layAll, newStarter, sceneOf, starterOf } from '@tallow/core/starters';

/** Swatches by a short key. @param palette name, role and colour of each. */
export function swatchesFor(
  palette: Readonly<Record<string, readonly [string, SwatchRole, string]>>,
  newId: NewId,
): { swatches: Swatch[]; swatch: (key: string) => Id } {
  const made = new Map(
    Object.entries(palette).map(([key, [name, role, colour]]): [string, Swatch] => [
      key,
      { kind: 'swatch', id: newId(), name, role, colour, gradient: null },
    ]),
  );
  return { swatches: [...made.values()], swatch: (key) => made.get(key)!.id };
}

/** A shot of 1920 x 1080 at 24 frames a second with one empty plane. */
export function newShot(
  id: Id,
  { name, length, background }: Pick<Shot, 'name' | 'length' | 'background'>,
  swatches: readonly Swatch[],
  newId: NewId,
): ShotDocument {
  const plane = newPlane('Picture plane', 0, newId);
  const shot: Shot = {
    kind: 'shot',
    id,
    name,
    width: 1920,
    height: 1080,
    rate: 24,
    length,
    background,
    planes: [plane.id],
    elements: [],
    swatches: swatches.map((s) => s.id),
    guides: [],
    plates: [],
    lights: [],
    sounds: [],
    camera: CAMERA_AT_REST,
    focal: null,
    air: null,
  };
  return documentOf(id, [shot, plane, ...swatches]);
}

/** Adds an element without layers in front of the others, its origin at a place of the shot. */
export function addElementTo(
  doc: ShotDocument,
  name: string,
  at: { x: number; y: number },
  newId: NewId,
  start = 0,
): { doc: ShotDocument; elementId: Id } {
  const { element, placement } = newElement(name, { ...at, start }, newId);
  const shot = find(doc, 'shot', doc.shotId)!;
  const plane = find(doc, 'plane', shot.planes[0])!;
  return {
    doc: putEntities(
      doc,
      { ...element, layers: [] },
      placement,
      { ...plane, placements: [placement.id, ...plane.placements] },
      { ...shot, elements: [element.id, ...shot.elements] },
    ),
    elementId: element.id,
  };
}

/** An element that shows one drawing throughout the shot, behind all others or in front of them. */
export function stillElement(
  doc: ShotDocument,
  name: string,
  marks: readonly Mark[],
  where: 'behind' | 'in front',
  newId: NewId,
): ShotDocument {
  const added = addElementTo(doc, name, { x: 0, y: 0 }, newId);
  const still = stillLayer(added.doc, added.elementId, name, marks, { x: 0, y: 0 }, newId);
  const element = find(still, 'element', added.elementId)!;
  const plane = entitiesOf(still, 'plane')[0]!;
  const shot = find(still, 'shot', doc.shotId)!;
  const [first, ...rest] = plane.placements;
  const behind = where === 'behind';
  return putEntities(
    still,
    { ...element, time: 'cycle' },
    { ...plane, placements: behind ? [...rest, first!] : plane.placements },
    { ...shot, elements: [...shot.elements.slice(1), element.id] },
  );
}

/** A locked layer at the bottom that shows one drawing throughout. @param by what its marks are moved by, px. */
export function stillLayer(
  doc: ShotDocument,
  elementId: Id,
  name: string,
  marks: readonly Mark[],
  by: { x: number; y: number },
  newId: NewId,
): ShotDocument {
  const { layer, list } = newLayer(elementId, name, 'texture', newId);
  const moved = marks.map((mark) =>
    mark.kind === 'shape'
      ? { ...mark, rings: mark.rings.map((ring) => ring.map((v, i) => v + (i % 2 === 0 ? by.x : by.y))) }
      : mark,
  );
  const drawing = drawingOf(newId(), moved);
  const slot = newId();
  const element = find(doc, 'element', elementId)!;
  return putEntities(
    doc,
    drawing,
    { ...list, period: 1, runs: [{ id: newId(), slot, length: 1 }] },
    { ...layer, locked: true, slots: { [slot]: drawing.id } },
    { ...element, layers: [...element.layers, layer.id] },
  );
}

/** Lays a starter as a user would. */
export function lay(
  doc: ShotDocument,
  elementId: Id,
  effect: Effect,
  given: Partial<Pick<Starter, 'seed' | 'settings' | 'x' | 'y' | 'from' | 'length' | 'hold' | 'pathId'>>,
  newId: NewId,
): ShotDocument {
  const kind = starterOf(effect);
  const element = find(doc, 'element', elementId)!;
  const { settings = {}, ...rest } = given;
  const starter: Starter = {
    ...newStarter(element, effect, kind.presets[0]!, 1, newId),
    ...rest,
    settings: settingsOf(kind, settings),
  };
  return layStarter(doc, starter, layAll(kind, sceneOf(doc, starter))!, newId);
}

/** A look of a layer: numbers by their keys, choices, and a colour of its own. */
export interface Look {
  readonly kind: LookKind;
  readonly numbers?: Readonly<Record<string, number>>;
  readonly choices?: Readonly<Record<string, string>>;
  readonly swatch?: Id;
}

/** Gives layers, by their names, the looks they have in the finished picture. @throws if a layer is not there. */
export function finishedWith(
  doc: ShotDocument,
  looks: Readonly<Record<string, readonly Look[]>>,
  newId: NewId,
): ShotDocument {
  let next = doc;
  for (const [name, list] of Object.entries(looks)) {
    const layer = entitiesOf(doc, 'layer').find((e) => e.name === name);
    if (!layer) throw new Error(`There is no layer “${name}” in this shot`);
    for (const { kind, numbers = {}, choices = {}, swatch } of list) {
      const look = newLook(next, kind, newId, 7);
      next = addLook(next, layer.id, look);
      next = setLook(next, layer.id, look.id, {
        choices: { ...look.choices, ...choices },
        swatch: swatch ?? look.swatch,
      });
      for (const [key, number] of Object.entries(numbers))
        next = setLookNumber(next, layer.id, look.id, key, 0, number);
    }
  }
  return next;
}
