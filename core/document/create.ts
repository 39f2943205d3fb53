/** New entities with their usual settings. */
import { CAMERA_AT_REST } from './camera.ts';
import type { Id } from './id.ts';
import {
  AS_DRAWN,
  LIGHT_ABOVE,
  type Drawing,
  type Element,
  type Entity,
  type Guide,
  type GuideForm,
  type Layer,
  type LayerRole,
  type Path,
  type Placement,
  type Plane,
  type RunList,
  type Shot,
  type StandIn,
  type Swatch,
  type SwatchRole,
} from './kinds/index.ts';
import type { ShotDocument } from './types.ts';
import { AT_HOME } from './shift.ts';
import { constant } from './value.ts';

export type NewId = () => Id;

/** A UUID from the platform's own generator. */
export const randomId: NewId = () => crypto.randomUUID();

/** What the user chooses for a new shot. */
export interface ShotFormat {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly rate: number;
  readonly length: number;
  readonly background: string | null;
}

/** The palette a new shot begins with. */
export const FIRST_SWATCHES: readonly { name: string; role: SwatchRole; colour: string }[] = [
  { name: 'line', role: 'outline', colour: '#8c2a14' },
  { name: 'body', role: 'body', colour: '#e2581c' },
  { name: 'flame', role: 'light', colour: '#ffa62b' },
  { name: 'core', role: 'core', colour: '#fff0b8' },
  { name: 'ash', role: 'shade', colour: '#b9b1a6' },
];

/** What an element has before anything is planned for it. */
export const NO_PLAN = {
  anchor: { x: 0, y: 0 },
  tip: null,
  light: { constant: LIGHT_ABOVE },
  finishes: [],
  recolours: [],
  recolour: null,
  bases: [],
  phases: [],
  mood: null,
  paths: [],
  traces: [],
  smearings: {},
  meant: [],
  shelf: null,
} as const satisfies Partial<Element>;

/** Slots that are numbered as they follow, none of them a key. */
export const IN_ORDER: Pick<RunList, 'poses' | 'numbers'> = { poses: {}, numbers: {} };

export const emptyDrawing = (id: Id): Drawing => ({ kind: 'drawing', id, marks: {}, order: [] });

/** A drawing whose marks are worked out when somebody first looks at them: many are asked only which one they are. */
export function drawingLater(id: Id, order: Drawing['order'], work: () => Drawing['marks']): Drawing {
  let made: Drawing['marks'] | undefined;
  return {
    kind: 'drawing',
    id,
    order,
    get marks() {
      return (made ??= work());
    },
  };
}

/** A layer with a run list of its own. */
export function newLayer(elementId: Id, name: string, role: LayerRole, newId: NewId): { layer: Layer; list: RunList } {
  const list: RunList = { kind: 'runlist', id: newId(), elementId, runs: [], period: null, offset: 0, ...IN_ORDER };
  const layer: Layer = {
    kind: 'layer',
    id: newId(),
    elementId,
    name,
    role,
    visible: true,
    locked: false,
    opacity: constant(1),
    blend: 'normal',
    onion: true,
    tag: 0,
    runListId: list.id,
    slots: {},
    starterId: null,
    inside: false,
    clip: false,
    tint: null,
    shift: AT_HOME,
    finishes: [],
    forWork: false,
    matte: { shot: false, inverted: false },
  };
  return { layer, list };
}

/** A use of an element as it was drawn, from a frame on. */
export const newPlacement = (elementId: Id, place: Pick<Placement, 'start' | 'x' | 'y'>, newId: NewId): Placement => ({
  kind: 'placement',
  id: newId(),
  elementId,
  repeats: null,
  ...AS_DRAWN,
  ...place,
});

/** An element of one line layer, and its placement from a frame of the shot. */
export function newElement(
  name: string,
  place: Pick<Placement, 'start' | 'x' | 'y'>,
  newId: NewId,
): { element: Element; placement: Placement; layer: Layer; list: RunList } {
  const id = newId();
  const { layer, list } = newLayer(id, 'Line', 'line', newId);
  return {
    element: {
      kind: 'element',
      id,
      name,
      time: 'open',
      form: 'auto',
      layers: [layer.id],
      ...NO_PLAN,
    },
    placement: newPlacement(id, place, newId),
    layer,
    list,
  };
}

/** The stand-in a path begins with. */
const FIRST_STAND_IN: StandIn = {
  form: 'disc',
  shape: null,
  sizeStart: 90,
  sizeEnd: 60,
  aspect: 0.6,
  turn: 'along',
  angle: 0,
  stretch: 0.35,
  opacityStart: 1,
  opacityEnd: 1,
};

/** A path of twelve ticks from an element's first frame. @param nodes in element space. */
export function newPath(elementId: Id, name: string, nodes: Float32Array, closed: boolean, newId: NewId): Path {
  return {
    kind: 'path',
    id: newId(),
    elementId,
    name,
    nodes,
    closed,
    from: 0,
    ticks: 12,
    hold: 1,
    softStart: 0.25,
    softEnd: 0.5,
    slows: [],
    perspective: false,
    placed: {},
    standIn: FIRST_STAND_IN,
    visible: true,
    locked: false,
  };
}

/** A guide line of an element, or of the whole shot for null. */
export function newGuide(
  elementId: Id | null,
  form: GuideForm,
  name: string,
  at: Pick<Guide, 'x' | 'y' | 'toX' | 'toY'>,
  newId: NewId,
): Guide {
  return { kind: 'guide', id: newId(), elementId, name, form, ...at, visible: true, locked: false, span: null };
}

/** A document of the given entities. */
export function documentOf(shotId: Id, entities: readonly Entity[]): ShotDocument {
  return { shotId, entities: Object.fromEntries(entities.map((entity) => [entity.id, entity])) };
}

/** A plane with nothing on it. @param depth px; 0 is the picture plane. */
export const newPlane = (name: string, depth: number, newId: NewId): Plane => ({
  kind: 'plane',
  id: newId(),
  name,
  depth,
  visible: true,
  locked: false,
  finishes: [],
  placements: [],
});

/** A shot with one open element of one line layer, placed from its first frame in the middle of the picture. */
export function newShotDocument(id: Id, format: ShotFormat, newId: NewId): ShotDocument {
  const swatches: Swatch[] = FIRST_SWATCHES.map((swatch) => ({
    kind: 'swatch',
    id: newId(),
    ...swatch,
    gradient: null,
  }));
  const middle = { start: 0, x: format.width / 2, y: format.height / 2 };
  const { element, placement, layer, list } = newElement('Element 1', middle, newId);
  const plane: Plane = { ...newPlane('Picture plane', 0, newId), placements: [placement.id] };
  const shot: Shot = {
    kind: 'shot',
    id,
    ...format,
    planes: [plane.id],
    elements: [element.id],
    swatches: swatches.map((s) => s.id),
    guides: [],
    plates: [],
    lights: [],
    sounds: [],
    camera: CAMERA_AT_REST,
    focal: null,
    air: null,
  };
  return documentOf(id, [shot, plane, placement, element, layer, list, ...swatches]);
}
