/** Everything of the assembled shot that changes over time, in one list: of the camera, lights, uses, planes, and what is drawn in it. */
import {
  find,
  findAll,
  keysIn,
  LIGHT_LIMITS,
  putEntities,
  shotOf,
  withKey,
  withoutKey,
  withValues,
  ZOOM_LIMITS,
  type Ease,
  type Element,
  type Entity,
  type AppliedLook,
  type Id,
  type Key,
  type ShotDocument,
  type Value,
} from '../document/index.ts';
import { clamp } from '../geometry/index.ts';
import { LOOKS } from '../looks/index.ts';
import { elementLength, labelOfUse, placedElements, roundOf, timedLayers, usedElements } from '../timing/index.ts';

/** A number that changes over time. */
export interface ChangingValue {
  /** What it is of: the shot for its camera, a light, a use, a plane, an element, a folder or layer of one. */
  readonly ownerId: Id;
  /** Which of the values of that, in their own order. */
  readonly nth: number;
  /** What it is of, and what it is, in words. */
  readonly owner: string;
  readonly label: string;
  readonly unit: string;
  /** What is seen for one of what is kept. */
  readonly per: number;
  /** What it may be, in what is kept. */
  readonly min: number;
  readonly max: number;
  readonly value: Value;
  /** Frame of the shot on which its frame 0 lies. */
  readonly start: number;
  /** Frames of a turn that it runs round, or null. */
  readonly round: number | null;
}

type Named = Pick<ChangingValue, 'label' | 'unit' | 'per' | 'min' | 'max'>;
const DEGREES = 180 / Math.PI;
const FAR = 100_000;
const name = (label: string, unit: string, per = 1, [min, max] = [-FAR, FAR] as readonly [number, number]): Named => ({
  label,
  unit,
  per,
  min,
  max,
});
const within = ({ min, max }: { readonly min: number; readonly max: number }): readonly [number, number] => [min, max];
const ANGLE = [-1000, 1000] as const;

/** The values of an entity in the order in which its kind goes through them. */
function valuesIn(entity: Entity): Value[] {
  const all: Value[] = [];
  withValues(entity, (value) => {
    all.push(value);
    return value;
  });
  return all;
}

const ofLooks = (finishes: readonly AppliedLook[]): Named[] =>
  finishes.flatMap(({ kind, numbers }) =>
    Object.keys(numbers).map((key): Named => {
      const field = LOOKS[kind].fields.find((each) => each.key === key);
      const label = `${LOOKS[kind].name.toLowerCase()}, ${(field?.label ?? key).toLowerCase()}`;
      return name(label, field?.unit ?? '', 1, field ? within(field) : undefined);
    }),
  );

const CAMERA = [
  name('across', 'px'),
  name('down', 'px'),
  name('zoom', '%', 100, within(ZOOM_LIMITS)),
  name('turn', '°', DEGREES, ANGLE),
];
const LIGHT = [
  name('across', 'px'),
  name('down', 'px'),
  name('reaches', 'px', 1, within(LIGHT_LIMITS.radius)),
  name('strength', '%', 100, within(LIGHT_LIMITS.strength)),
];
const USE = [
  name('across', 'px'),
  name('down', 'px'),
  name('size', '%', 100, [0.001, 1000]),
  name('turn', '°', DEGREES, ANGLE),
  name('opacity', '%', 100, [0, 1]),
];

/** Values of elements, and of what they are drawn on, in the order of their kinds. */
const ELEMENT = [name('light from', '°', 1, [-36_000, 36_000])];
const [ACROSS, DOWN, SIZE, TURN, OPACITY] = USE as [Named, Named, Named, Named, Named];
const LAYER = [OPACITY, ACROSS, DOWN, SIZE, TURN];

const changingIn = (
  entity: Entity,
  owner: string,
  names: readonly Named[],
  time: Pick<ChangingValue, 'start' | 'round'>,
): ChangingValue[] =>
  valuesIn(entity).flatMap((value, nth) =>
    keysIn(value).length > 0 && names[nth] ? [{ ownerId: entity.id, nth, owner, value, ...names[nth], ...time }] : [],
  );

/** What changes of an element, its folders and layers, by its own frames as its first use shows them. */
function changingOf(doc: ShotDocument, element: Element): ChangingValue[] {
  const use = placedElements(doc).find((placed) => placed.element.id === element.id)?.placement;
  const time = { start: use?.start ?? 0, round: roundOf(element, elementLength(doc, element)) };
  const parts = new Set(timedLayers(doc, element).flatMap(({ folder, layer }) => (folder ? [folder, layer] : [layer])));
  return [
    ...changingIn(element, element.name, [...ELEMENT, ...ofLooks(element.finishes)], time),
    ...[...parts].flatMap((part) =>
      changingIn(part, `${element.name}, ${part.name}`, [...LAYER, ...ofLooks(part.finishes)], time),
    ),
  ];
}

/** All that changes over time, the camera first. */
export function changingValues(doc: ShotDocument): ChangingValue[] {
  const shot = shotOf(doc);
  const none = { start: 0, round: null };
  const uses = placedElements(doc).map(({ placement }) => placement);
  return [
    ...changingIn(shot, 'Camera', CAMERA, none),
    ...findAll(doc, 'light', shot.lights).flatMap((light) => {
      const source = find(doc, 'placement', light.sourceId);
      const element = find(doc, 'element', source?.elementId);
      const round = element ? roundOf(element, elementLength(doc, element)) : null;
      return changingIn(light, light.name, LIGHT, { start: source?.start ?? 0, round });
    }),
    ...uses.flatMap((use) =>
      changingIn(use, labelOfUse(doc, use), [...USE, ...ofLooks(use.finishes)], { start: use.start, round: null }),
    ),
    ...findAll(doc, 'plane', shot.planes).flatMap((plane) =>
      changingIn(plane, plane.name, ofLooks(plane.finishes), none),
    ),
    ...usedElements(doc).flatMap((element) => changingOf(doc, element)),
  ];
}

function withNth(
  doc: ShotDocument,
  { ownerId, nth }: Pick<ChangingValue, 'ownerId' | 'nth'>,
  change: (value: Value) => Value,
): ShotDocument {
  const owner = doc.entities[ownerId];
  if (!owner) return doc;
  let at = 0;
  return putEntities(
    doc,
    withValues(owner, (value) => (at++ === nth ? change(value) : value)),
  );
}

/** Puts a key of a value at another frame and number, in what is kept and within what it may be; one that lies there gives way. */
export const moveKey = (
  doc: ShotDocument,
  which: Pick<ChangingValue, 'ownerId' | 'nth' | 'min' | 'max'>,
  key: Key,
  frame: number,
  number: number,
): ShotDocument =>
  withNth(doc, which, (value) => {
    const rest: Value = { keys: keysIn(value).filter((each) => each.frame !== key.frame) };
    return withKey(rest, frame, clamp(number, which.min, which.max), key.ease);
  });

/** Sets how a value goes on from a key. */
export const easeKey = (
  doc: ShotDocument,
  which: Pick<ChangingValue, 'ownerId' | 'nth'>,
  key: Key,
  ease: Ease,
): ShotDocument => withNth(doc, which, (value) => withKey(value, key.frame, key.value, ease));

/** Takes a key away; without the last one the value stays what it was there. */
export const takeKey = (
  doc: ShotDocument,
  which: Pick<ChangingValue, 'ownerId' | 'nth'>,
  frame: number,
): ShotDocument => withNth(doc, which, (value) => withoutKey(value, frame));
