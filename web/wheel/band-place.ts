/** Which part of the unrolled wheel is seen. One place for all elements: it follows the playhead. */
import { useLayoutEffect, useMemo } from 'react';
import { create } from 'zustand';
import { playback } from '../playback/playback.ts';
import { selection, useSelection } from '../selection/selection.ts';
import { bandShowing, bandTurned, frameWidth, framesSeen, type Band } from './band.ts';

/** Frame at the left edge. */
const usePlace = create<{ from: number }>()(() => ({ from: 0 }));

/** Brings the playhead in sight: by as little as needed, and by whole pages while the shot plays, so that the band stands still between them. */
function follow(length: number): void {
  const { from } = usePlace.getState();
  const showing = playback().playing ? bandTurned : bandShowing;
  const band = showing(length, from, Math.min(selection().frame, length - 1));
  if (band.from !== from) usePlace.setState({ from: band.from });
}

/** Puts a frame at the left edge; the band stays there until the playhead moves. */
export function scrollBand(length: number, from: number): void {
  usePlace.setState({ from: Math.min(Math.max(0, from), length - framesSeen(length)) });
}

/** The band of an element of so many frames; another one only where it was scrolled. */
export function useBand(length: number): Band {
  const kept = usePlace((s) => s.from);
  useLayoutEffect(() => {
    follow(length);
    return useSelection.subscribe((now, before) => {
      if (now.frame !== before.frame) follow(length);
    });
  }, [length]);
  const from = Math.min(kept, length - framesSeen(length));
  return useMemo(() => ({ length, perFrame: frameWidth(length), from }), [length, from]);
}
