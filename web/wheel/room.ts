/** How much room the wheel has: as much as is set by hand, else what the layers or settings under it leave. */
import { useSyncExternalStore } from 'react';
import { useCurrent } from '../selection/current.ts';
import { useReferences } from '../references/references.ts';
import { useScreen } from '../screen/screen.ts';
import { useToolState } from '../hand/tool-state.ts';
import { WHEEL } from './dial.ts';

/** Smallest and largest, against the usual size. */
export const [MIN, MAX] = [0.5, 1] as const;
/** CSS px of the window that the bar on top, the column's head, the buttons of time and the edges take. */
const BESIDES = 188;
/** Height of a layer's row, of what stands round the rows, and how many are seen before the wheel has its usual size. */
const ROW = 26;
const ROUND = 74;
const ROWS = 8;
/** Height that the settings of what is active are given, CSS px. */
const SETTINGS = 384;

const watch = (told: () => void): (() => void) => {
  addEventListener('resize', told);
  return () => {
    removeEventListener('resize', told);
  };
};
const heightNow = (): number => innerHeight;

/** The size of the wheel that leaves so much below it. @param below CSS px. */
export const scaleOver = (height: number, below: number): number =>
  Math.min(MAX, Math.max(MIN, (height - BESIDES - below) / WHEEL.size));

/** Height that the wheel may take beside what is to be seen under it, CSS px. */
function useHeightOver(): number {
  const height = useSyncExternalStore(watch, heightNow);
  const isActive = useToolState((s) => s.brushShown || (s.activeTool?.hasPanel ?? false));
  const panel = useScreen((s) => s.panel !== null);
  const references = useReferences((s) => s.shown);
  const now = useCurrent();
  const folders = now?.element.layers.filter((id) => now.doc.entities[id]?.kind === 'folder').length ?? 0;
  const rows = folders + (now?.layers.length ?? 0);
  return height - BESIDES - (isActive || panel || references ? SETTINGS : ROUND + ROW * Math.min(ROWS, rows));
}

/** The wheel's size against its usual one. */
export function useWheelScale(): number {
  const height = useSyncExternalStore(watch, heightNow);
  const byHand = useScreen((s) => s.wheelScale);
  const own = Math.min(MAX, Math.max(MIN, useHeightOver() / WHEEL.size));
  return byHand === null ? own : Math.min(byHand, scaleOver(height, ROUND + ROW));
}

/** px that a sheet needs beside its frames more than the disc. */
const SHEET_BESIDES = 18;

/** Height of a sheet in the wheel's place, CSS px: as much as is left, unless set by hand. */
export function useSheetHeight(): number {
  const byHand = useScreen((s) => s.wheelScale !== null);
  const [over, scale] = [useHeightOver(), useWheelScale()];
  return Math.max(MIN * WHEEL.size, byHand ? scale * WHEEL.size : over - SHEET_BESIDES);
}
