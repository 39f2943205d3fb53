/** Edits of looks: the list on a layer, a folder, an element, a use or a plane, and their numbers over time. */
import {
  constant,
  find,
  keysIn,
  putEntities,
  shotOf,
  valueAt,
  withKey,
  withNumber,
  withoutKey,
  type Element,
  type AppliedLook,
  type LookKind,
  type Folder,
  type Id,
  type Layer,
  type NewId,
  type Placement,
  type Plane,
  type ShotDocument,
  type Value,
} from '../document/index.ts';
import { LOOKS } from '../looks/index.ts';
import { LAYER_VALUES, valueOf } from './values.ts';

const ownerOf = (doc: ShotDocument, ownerId: Id): Layer | Folder | Element | Placement | Plane | undefined =>
  find(doc, 'layer', ownerId) ??
  find(doc, 'folder', ownerId) ??
  find(doc, 'element', ownerId) ??
  find(doc, 'placement', ownerId) ??
  find(doc, 'plane', ownerId);

function withLooks(
  doc: ShotDocument,
  ownerId: Id,
  change: (all: readonly AppliedLook[]) => readonly AppliedLook[],
): ShotDocument {
  const owner = ownerOf(doc, ownerId);
  if (!owner) return doc;
  const finishes = change(owner.finishes);
  return finishes === owner.finishes ? doc : putEntities(doc, { ...owner, finishes });
}

/** A look with its usual settings; where it has a colour of its own, the palette's first that suits. */
export function newLook(doc: ShotDocument, kind: LookKind, newId: NewId, seed = 1): AppliedLook {
  const { fields, choices, colour, role: from } = LOOKS[kind];
  const swatches = shotOf(doc).swatches.flatMap((id) => find(doc, 'swatch', id) ?? []);
  const own = swatches.find(({ role }) => role === from) ?? swatches[0];
  return {
    id: newId(),
    kind,
    on: true,
    numbers: Object.fromEntries(fields.map(({ key, default: preset }) => [key, constant(preset)])),
    choices: Object.fromEntries(choices.map(({ key, options }) => [key, options[0]!])),
    swatch: colour === 'own' ? (own?.id ?? null) : null,
    seed,
  };
}

/** Adds a look at the end of the list of a layer, a folder or an element. */
export const addLook = (doc: ShotDocument, ownerId: Id, look: AppliedLook): ShotDocument =>
  withLooks(doc, ownerId, (all) => [...all, look]);

const changed = (lookId: Id, change: (look: AppliedLook) => AppliedLook) => (all: readonly AppliedLook[]) =>
  all.map((each) => (each.id === lookId ? change(each) : each));

/** Switches a look, or sets its choices, colour or seed. */
export const setLook = (
  doc: ShotDocument,
  ownerId: Id,
  lookId: Id,
  settings: Partial<Pick<AppliedLook, 'on' | 'choices' | 'swatch' | 'seed'>>,
): ShotDocument =>
  withLooks(
    doc,
    ownerId,
    changed(lookId, (look) => ({ ...look, ...settings })),
  );

function withLookValue(
  doc: ShotDocument,
  ownerId: Id,
  lookId: Id,
  key: string,
  change: (value: Value) => Value,
): ShotDocument {
  return withLooks(
    doc,
    ownerId,
    changed(lookId, (look) => {
      const value = look.numbers[key];
      return value ? { ...look, numbers: { ...look.numbers, [key]: change(value) } } : look;
    }),
  );
}

/** Sets a number on a frame: throughout, or at that frame where it changes over time. Kept within its range. */
export function setLookNumber(
  doc: ShotDocument,
  ownerId: Id,
  lookId: Id,
  key: string,
  frame: number,
  number: number,
): ShotDocument {
  const kind = ownerOf(doc, ownerId)?.finishes.find(({ id }) => id === lookId)?.kind;
  const field = kind && LOOKS[kind].fields.find((each) => each.key === key);
  if (!field) return doc;
  const kept = Math.min(field.max, Math.max(field.min, number));
  return withLookValue(doc, ownerId, lookId, key, (value) => withNumber(value, frame, kept));
}

/** Sets a key at a frame with the number the value has there, or takes the one there away. */
export const keyLookNumber = (
  doc: ShotDocument,
  ownerId: Id,
  lookId: Id,
  key: string,
  frame: number,
  round: number | null,
): ShotDocument =>
  withLookValue(doc, ownerId, lookId, key, (value) =>
    keysIn(value).some((each) => each.frame === frame)
      ? withoutKey(value, frame)
      : withKey(value, frame, valueAt(value, frame, round)),
  );

/** Moves a look in its list. @param by places, negative for earlier. */
export const moveLook = (doc: ShotDocument, ownerId: Id, lookId: Id, by: number): ShotDocument =>
  withLooks(doc, ownerId, (all) => {
    const at = all.findIndex(({ id }) => id === lookId);
    const to = at + by;
    if (at < 0 || to < 0 || to >= all.length) return all;
    return all.toSpliced(at, 1).toSpliced(to, 0, all[at]!);
  });

export const dropLook = (doc: ShotDocument, ownerId: Id, lookId: Id): ShotDocument =>
  withLooks(doc, ownerId, (all) => all.filter(({ id }) => id !== lookId));

/** Copies looks to the end of another list. */
export const copyLooks = (doc: ShotDocument, finishes: readonly AppliedLook[], toId: Id, newId: NewId): ShotDocument =>
  withLooks(doc, toId, (all) => [...all, ...finishes.map((look) => ({ ...look, id: newId() }))]);

/** Frames on which anything of a layer is set over time: its opacity, its place or its looks, those of its folder, and looks and light of its element. */
export function keyedFrames(layer: Layer, folder?: Folder, element?: Element): ReadonlySet<number> {
  const values = [
    ...[layer, ...(folder ? [folder] : [])].flatMap((owner) => LAYER_VALUES.map((which) => valueOf(owner, which))),
    ...[...layer.finishes, ...(folder?.finishes ?? []), ...(element?.finishes ?? [])].flatMap(({ numbers }) =>
      Object.values(numbers),
    ),
    ...(element ? [element.light] : []),
  ];
  return new Set(values.flatMap((value) => keysIn(value).map(({ frame }) => frame)));
}
