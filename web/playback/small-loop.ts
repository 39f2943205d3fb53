/** Small loops that run beside the work: they wake when a frame is due, not with every refresh of the screen. */

/** ms between looks where nothing is due by itself: what is shown then follows the playhead. */
const LOOK_MS = 50;

/** How long a loop rests after a time of the page's clock, ms. @param rate frames a second that it shows. */
export const untilNextFrame = (time: number, rate: number): number => {
  const period = 1000 / rate;
  return period - (time % period);
};

/**
 * Runs a loop until it is stopped.
 * @param tick shows what is due at a time of the page's clock, ms, and says what comes next: frames a second, `follows` where it
 * shows what the playhead is on, `refresh` where it changes with each refresh of the screen.
 * @returns how to stop it.
 */
export function runSmallLoop(tick: (time: number) => number | 'follows' | 'refresh'): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let refresh = 0;
  const next = (): void => {
    const now = performance.now();
    const then = tick(now);
    if (then === 'refresh') refresh = requestAnimationFrame(next);
    else timer = setTimeout(next, then === 'follows' ? LOOK_MS : Math.ceil(untilNextFrame(performance.now(), then)));
  };
  refresh = requestAnimationFrame(next);
  return () => {
    clearTimeout(timer);
    cancelAnimationFrame(refresh);
  };
}
