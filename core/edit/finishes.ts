/** Edits of looks: the list of finishes of a layer, a folder, an element, a use or a plane, and their numbers over time. */
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
  type Finish,
  type FinishKind,
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

function withFinishes(
  doc: ShotDocument,
  ownerId: Id,
  change: (all: readonly Finish[]) => readonly Finish[],
): ShotDocument {
  const owner = ownerOf(doc, ownerId);
  if (!owner) return doc;
  const finishes = change(owner.finishes);
  return finishes === owner.finishes ? doc : putEntities(doc, { ...owner, finishes });
}

/** A finish with its usual settings; where it has a colour of its own, the palette's first that suits. */
export function newFinish(doc: ShotDocument, kind: FinishKind, newId: NewId, seed = 1): Finish {
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

/** Adds a finish at the end of the list of a layer, a folder or an element. */
export const addFinish = (doc: ShotDocument, ownerId: Id, finish: Finish): ShotDocument =>
  withFinishes(doc, ownerId, (all) => [...all, finish]);

const changed = (finishId: Id, change: (finish: Finish) => Finish) => (all: readonly Finish[]) =>
  all.map((each) => (each.id === finishId ? change(each) : each));

/** Switches a finish, or sets its choices, colour or seed. */
export const setFinish = (
  doc: ShotDocument,
  ownerId: Id,
  finishId: Id,
  settings: Partial<Pick<Finish, 'on' | 'choices' | 'swatch' | 'seed'>>,
): ShotDocument =>
  withFinishes(
    doc,
    ownerId,
    changed(finishId, (finish) => ({ ...finish, ...settings })),
  );

function withFinishValue(
  doc: ShotDocument,
  ownerId: Id,
  finishId: Id,
  key: string,
  change: (value: Value) => Value,
): ShotDocument {
  return withFinishes(
    doc,
    ownerId,
    changed(finishId, (finish) => {
      const value = finish.numbers[key];
      return value ? { ...finish, numbers: { ...finish.numbers, [key]: change(value) } } : finish;
    }),
  );
}

/** Sets a number on a frame: throughout, or at that frame where it changes over time. Kept within its range. */
export function setFinishNumber(
  doc: ShotDocument,
  ownerId: Id,
  finishId: Id,
  key: string,
  frame: number,
  number: number,
): ShotDocument {
  const kind = ownerOf(doc, ownerId)?.finishes.find(({ id }) => id === finishId)?.kind;
  const field = kind && LOOKS[kind].fields.find((each) => each.key === key);
  if (!field) return doc;
  const kept = Math.min(field.max, Math.max(field.min, number));
  return withFinishValue(doc, ownerId, finishId, key, (value) => withNumber(value, frame, kept));
}

/** Sets a key at a frame with the number the value has there, or takes the one there away. */
export const keyFinishNumber = (
  doc: ShotDocument,
  ownerId: Id,
  finishId: Id,
  key: string,
  frame: number,
  round: number | null,
): ShotDocument =>
  withFinishValue(doc, ownerId, finishId, key, (value) =>
    keysIn(value).some((each) => each.frame === frame)
      ? withoutKey(value, frame)
      : withKey(value, frame, valueAt(value, frame, round)),
  );

/** Moves a finish in its list. @param by places, negative for earlier. */
export const moveFinish = (doc: ShotDocument, ownerId: Id, finishId: Id, by: number): ShotDocument =>
  withFinishes(doc, ownerId, (all) => {
    const at = all.findIndex(({ id }) => id === finishId);
    const to = at + by;
    if (at < 0 || to < 0 || to >= all.length) return all;
    return all.toSpliced(at, 1).toSpliced(to, 0, all[at]!);
  });

export const dropFinish = (doc: ShotDocument, ownerId: Id, finishId: Id): ShotDocument =>
  withFinishes(doc, ownerId, (all) => all.filter(({ id }) => id !== finishId));

/** Copies finishes to the end of another list. */
export const copyFinishes = (doc: ShotDocument, finishes: readonly Finish[], toId: Id, newId: NewId): ShotDocument =>
  withFinishes(doc, toId, (all) => [...all, ...finishes.map((finish) => ({ ...finish, id: newId() }))]);

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
