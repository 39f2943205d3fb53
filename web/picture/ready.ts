/** Which frames of the active element are drawn and would play at once; shown on the wheel's rim. */
import { useMemo } from 'react';
import { create } from 'zustand';
import type { Id } from '@tallow/core/document';

export const useReady = create<{
  readonly elementId: Id;
  readonly frames: readonly number[];
  /** The same of the shot, while all of it is what would be played. */
  readonly shotFrames: readonly number[];
}>(() => ({ elementId: '', frames: [], shotFrames: [] }));

/** Stretches of frames that are ready, each from its first to one past its last. */
export function useReadySpans(elementId: Id): readonly (readonly [number, number])[] {
  const ready = useReady();
  return useMemo(() => {
    const spans: [number, number][] = [];
    for (const frame of ready.elementId === elementId ? ready.frames : []) {
      const last = spans.at(-1);
      if (last?.[1] === frame) last[1] = frame + 1;
      else spans.push([frame, frame + 1]);
    }
    return spans;
  }, [ready, elementId]);
}
