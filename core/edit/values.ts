/** Edits of what changes over time: opacity of a layer, a folder or a use of an element, and where it is put. */
import {
  find,
  putEntities,
  valueAt,
  withKey,
  withNumber,
  withoutKey,
  type Ease,
  type Folder,
  type Id,
  type Layer,
  type Placement,
  type ShotDocument,
  type Value,
} from '../document/index.ts';

/** What of a layer, a folder or a use can change over time. Angles are radians, lengths px. */
export const LAYER_VALUES = ['opacity', 'x', 'y', 'scale', 'angle'] as const;
export type LayerValue = (typeof LAYER_VALUES)[number];

/** The value of that name. */
export const valueOf = (layer: Layer | Folder | Placement, which: LayerValue): Value =>
  which === 'opacity' ? layer.opacity : layer.shift[which];

const LIMITS: Readonly<Record<LayerValue, readonly [number, number]>> = {
  opacity: [0, 1],
  x: [-100_000, 100_000],
  y: [-100_000, 100_000],
  scale: [0.001, 1000],
  angle: [-1000, 1000],
};

function withValue(doc: ShotDocument, ownerId: Id, which: LayerValue, change: (value: Value) => Value): ShotDocument {
  const owner = find(doc, 'layer', ownerId) ?? find(doc, 'folder', ownerId) ?? find(doc, 'placement', ownerId);
  if (!owner) return doc;
  const value = change(valueOf(owner, which));
  return putEntities(
    doc,
    which === 'opacity' ? { ...owner, opacity: value } : { ...owner, shift: { ...owner.shift, [which]: value } },
  );
}

/** Sets a value on a frame: throughout, or at that frame where it changes over time. Kept within its limits. */
export function setValue(
  doc: ShotDocument,
  ownerId: Id,
  which: LayerValue,
  frame: number,
  number: number,
): ShotDocument {
  const [min, max] = LIMITS[which];
  return withValue(doc, ownerId, which, (value) => withNumber(value, frame, Math.min(max, Math.max(min, number))));
}

/** Sets a key at a frame, with the number the value has there; from the first key on it changes over time. */
export const setKey = (
  doc: ShotDocument,
  ownerId: Id,
  which: LayerValue,
  frame: number,
  round: number | null,
  ease?: Ease,
): ShotDocument => withValue(doc, ownerId, which, (value) => withKey(value, frame, valueAt(value, frame, round), ease));

/** Takes the key at a frame away. */
export const dropKey = (doc: ShotDocument, ownerId: Id, which: LayerValue, frame: number): ShotDocument =>
  withValue(doc, ownerId, which, (value) => withoutKey(value, frame));
