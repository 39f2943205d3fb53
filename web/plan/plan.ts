/** What is planned with: the tool of the Plan step, what is selected there, and a starter on its way. Never saved. */
import type { Id, Starter } from '@tallow/core/document';
import type { Point } from '@tallow/core/geometry';
import type { Preset } from '@tallow/core/starters';
import { create } from 'zustand';
import { atOpening } from '../shot/opening.ts';

export type PlanTool =
  'path' | 'points' | 'anchor' | 'base' | 'level' | 'plumb' | 'line' | 'grid' | 'form' | 'foot' | 'stand';

/** What the column shows the settings of. */
export type SelectedPlan = { readonly kind: 'path' | 'starter' | 'guide' | 'base' | 'reveal'; readonly id: Id } | null;

interface PlanState {
  readonly tool: PlanTool | null;
  readonly hand: SelectedPlan;
  /** A node of the selected path, by index. */
  readonly node: number | null;
  /** What is being drawn, in element space. */
  readonly draft: readonly Point[];
  /** A starter whose settings are being moved, not yet laid. */
  readonly moving: Starter | null;
  /** The starter that the next press of the pen puts somewhere, as it was before it was fitted anywhere. */
  readonly standing: { readonly starterId: Id; readonly preset: Preset; readonly settings: Starter['settings'] } | null;
  /** What is being laid. */
  readonly laying: { readonly name: string; readonly done: number; readonly of: number } | null;
  /** The tick that shows while the row is played. */
  readonly rowTick: number | null;
  /** Which spacing is seen. */
  readonly spacing: 'eased' | 'flat' | 'both';
  /** Whether guides, paths and marks are seen. */
  readonly shown: boolean;
  /** Whether new guides are the whole shot's. */
  readonly forShot: boolean;
}

const NOTHING_PLANNED = {
  tool: null,
  hand: null,
  node: null,
  draft: [],
  moving: null,
  standing: null,
  laying: null,
  rowTick: null,
} as const satisfies Partial<PlanState>;

export const usePlan = create<PlanState>(() => ({
  ...NOTHING_PLANNED,
  spacing: 'eased',
  shown: true,
  forShot: true,
}));

export const plan = usePlan.getState;
export const setPlanning = usePlan.setState;

atOpening(() => {
  setPlanning(NOTHING_PLANNED);
});

/** Selects something, or nothing. */
export function selectPlanned(hand: SelectedPlan): void {
  setPlanning({ hand, node: null, draft: [] });
}

/** Makes a tool active, or none when it is already. */
export function takePlanTool(tool: PlanTool | null): void {
  setPlanning({ tool: plan().tool === tool ? null : tool, draft: [] });
}
