/** The brushes: what each is called, what its pen makes, by which key it is taken, and how it draws at first. */
import { STRAIGHT, type StrokeFinish, type Response } from '@tallow/core/brush';
import type { BrushKind } from '@tallow/core/document';
import { key, type Shortcut } from '../actions/action.ts';

/** A brush as it is set. */
export interface BrushState {
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
  /** The tip, where the brush leaves it open. */
  readonly tip: BrushKind;
  readonly finish: StrokeFinish;
  /** Simplification of angular and smooth strokes, px. */
  readonly tolerance: number;
}

interface Brush {
  readonly label: string;
  /** What a step of undo is called. */
  readonly step: string;
  /** What becomes of the pen's way: a stroke, a filled shape, or a stroke that rubs out. */
  readonly makes: 'stroke' | 'shape' | 'rub';
  /** The tip it draws with, or null for the one that is set. */
  readonly tip: BrushKind | null;
  readonly keys: readonly Shortcut[];
  /** How wide its mark is shown in the tray, px. */
  readonly sample: number;
  readonly default: BrushState;
}

const DEFAULT: BrushState = {
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

export const BRUSHES = {
  ink: {
    label: 'Ink',
    step: 'stroke',
    makes: 'stroke',
    tip: 'ink',
    keys: [key('Digit1')],
    sample: 8,
    default: DEFAULT,
  },
  pencil: {
    label: 'Pencil',
    step: 'pencil stroke',
    makes: 'stroke',
    tip: 'pencil',
    keys: [key('Digit2')],
    sample: 7,
    default: { ...DEFAULT, width: 7, tilt: 1, steadying: 0.2 },
  },
  grain: {
    label: 'Grain',
    step: 'grain',
    makes: 'stroke',
    tip: 'grain',
    keys: [key('Digit3')],
    sample: 20,
    default: { ...DEFAULT, width: 48, tilt: 0.3, steadying: 0.2 },
  },
  haze: {
    label: 'Haze',
    step: 'haze',
    makes: 'stroke',
    tip: 'haze',
    keys: [key('Digit4')],
    sample: 24,
    default: { ...DEFAULT, width: 90, flow: 0.4, steadying: 0.2 },
  },
  shape: {
    label: 'Shape',
    step: 'shape',
    makes: 'shape',
    tip: 'ink',
    keys: [key('Digit5')],
    sample: 8,
    default: { ...DEFAULT, width: 40 },
  },
  rub: {
    label: 'Rub out',
    step: 'rub out',
    makes: 'rub',
    tip: null,
    keys: [key('Digit6'), key('KeyX')],
    sample: 12,
    default: { ...DEFAULT, width: 36, steadying: 0 },
  },
} as const satisfies Readonly<Record<string, Brush>>;

export type BrushName = keyof typeof BRUSHES;
export const BRUSH_NAMES = Object.keys(BRUSHES) as [BrushName, ...BrushName[]];

/** What a brush makes. */
export const madeBy = (name: BrushName): Brush['makes'] => BRUSHES[name].makes;

/** The tip a brush draws with, as it is set. */
export const brushKindOf = (name: BrushName, { tip }: Pick<BrushState, 'tip'>): BrushKind => BRUSHES[name].tip ?? tip;

/** The brush that rubs out: what the other end of a pen is. */
export const RUBBER = BRUSH_NAMES.find((name) => madeBy(name) === 'rub')!;
