/** Filling on the desk: what bounds, and by which rules. */
import { type Id } from '@tallow/core/document';
import { fillOfLayer, fillPlace, whyNotDrawable, type FillBounds, type FillPlan } from '@tallow/core/edit';
import { invert, multiply, type Matrix } from '@tallow/core/geometry';
import type { FillReport } from '@tallow/core/paint';
import type { FillThere } from '@tallow/core/render';
import { create } from 'zustand';
import { toolState } from '../hand/tool-state.ts';
import { current, layerMatrix, swatchOf, type Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';

export type FillMode = 'region' | 'lasso' | 'closing' | 'unfill' | 'repaint';

/** A report with the drawing it is about. */
export interface FillReportAt extends FillReport {
  readonly frame: number;
}

interface FillDesk {
  readonly mode: FillMode;
  readonly bounds: FillBounds;
  readonly gap: number;
  readonly toMiddle: boolean;
  readonly under: number;
  /** Whether a closing stroke fills what it closes. */
  readonly fillsClosed: boolean;
  /** Drawings a fill is carried through, the one shown first. */
  readonly through: number;
  /** Whether drawings that need more than Gap to hold are given it when a fill is carried through them. */
  readonly asNeeded: boolean;
  /** What lies under the pen, of the drawing it was asked about. */
  readonly there: FillThere | null;
  readonly working: { readonly done: number; readonly of: number } | null;
  readonly reports: readonly FillReportAt[];
  /** What became of the drawings that fills were last carried through. */
  readonly outcome: string | null;
}

export const useFill = create<FillDesk>(() => ({
  mode: 'region',
  bounds: 'this',
  gap: 6,
  toMiddle: true,
  under: 3,
  fillsClosed: false,
  through: 500,
  asNeeded: true,
  there: null,
  working: null,
  reports: [],
  outcome: null,
}));
export const setFill = useFill.setState;

/** Widest gap that is closed by itself where a drawing needs it, px: as far as the slider goes. */
export const MAX_GAP = 64;

/** Where fills of the active layer go and what bounds them; the layer may still have to be made. */
export function fillingNow(now: Current): { boundIds: Id[]; layerId: Id | null } | null {
  if (!now.active) return null;
  const { boundIds, fillLayerId } = fillPlace(now.doc, now.active.layer.id, useFill.getState().bounds);
  return { boundIds, layerId: fillLayerId };
}

/** Rules are remembered with the layer that was filled by them. */
useSelection.subscribe(({ layerId }, before) => {
  const now = layerId === before.layerId ? null : current();
  const place = now && fillingNow(now);
  const fill = place?.layerId ? fillOfLayer(now!.doc, place.layerId) : undefined;
  if (fill)
    setFill({ gap: fill.gap, toMiddle: fill.under === null, ...(fill.under === null ? {} : { under: fill.under }) });
});

/** What fills of a layer are laid by. */
export const planFor = (layerId: Id, bounds: readonly Id[]): FillPlan => {
  const { gap, toMiddle, under } = useFill.getState();
  return { layerId, bounds, gap, under: toMiddle ? null : under };
};

/** From the active layer's space to that of the layer that is filled. */
export function toFillLayer(now: Current, layerId: Id | null, frame: number): Matrix {
  const timed = now.layers.find(({ layer }) => layer.id === layerId);
  if (!timed) return [1, 0, 0, 1, 0, 0];
  return multiply(invert(layerMatrix({ ...now, active: timed }, frame)), layerMatrix(now, frame));
}

/** Why nothing can be filled now, or null. */
export function whyNotFill(now: Current | null): string | null {
  if (!now?.active) return 'There is no layer. Add one first.';
  const trouble = whyNotDrawable(now.active);
  if (trouble) return trouble;
  const place = fillingNow(now);
  const target = now.layers.find(({ layer }) => layer.id === place?.layerId);
  if (target && whyNotDrawable(target)) return whyNotDrawable(target);
  if (!swatchOf(now.doc, toolState().swatchId)) return 'The palette is empty. Add a swatch to fill with.';
  return null;
}
