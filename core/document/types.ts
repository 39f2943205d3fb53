/**
 * The words of a shot's document as plain immutable data.
 *
 * Lengths are px of the shot, time is whole frames counted from 0, coordinates of marks are in
 * element space (origin at the element's anchor, y down). Ids are UUIDs made by the client.
 */
import type { Plate } from './plate-types.ts';
import type { Finish, Gradient, Recolour } from './look-types.ts';
import type { Fill, Tone } from './paint-types.ts';
import type { Base, Guide, Mood, Path, Phase, Starter } from './plan-types.ts';
import type { Between, Pose, Trace, Variant } from './time-types.ts';
import type { Value } from './value.ts';

export type Id = string;

/** Five columns of equal length, one entry per pen sample. */
export interface Samples {
  /** Element space, px. */
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** 0 to 1. */
  readonly pressure: Float32Array;
  /** Angle between pen and surface, radians, 0 (flat) to pi/2 (upright). */
  readonly altitude: Float32Array;
  /** Direction the pen leans to, radians, 0 to 2 pi. */
  readonly azimuth: Float32Array;
}

/** Ink is solid and smooth, pencil has a fine tooth, grain is broad flecks, haze is soft and builds up. */
export const BRUSH_KINDS = ['ink', 'pencil', 'grain', 'haze'] as const;
export type BrushKind = (typeof BRUSH_KINDS)[number];

/** How a brush was set when a stroke was made. */
export interface BrushSettings {
  readonly kind: BrushKind;
  /** Full width in px of element space. */
  readonly width: number;
  /** 0 to 1, of the stroke as a whole: crossing itself does not darken it. */
  readonly opacity: number;
  /** Whether pressure changes what the brush lays; without it the line is constant. */
  readonly pressure: boolean;
  /** How much of haze one pass lays, above 0 to 1; 1 without it. */
  readonly flow?: number;
  /** Lengths over which the stroke grows from nothing and goes back to nothing, px of element space. */
  readonly taper?: readonly [number, number];
  /** How far a leaning pen broadens the stroke, 0 (not at all, as without it) to 1. */
  readonly tilt?: number;
}

/** Where a mark goes on what its drawing holds already: over it, unless said otherwise. */
export const LAYS = ['behind', 'inside'] as const;
export type Lays = (typeof LAYS)[number];

export interface Stroke {
  readonly kind: 'stroke';
  readonly id: Id;
  readonly swatch: Id;
  readonly brush: BrushSettings;
  readonly seed: number;
  readonly samples: Samples;
  readonly lays?: Lays;
  /** A line that closes a gap for filling: it bounds regions and is never part of the picture. */
  readonly unseen?: true;
  /** The piece it belongs to, kept from drawing to drawing: one lick, one drop. */
  readonly piece?: string;
}

/** A stroke that takes away what is under it in its own drawing. */
export interface RubOut {
  readonly kind: 'rub';
  readonly id: Id;
  readonly brush: BrushSettings;
  readonly seed: number;
  readonly samples: Samples;
}

/**
 * A closed curve of cubic pieces: six numbers per node, `x y inX inY outX outY`, all absolute, the
 * handles leading into and out of the node.
 */
export type Ring = Float32Array;

/** Which areas rings enclose: computed ones hold holes, one drawn by hand is filled wherever it crosses itself. */
export const SHAPE_RULES = ['evenodd', 'nonzero'] as const;
export type ShapeRule = (typeof SHAPE_RULES)[number];

/** A filled area. */
export interface Shape {
  readonly kind: 'shape';
  readonly id: Id;
  readonly swatch: Id;
  readonly rings: readonly Ring[];
  readonly rule: ShapeRule;
  /** 0 to 1. */
  readonly opacity: number;
  readonly lays?: Lays;
  readonly piece?: string;
}

export type Mark = Stroke | RubOut | Shape;

export interface Drawing {
  readonly kind: 'drawing';
  readonly id: Id;
  readonly marks: Readonly<Record<Id, Mark>>;
  /** Mark ids from the lowest to the topmost. */
  readonly order: readonly Id[];
}

/** A stretch of frames that shows one slot, or nothing. */
export interface Run {
  readonly id: Id;
  readonly slot: Id | null;
  /** Frames, at least 1. */
  readonly length: number;
}

export interface RunList {
  readonly kind: 'runlist';
  readonly id: Id;
  readonly elementId: Id;
  readonly runs: readonly Run[];
  /** The list's own repeat in frames, or null when it runs with its element. 1 is a still layer. */
  readonly period: number | null;
  /** Frames by which the list starts later, wrapping on a cycle. */
  readonly offset: number;
  /** Slots that are keys or breakdowns; the others are in-betweens. */
  readonly poses: Readonly<Record<Id, Pose>>;
  /** Numbers of slots that keep theirs though the order has changed; the others are numbered as they follow. */
  readonly numbers: Readonly<Record<Id, number>>;
}

export const LAYER_ROLES = ['guide', 'rough', 'line', 'body', 'tone', 'texture', 'glow', 'matte'] as const;
export type LayerRole = (typeof LAYER_ROLES)[number];

/** How a layer meets what lies under it; names of the W3C compositing standard, `lighter` being add. */
export const BLENDS = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
  'lighter',
] as const;
export type Blend = (typeof BLENDS)[number];

/** Colour marks that tell layers apart in the list; 0 is none. */
export const LAYER_TAGS = 6;

export interface Layer {
  readonly kind: 'layer';
  readonly id: Id;
  readonly elementId: Id;
  readonly name: string;
  readonly role: LayerRole;
  readonly visible: boolean;
  readonly locked: boolean;
  readonly opacity: Value;
  readonly blend: Blend;
  /** Whether the onion skin shows its neighbours while it is drawn on. */
  readonly onion: boolean;
  /** Colour mark, 0 (none) to `LAYER_TAGS`. */
  readonly tag: number;
  readonly runListId: Id;
  /** Which drawing each slot of the run list shows on this layer. */
  readonly slots: Readonly<Record<Id, Id>>;
  /** The starter that laid this layer, if one did. */
  readonly starterId: Id | null;
  /** Whether the pen draws only on what the layer holds already. */
  readonly inside: boolean;
  /** Whether the layer shows only where the one below it does. */
  readonly clip: boolean;
  /** The swatch in which all of the layer is seen, or null for each mark's own. */
  readonly tint: Id | null;
  /** Where the whole layer is put, over time. */
  readonly shift: Shift;
  /** How it is seen, in the order in which they are worked out. */
  readonly finishes: readonly Finish[];
  /** For working only: not part of the finished look, nor of what is taken away. */
  readonly forWork: boolean;
  /** Of a matte: whether it hides what lies behind its element too, and whether it hides all but what it covers. */
  readonly matte: { readonly shot: boolean; readonly inverted: boolean };
}

/** Where a whole layer is put: moved, scaled and turned about the element's anchor. */
export interface Shift {
  /** px. */
  readonly x: Value;
  readonly y: Value;
  /** Above 0; 1 is as drawn. */
  readonly scale: Value;
  /** Radians, clockwise. */
  readonly angle: Value;
}

/** Layers put together: shown, locked and faded as one. Folders hold layers only. */
export interface Folder {
  readonly kind: 'folder';
  readonly id: Id;
  readonly elementId: Id;
  readonly name: string;
  readonly visible: boolean;
  readonly locked: boolean;
  /** Below 1 its layers are laid on one another first and faded as one picture. */
  readonly opacity: Value;
  /** Layer ids, topmost first. */
  readonly layers: readonly Id[];
}

export type ElementTime = 'open' | 'cycle' | 'one-shot';

/** How an element's time is seen: as a disc, unrolled into a straight band, as a sheet, or whichever suits its length. */
export const ELEMENT_FORMS = ['auto', 'disc', 'straight', 'sheet'] as const;
export type ElementForm = (typeof ELEMENT_FORMS)[number];

export interface Element {
  readonly kind: 'element';
  readonly id: Id;
  readonly name: string;
  /** Open while it grows; then a cycle (wraps) or a one-shot (ends). */
  readonly time: ElementTime;
  readonly form: ElementForm;
  /** Where the effect grows from, in element space. Moving it moves no mark. */
  readonly anchor: { readonly x: number; readonly y: number };
  /** Where the effect leads to: its axis goes there from the anchor. Null for straight up, half the picture's height. */
  readonly tip: { readonly x: number; readonly y: number } | null;
  /** Where light comes from, degrees clockwise from the right, over time. */
  readonly light: Value;
  /** Looks of the element as a whole. */
  readonly finishes: readonly Finish[];
  readonly recolours: readonly Recolour[];
  /** The recolouring it is seen in, or null for its own swatches. */
  readonly recolour: Id | null;
  readonly bases: readonly Base[];
  readonly phases: readonly Phase[];
  readonly mood: Mood | null;
  readonly paths: readonly Id[];
  /** Points followed from drawing to drawing. */
  readonly traces: readonly Trace[];
  /** Ids of layers and folders, topmost first. */
  readonly layers: readonly Id[];
}

/** One use of an element on a plane. */
export interface Placement {
  readonly kind: 'placement';
  readonly id: Id;
  readonly elementId: Id;
  /** Shot frame on which the element's time begins. */
  readonly start: number;
  /** Turns of a cycle, or null for as many as reach the end of the shot. */
  readonly repeats: number | null;
  /** Where the element's origin stands in the shot, px. */
  readonly x: number;
  readonly y: number;
}

export interface Plane {
  readonly kind: 'plane';
  readonly id: Id;
  readonly name: string;
  /** 0 is the picture plane, positive is farther. */
  readonly depth: number;
  /** Placement ids, topmost first. */
  readonly placements: readonly Id[];
}

export const SWATCH_ROLES = ['outline', 'body', 'core', 'light', 'shade', 'hole'] as const;
export type SwatchRole = (typeof SWATCH_ROLES)[number];

export interface Swatch {
  readonly kind: 'swatch';
  readonly id: Id;
  readonly name: string;
  readonly role: SwatchRole;
  /** `#rrggbb`, lower case. Of a gradient, what is seen where no gradient can be. */
  readonly colour: string;
  /** Colours of other swatches running into each other, or null for the one colour. */
  readonly gradient: Gradient | null;
}

export interface Shot {
  readonly kind: 'shot';
  readonly id: Id;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  /** Frames per second. */
  readonly rate: number;
  /** Frames. */
  readonly length: number;
  /** `#rrggbb`, or null for transparent. */
  readonly background: string | null;
  /** Plane ids, nearest first. */
  readonly planes: readonly Id[];
  readonly elements: readonly Id[];
  readonly swatches: readonly Id[];
  readonly guides: readonly Id[];
  /** Plate ids, the nearest first. */
  readonly plates: readonly Id[];
}

export type Entity =
  | Shot
  | Plane
  | Placement
  | Element
  | Folder
  | Layer
  | RunList
  | Drawing
  | Swatch
  | Path
  | Guide
  | Starter
  | Plate
  | Variant
  | Between
  | Fill
  | Tone;
export type EntityKind = Entity['kind'];
export type EntityOf<K extends EntityKind> = Extract<Entity, { kind: K }>;

/** Everything of one shot by id. Drawings may be missing while they are still being fetched. */
export interface ShotDocument {
  readonly shotId: Id;
  readonly entities: Readonly<Record<Id, Entity>>;
}

/** The entity of that kind and id, or undefined when it is unknown, deleted or of another kind. */
export function find<K extends EntityKind>(
  doc: ShotDocument,
  kind: K,
  id: Id | null | undefined,
): EntityOf<K> | undefined {
  const entity = id ? doc.entities[id] : undefined;
  return entity?.kind === kind ? (entity as EntityOf<K>) : undefined;
}

/** The shot's own row. @throws if the document has none. */
export function shotOf(doc: ShotDocument): Shot {
  const shot = find(doc, 'shot', doc.shotId);
  if (!shot) throw new Error(`Shot ${doc.shotId} is not in its own document`);
  return shot;
}

/** The known entities of a list of ids, in its order; unknown ids are passed over. */
export function findAll<K extends EntityKind>(doc: ShotDocument, kind: K, ids: readonly Id[]): EntityOf<K>[] {
  return ids.flatMap((id) => find(doc, kind, id) ?? []);
}

/** The document with some entities put in, new or in place of older ones. */
export function putEntities(doc: ShotDocument, ...entities: readonly Entity[]): ShotDocument {
  return {
    ...doc,
    entities: { ...doc.entities, ...Object.fromEntries(entities.map((entity) => [entity.id, entity])) },
  };
}

/** The document without some entities. */
export function dropEntities(doc: ShotDocument, ids: readonly Id[]): ShotDocument {
  const entities = { ...doc.entities };
  for (const id of ids) Reflect.deleteProperty(entities, id);
  return { ...doc, entities };
}
