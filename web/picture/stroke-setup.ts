/** How what the pen draws is set when it goes down. */
import type { Making } from '@tallow/core/brush';
import type { BrushSettings, Lays } from '@tallow/core/document';
import type { Matrix } from '@tallow/core/geometry';
import type { Laying, Paint } from '@tallow/core/render';

export interface ShapeSetup {
  /** The line round the shape, or null for none. */
  readonly line: { readonly brush: BrushSettings; readonly paint: Paint } | null;
  /** How far the pen must go before a tap becomes a shape, px of element space. */
  readonly min: number;
}

export interface StrokeSetup {
  readonly brush: BrushSettings;
  readonly paint: Paint;
  readonly laying: Laying;
  /** Element space to device pixels. */
  readonly matrix: Matrix;
  readonly seed: number;
  /** 0 to 1. */
  readonly steadying: number;
  readonly making: Making;
  readonly lays?: Lays;
  /** Closes and fills what the pen draws. */
  readonly shape?: ShapeSetup;
}
