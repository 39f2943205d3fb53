/** Whether a loop flashes more than is safe to show unasked (WCAG 2.2, success criterion 2.3.1, general flash). */

/** Flashes in one second above which a loop is not played unasked. */
export const SAFE_FLASHES = 3;
const CHANGE = 0.1;
const DARK = 0.8;
const AREA = 0.25;

/**
 * Counts general flashes: pairs of opposing changes of relative luminance of a tenth or more, the darker
 * below 0.8, over a quarter of the picture at least.
 * @param frames relative luminance (0 to 1) of the cells of each frame of a loop, all of one length.
 * @param rate frames per second.
 * @returns the most flashes within any one second of the loop played round and round.
 */
export function flashesPerSecond(frames: readonly Float32Array[], rate: number): number {
  const cells = frames[0]?.length ?? 0;
  if (frames.length < 2 || cells === 0) return 0;
  // Each cell remembers the extreme since its last large change, and which way that change went.
  const extreme = Float32Array.from(frames[0]!);
  const way = new Int8Array(cells);
  const turns: { at: number; way: number }[] = [];
  let last = 0;
  const span = Math.max(frames.length, Math.ceil(rate)) + frames.length;
  for (let i = 1; i <= span; i++) {
    const frame = frames[i % frames.length]!;
    const changed = { up: 0, down: 0 };
    for (let c = 0; c < cells; c++) {
      const [now, was] = [frame[c]!, extreme[c]!];
      const rises = now > was;
      if (Math.abs(now - was) >= CHANGE && Math.min(now, was) < DARK && way[c] !== (rises ? 1 : -1)) {
        way[c] = rises ? 1 : -1;
        extreme[c] = now;
        changed[rises ? 'up' : 'down'] += 1;
      } else if (way[c] === 0 || rises === way[c]! > 0) {
        if (way[c] !== 0) extreme[c] = now;
      }
    }
    const turn = changed.up >= cells * AREA ? 1 : changed.down >= cells * AREA ? -1 : 0;
    if (turn !== 0 && turn !== last) {
      turns.push({ at: i, way: turn });
      last = turn;
    }
  }
  let max = 0;
  turns.forEach((from, i) => {
    const within = turns.filter((turn, k) => k >= i && turn.at - from.at < rate).length;
    max = Math.max(max, Math.floor(within / 2));
  });
  return max;
}
