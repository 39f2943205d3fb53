/**
 * The cheapest pairing of rows with columns, each at most once.
 * Method: the Hungarian algorithm with potentials and shortest augmenting paths (H. W. Kuhn, 1955; J. Edmonds
 * and R. Karp, 1972), O(rows² columns).
 * @param cost row by row. There must be no more rows than columns. @returns the column of each row.
 */
export function assign(cost: Float64Array, rows: number, columns: number): Int32Array {
  const [u, v] = [new Float64Array(rows + 1), new Float64Array(columns + 1)];
  const rowOf = new Int32Array(columns + 1);
  const way = new Int32Array(columns + 1);
  const min = new Float64Array(columns + 1);
  const used = new Uint8Array(columns + 1);
  for (let row = 1; row <= rows; row++) {
    rowOf[0] = row;
    min.fill(Infinity);
    used.fill(0);
    let at = 0;
    do {
      used[at] = 1;
      const from = rowOf[at]!;
      const base = (from - 1) * columns - 1;
      let [delta, next] = [Infinity, 0];
      for (let column = 1; column <= columns; column++) {
        if (used[column]) continue;
        const reduced = cost[base + column]! - u[from]! - v[column]!;
        if (reduced < min[column]!) {
          min[column] = reduced;
          way[column] = at;
        }
        if (min[column]! < delta) {
          delta = min[column]!;
          next = column;
        }
      }
      for (let column = 0; column <= columns; column++) {
        if (used[column]) {
          u[rowOf[column]!]! += delta;
          v[column]! -= delta;
        } else min[column]! -= delta;
      }
      at = next;
    } while (rowOf[at] !== 0);
    do {
      const before = way[at]!;
      rowOf[at] = rowOf[before]!;
      at = before;
    } while (at !== 0);
  }
  const found = new Int32Array(rows).fill(-1);
  for (let column = 1; column <= columns; column++) if (rowOf[column]! > 0) found[rowOf[column]! - 1] = column - 1;
  return found;
}
