/** Each layer is drawn on with the brush, width and swatch it was last drawn on with. */
import type { Id } from '@tallow/core/document';
import { current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useDocument } from '../shot/document.ts';
import { atOpening } from '../shot/opening.ts';
import type { BrushName } from './brushes.ts';
import { held, setHeld } from './held.ts';

interface InHand {
  readonly brushName: BrushName;
  readonly width: number;
  readonly swatchId: Id | null;
}

const kept = new Map<Id, InHand>();
let last: Id | null = null;

/** Notes what a layer was drawn on with. */
export function drawnOn(layerId: Id): void {
  const { brushName, brushes, swatchId } = held();
  kept.set(layerId, { brushName, width: brushes[brushName].width, swatchId });
}

function follow(): void {
  const layerId = current()?.active?.layer.id ?? null;
  if (layerId === last) return;
  last = layerId;
  const own = layerId === null ? undefined : kept.get(layerId);
  if (!own) return;
  const { brushes } = held();
  const { brushName, width, swatchId } = own;
  const known = swatchId !== null && useDocument.getState().doc?.entities[swatchId]?.kind === 'swatch';
  setHeld({
    brushName,
    brushes: { ...brushes, [brushName]: { ...brushes[brushName], width } },
    ...(known ? { swatchId } : {}),
  });
}

/** Follows which layer is worked on, from now on. */
export function keepHandsByLayer(): () => void {
  last = current()?.active?.layer.id ?? null;
  return useSelection.subscribe((now, before) => {
    if (now.layerId !== before.layerId || now.elementId !== before.elementId) follow();
  });
}

atOpening(() => {
  kept.clear();
  last = null;
});
