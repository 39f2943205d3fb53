/** Points that were set by taps of a stroke that goes on, in the active layer's space. */
import type { Point } from '@tallow/core/geometry';
import { create } from 'zustand';

export const usePoints = create<{ readonly points: readonly Point[] }>(() => ({ points: [] }));

export function setPoints(points: readonly Point[]): void {
  if (usePoints.getState().points !== points) usePoints.setState({ points });
}
