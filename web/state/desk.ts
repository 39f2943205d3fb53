/** The desk: what is in hand, how the picture is looked at, and where the playhead stands. Never saved with the shot. */
import { STRAIGHT, type Finish, type Form, type Response } from '@tallow/core/brush';
import { COLOUR_PAIRS, type ColourPair } from '@tallow/core/colour';
import type { BrushKind, Id } from '@tallow/core/document';
import type { ClipPart, Picked } from '@tallow/core/edit';
import type { Matrix } from '@tallow/core/geometry';
import { create } from 'zustand';
import { FIRST_VIEW, type Area, type View } from './view.ts';

export const TOOLS = ['ink', 'pencil', 'grain', 'haze', 'shape', 'rub'] as const;
export type Tool = (typeof TOOLS)[number];
/**
 * What the pen does with the tool in hand: draw, pick marks up, reshape them, move ghosts for tracing, place a picture,
 * follow a point, fill regions, or take colours from the picture.
 */
export type Hand = 'draw' | 'pick' | 'reshape' | 'trace' | 'plate' | 'point' | 'fill' | 'dropper';

/** What the column shows in place of the layers. */
export const PANELS = [
  'timing',
  'between',
  'cycle',
  'variants',
  'values',
  'piece',
  'palette',
  'finishes',
  'tone',
] as const;
export type PanelName = (typeof PANELS)[number];

export interface BrushInHand {
  readonly width: number;
  readonly opacity: number;
  readonly pressure: boolean;
  /** 0 to 1. */
  readonly steadying: number;
  /** How much one pass lays, above 0 to 1. */
  readonly flow: number;
  /** Lengths of the tapers at the start and at the end, px. */
  readonly taper: readonly [number, number];
  /** How far a leaning pen broadens the stroke, 0 to 1. */
  readonly tilt: number;
  readonly response: Response;
  /** The tip that rubs out. */
  readonly tip: BrushKind;
  readonly finish: Finish;
  /** Simplification of angular and smooth strokes, px. */
  readonly tolerance: number;
}

export interface Onion {
  readonly on: boolean;
  /** Drawings shown before and after, 0 to 5. */
  readonly before: number;
  readonly after: number;
  /** Filled drawings as their outline only, or tinted whole. */
  readonly look: 'outline' | 'full';
  /** 0 to 1. */
  readonly strength: number;
  /** What each drawing farther away keeps of the strength of the one before, 0 to 1. */
  readonly fallOff: number;
  /** The pair of colours picked, or null for the one farthest from the element's swatches. */
  readonly colours: ColourPair | null;
}

/** Runs of one layer that are picked on the wheel. */
export interface PickedRuns extends Picked {
  readonly layerId: Id;
  /** Other layers picked with it, on the same frames. */
  readonly also?: readonly Id[];
}

export const SPEEDS = [0.25, 0.5, 1, 2] as const;
export type Speed = (typeof SPEEDS)[number];

export interface DeskState {
  readonly tool: Tool;
  readonly hand: Hand;
  readonly form: Form;
  /** Lines level, plumb or every 15 degrees; squares for rectangles, circles for ellipses. */
  readonly exact: boolean;
  /** Strokes that nearly close, close. */
  readonly closes: boolean;
  /** Whether the pen draws behind what is there. */
  readonly behind: boolean;
  /** A straight edge in shot px that strokes snap to: its middle, and the direction it runs in, radians. */
  readonly ruler: { readonly x: number; readonly y: number; readonly angle: number } | null;
  /** Whether the column shows the settings of the brush in hand. */
  readonly brushShown: boolean;
  readonly brushes: Readonly<Record<Tool, BrushInHand>>;
  readonly swatchId: Id | null;
  readonly elementId: Id | null;
  readonly layerId: Id | null;
  /** Frame of the active element. */
  readonly frame: number;
  /** Turn of the active element's cycle in the shot, from 0. */
  readonly turn: number;
  readonly picked: PickedRuns | null;
  readonly clip: { readonly shotId: Id; readonly parts: readonly ClipPart[] } | null;
  readonly playing: boolean;
  /** Frames per second really reached while playing. */
  readonly reached: number | null;
  readonly speed: Speed;
  /** To and fro in place of round and round. */
  readonly pingPong: boolean;
  /** Frames of the active element that are played, or null for all. */
  readonly range: { readonly from: number; readonly length: number } | null;
  /** Plays only the picked layers. */
  readonly playsLayers: boolean;
  /** Plays the element's variants one after another. */
  readonly inTurn: boolean;
  /** Whether playing begins again at the end. */
  readonly loops: boolean;
  /** Plays only what is picked. */
  readonly playsPicked: boolean;
  readonly onion: Onion;
  /** Drawings shown as ghosts wherever the playhead is. */
  readonly pinned: readonly Id[];
  /** Where ghosts of drawings are seen in place of where their drawings are, element space to element space. */
  readonly ghostShift: Readonly<Record<Id, Matrix>>;
  /** What a drag does to a ghost. */
  readonly shifting: 'move' | 'turn' | 'scale';
  /** The one layer that is shown. */
  readonly alone: Id | null;
  readonly dimOthers: boolean;
  /** Layers left out of the picture while what would replace them is previewed. */
  readonly without: readonly Id[];
  /** Whether the pen plans rather than draws. */
  readonly planning: boolean;
  /** Whether Plan's marks are seen strongly while drawing, for as long as a key is held. */
  readonly planHeld: boolean;
  /** A phase that fills the wheel, by its id. */
  readonly phaseId: Id | null;
  /** Layers that locking all others locked, to be unlocked by it again. */
  readonly lockedOthers: readonly Id[];
  /** What of time the column shows, or null for the layers. */
  readonly panel: PanelName | null;
  /** Whether edits of time are for all layers of the element. */
  readonly together: boolean;
  /** Whether each stroke leads on to the next drawing. */
  readonly goesOn: boolean;
  /** Shows the first drawing as the target in the last part of a cycle. */
  readonly leadsBack: boolean;
  /** Shows where pieces would be next. */
  readonly ahead: boolean;
  /** The traced point in hand. */
  readonly traceId: Id | null;
  /** The piece that is drawn right round, or null for whole drawings. */
  readonly piece: string | null;
  /** Whether the sheet shows pictures of the drawings. */
  readonly sheetPictures: boolean;
  /** Whether finishes are seen on the desk. */
  readonly looks: boolean;
  /** Whether the picture shows what will be taken away: no guides, nothing for work, all looks. */
  readonly finished: boolean;
  /** While a look's setting is being dragged. */
  readonly rough: boolean;
  /** Whether the pen on a later frame of a hold begins a new drawing there. */
  readonly newOnHeld: boolean;
  /** A line of its own round shapes: its width in px, or null for none. */
  readonly shapeLine: number | null;
  readonly silhouette: boolean;
  /** Whether the picture shows a neighbour for as long as a key is held: as it is, without ghosts. */
  readonly flipping: boolean;
  /** Colour in place of the background, for judging only. */
  readonly backdrop: string | null;
  /** Whether column, strip and tray are there. */
  readonly panels: boolean;
  /** Nothing but the picture. */
  readonly full: boolean;
  /** Whether the loop in the hub runs while nothing is played. */
  readonly hubRuns: boolean;
  /** Where the wheel's first frame is turned to, radians clockwise from the top. */
  readonly wheelTurn: number;
  readonly view: View;
  /** Whether the view follows the size of the window. */
  readonly fitted: boolean;
  /** Size of the picture's area, CSS px. */
  readonly area: Area;
  /** A key held down for as long as something is moved: pan, turn or width. */
  readonly holding: 'pan' | 'turn' | 'width' | null;
  readonly keysShown: boolean;
}

const USUAL: BrushInHand = {
  width: 14,
  opacity: 1,
  pressure: true,
  steadying: 0.35,
  flow: 1,
  taper: [0, 0],
  tilt: 0,
  response: STRAIGHT,
  tip: 'ink',
  finish: 'drawn',
  tolerance: 4,
};
const FIRST_BRUSHES: Readonly<Record<Tool, BrushInHand>> = {
  ink: USUAL,
  pencil: { ...USUAL, width: 7, tilt: 1, steadying: 0.2 },
  grain: { ...USUAL, width: 48, tilt: 0.3, steadying: 0.2 },
  haze: { ...USUAL, width: 90, flow: 0.4, steadying: 0.2 },
  shape: { ...USUAL, width: 40 },
  rub: { ...USUAL, width: 36, steadying: 0 },
};

/** What of the desk belongs to the shot that is open, as it is when one opens. */
export const FRESH = {
  elementId: null,
  layerId: null,
  frame: 0,
  turn: 0,
  picked: null,
  playing: false,
  playsPicked: false,
  range: null,
  playsLayers: false,
  inTurn: false,
  panel: null,
  together: false,
  goesOn: false,
  leadsBack: false,
  ahead: false,
  traceId: null,
  piece: null,
  pinned: [],
  ghostShift: {},
  alone: null,
  dimOthers: false,
  without: [],
  planHeld: false,
  phaseId: null,
  lockedOthers: [],
  silhouette: false,
  finished: false,
  flipping: false,
  backdrop: null,
  full: false,
  hand: 'draw',
  ruler: null,
  wheelTurn: 0,
  swatchId: null,
  fitted: true,
} as const satisfies Partial<DeskState>;

export const useDesk = create<DeskState>(() => ({
  ...FRESH,
  tool: 'ink',
  form: 'free',
  exact: false,
  closes: false,
  behind: false,
  brushShown: false,
  brushes: FIRST_BRUSHES,
  clip: null,
  reached: null,
  speed: 1,
  pingPong: false,
  loops: true,
  onion: { on: true, before: 1, after: 1, look: 'outline', strength: 1, fallOff: 0.6, colours: COLOUR_PAIRS[0]! },
  shifting: 'move',
  planning: false,
  sheetPictures: false,
  looks: true,
  rough: false,
  newOnHeld: false,
  shapeLine: null,
  panels: true,
  hubRuns: true,
  view: FIRST_VIEW,
  area: { width: 0, height: 0 },
  holding: null,
  keysShown: false,
}));

export const desk = useDesk.getState;
export const setDesk = useDesk.setState;

/** Takes a brush in hand. */
export function takeBrush(tool: Tool): void {
  setDesk({ tool, hand: 'draw' });
}

/** Changes the brush of the tool in hand. */
export function setBrush(settings: Partial<BrushInHand>): void {
  const { brushes, tool } = desk();
  setDesk({ brushes: { ...brushes, [tool]: { ...brushes[tool], ...settings } } });
}
