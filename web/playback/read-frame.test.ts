/** Settings follow the playhead at once while nothing plays, and a few times a second while it does. */
import { setPlayback, stopPlaying } from './playback.ts';
import { useReadFrame } from './read-frame.ts';
import { useShotTime } from './shot-time.ts';

const read = (): number => useReadFrame.getState().frame;
const go = (frame: number): void => {
  useShotTime.setState({ frame });
};

beforeEach(() => {
  stopPlaying();
});

test('while nothing plays it is the playhead', () => {
  for (const frame of [3, 9, 4]) {
    go(frame);
    expect(read()).toBe(frame);
  }
});

test('while it plays it follows later, and to where the playhead is by then', async () => {
  go(1);
  setPlayback({ playing: true });
  const seen: number[] = [];
  const unlisten = useReadFrame.subscribe(({ frame }) => seen.push(frame));
  for (let frame = 2; frame < 8; frame++) go(frame);
  expect(read()).toBe(1);
  while (seen.length === 0) await new Promise((next) => setTimeout(next, 5));
  unlisten();
  expect(seen).toEqual([7]);
});

test('where it stops it is the playhead at once', () => {
  setPlayback({ playing: true });
  go(20);
  stopPlaying();
  expect(read()).toBe(20);
});
