/** Connected components, four ways: runs of each row joined to those of the row above (union-find). */

/**
 * Writes a number from `first` on into `labels` for every area of pixels for which `bits` is `wanted`; others are left.
 * @returns the last number given. Numbers rise in the order in which areas are met.
 */
export function labelComponents(
  bits: Uint8Array,
  wanted: number,
  width: number,
  height: number,
  labels: Int32Array,
  first: number,
): number {
  const starts: number[] = [];
  const ends: number[] = [];
  const parent: number[] = [];
  const root = (run: number): number => {
    let at = run;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at]!]!;
      at = parent[at]!;
    }
    return at;
  };
  let [above, aboveEnd] = [0, 0];
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const begin = starts.length;
    for (let x = 0; x < width; x++) {
      if (bits[row + x] !== wanted) continue;
      const from = x;
      while (x < width && bits[row + x] === wanted) x++;
      const run = starts.length;
      starts.push(row + from);
      ends.push(row + x);
      parent.push(run);
      while (above < aboveEnd && ends[above]! - row + width <= from) above++;
      for (let other = above; other < aboveEnd && starts[other]! - row + width < x; other++) {
        const [a, b] = [root(run), root(other)];
        if (a < b) parent[b] = a;
        else if (b < a) parent[a] = b;
      }
    }
    [above, aboveEnd] = [begin, starts.length];
  }
  const numbers = new Int32Array(starts.length);
  let last = first - 1;
  for (let run = 0; run < starts.length; run++) {
    const own = root(run);
    if (numbers[own] === 0) numbers[own] = ++last;
    labels.fill(numbers[own]!, starts[run], ends[run]);
  }
  return last;
}
