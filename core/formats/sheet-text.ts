/** Exposure sheets as text: read back from comma, semicolon or tab separated lines. */
import { HIGHEST_NUMBER } from '../edit/index.ts';

interface ReadSheet {
  /** A column for each layer, by its head. */
  readonly columns: readonly { readonly name: string; readonly numbers: readonly (number | null)[] }[];
}

const MAX_FRAMES = 10_000;
/** Cells that say nothing is shown, besides an empty one. */
const NOTHING = new Set(['x', '0']);
/** Cells that hold the drawing before on. */
const HELD = new Set(['-', '|', '"']);

/** The cells of a line; quotes as in RFC 4180. */
function cellsOf(line: string, separator: string): string[] {
  const cells: string[] = [];
  let [cell, quoted] = ['', false];
  for (let i = 0; i < line.length; i++) {
    const c = line[i]!;
    if (quoted && c === '"' && line[i + 1] === '"') {
      cell += '"';
      i += 1;
    } else if (c === '"' && (quoted || cell === '')) quoted = !quoted;
    else if (c === separator && !quoted) {
      cells.push(cell);
      cell = '';
    } else cell += c;
  }
  return [...cells, cell].map((each) => each.trim());
}

/** Reads a sheet, or says what is wrong and on which line. A frame a line, a layer a column, the first column counts frames. */
export function readSheet(text: string): { ok: ReadSheet } | { problem: string } {
  const lines = text.replace(/^\uFEFF/, '').split(/\r?\n/);
  while (lines.at(-1)?.trim() === '') lines.pop();
  const [head, ...rows] = lines;
  if (head === undefined || rows.length === 0) return { problem: 'There is no frame in this sheet.' };
  if (rows.length > MAX_FRAMES) return { problem: `This sheet has ${rows.length} frames; ${MAX_FRAMES} is the most.` };
  const separator = [',', ';', '\t'].reduce((best, each) =>
    cellsOf(head, each).length > cellsOf(head, best).length ? each : best,
  );
  const names = cellsOf(head, separator);
  if (names.length < 2) return { problem: 'Line 1 names no layer beside the frames.' };
  const columns = names.slice(1).map((name) => ({ name: name.replace(/^'/, ''), numbers: [] as (number | null)[] }));
  for (const [i, row] of rows.entries()) {
    const at = `Line ${i + 2}`;
    const cells = cellsOf(row, separator);
    if (Number(cells[0]) !== i + Number(cellsOf(rows[0]!, separator)[0]))
      return {
        problem: `${at} must be of frame ${i + Number(cellsOf(rows[0]!, separator)[0])}: frames follow each other.`,
      };
    for (const [k, column] of columns.entries()) {
      const cell = (cells[k + 1] ?? '').toLowerCase();
      const number = Number(cell);
      if (cell === '' || NOTHING.has(cell)) column.numbers.push(null);
      else if (HELD.has(cell)) column.numbers.push(column.numbers.at(-1) ?? null);
      else if (/^\d+$/.test(cell) && number <= HIGHEST_NUMBER) column.numbers.push(number);
      else return { problem: `${at}, ${column.name}: “${cell.slice(0, 20)}” is no number of a drawing.` };
    }
  }
  return { ok: { columns } };
}
