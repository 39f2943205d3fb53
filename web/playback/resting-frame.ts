/** The frame that buttons are about. */
import { useRef } from 'react';
import { useSelection } from '../selection/selection.ts';
import { usePlayback } from './playback.ts';

/** The playhead's frame; while something plays, the one it stood on before: nobody reads 24 times a second what a button would do. */
export function useRestingFrame(): number {
  const rested = useRef(0);
  const playing = usePlayback((s) => s.playing);
  return useSelection((s) => {
    if (!playing) rested.current = s.frame;
    return rested.current;
  });
}
