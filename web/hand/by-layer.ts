/** Each layer is drawn on with the brush, width and swatch it was last drawn on with, on later days too. */
import type { Id } from '@tallow/core/document';
import { recall, remember } from '../memory/memory.ts';
import { current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useDocument } from '../shot/document.ts';
import { atOpening } from '../shot/opening.ts';
import { BRUSH_NAMES, type BrushName } from './brushes.ts';
import { toolState, setToolState } from './tool-state.ts';

interface LayerTool {
  readonly brushName: BrushName;
  readonly width: number;
  readonly swatchId: Id | null;
}

const NAME = 'tallow-hands';
/** Layers remembered, the ones drawn on last. */
const MAX = 200;
/** Widths a stroke may have, px: with another the server would refuse it. */
const WIDTHS = { min: 0.1, max: 2000 } as const;

/** What this browser remembers of layers; whatever else is there is passed over. */
function recalled(): Map<Id, LayerTool> {
  const read = recall(NAME);
  const entries = Array.isArray(read) ? (read as unknown[]).filter(isEntry) : [];
  return new Map(entries.slice(-MAX));
}

function isEntry(entry: unknown): entry is [Id, LayerTool] {
  if (!Array.isArray(entry) || typeof entry[0] !== 'string') return false;
  const { brushName, width, swatchId } = (entry[1] ?? {}) as Partial<Record<keyof LayerTool, unknown>>;
  const hasBrush =
    BRUSH_NAMES.some((name) => name === brushName) &&
    typeof width === 'number' &&
    width >= WIDTHS.min &&
    width <= WIDTHS.max;
  return hasBrush && (swatchId === null || typeof swatchId === 'string');
}

const kept = recalled();
let last: Id | null = null;

/** Notes what a layer was drawn on with. */
export function drawnOn(layerId: Id): void {
  const { brushName, brushes, swatchId } = toolState();
  const { width } = brushes[brushName];
  const before = kept.get(layerId);
  if (before?.brushName === brushName && before.width === width && before.swatchId === swatchId) return;
  const own = { brushName, width, swatchId };
  kept.set(layerId, own);
  // Another tab may have noted others meanwhile. Put in anew, this one is the last of them.
  const all = recalled();
  all.delete(layerId);
  all.set(layerId, own);
  remember(NAME, [...all].slice(-MAX));
}

function follow(): void {
  const layerId = current()?.active?.layer.id ?? null;
  if (layerId === last) return;
  last = layerId;
  const own = layerId === null ? undefined : kept.get(layerId);
  if (!own) return;
  const { brushes } = toolState();
  const { brushName, width, swatchId } = own;
  const known = swatchId !== null && useDocument.getState().doc?.entities[swatchId]?.kind === 'swatch';
  setToolState({
    brushName,
    brushes: { ...brushes, [brushName]: { ...brushes[brushName], width } },
    ...(known ? { swatchId } : {}),
  });
}

/** Follows which layer is worked on, from now on; a shot that has just been opened begins with the hand of its own layer. */
export function keepHandsByLayer(): () => void {
  follow();
  return useSelection.subscribe((now, before) => {
    if (now.layerId !== before.layerId || now.elementId !== before.elementId) follow();
  });
}

atOpening(() => {
  last = null;
});
