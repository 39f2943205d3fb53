/** The frame of the shot that settings are about. */
import { create } from 'zustand';
import { playback, usePlayback } from './playback.ts';
import { shotTime, useShotTime } from './shot-time.ts';

/** How often settings follow while something plays, ms: nobody reads faster, and putting them up anew takes the picture's time. */
const READ_MS = 250;

/** The shot's playhead; while it plays, as it was a moment ago. */
export const useReadFrame = create<{ readonly frame: number }>(() => ({ frame: shotTime().frame }));

let timer: ReturnType<typeof setTimeout> | undefined;

function follow(): void {
  clearTimeout(timer);
  timer = undefined;
  useReadFrame.setState({ frame: shotTime().frame });
}

useShotTime.subscribe(() => {
  if (playback().playing) timer ??= setTimeout(follow, READ_MS);
  else follow();
});
usePlayback.subscribe((now, before) => {
  if (before.playing && !now.playing) follow();
});
