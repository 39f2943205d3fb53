/** What is heard: whether the page makes any sound, and the moment that is heard when the playhead goes to another frame. */
import { shotOf } from '@tallow/core/document';
import { create } from 'zustand';
import { playback } from '../playback/playback.ts';
import { shotFrameNow, useShotTime } from '../playback/shot-time.ts';
import { useSelection } from '../selection/selection.ts';
import { useDocument } from '../shot/document.ts';
import { ear } from './ear.ts';

/** Whether the page is silent. */
export const useHearing = create<{ readonly muted: boolean }>(() => ({ muted: false }));
useHearing.subscribe(({ muted }) => {
  ear.mute(muted);
});

export const setMuted = (muted: boolean): void => {
  useHearing.setState({ muted });
};

/** Lets each frame that is gone to be heard, for as long as a shot is open. @returns what ends it. */
export function listen(): () => void {
  let last = shotFrameNow();
  const moved = (): void => {
    const frame = shotFrameNow();
    if (frame === last) return;
    last = frame;
    const { doc } = useDocument.getState();
    if (doc && !playback().playing) ear.glimpse(doc, frame, shotOf(doc).rate);
  };
  const ends = [useShotTime.subscribe(moved), useSelection.subscribe(moved)];
  return () => {
    for (const end of ends) end();
    ear.end();
  };
}
