/**
 * The numbers of a drawing beside its JSON: little-endian 32-bit floats, mark by mark in its order. A stroke or rub has
 * x, y, pressure, altitude and azimuth, one after another; a shape its rings. The JSON says how many there are of each.
 */
type Json = Readonly<Record<string, unknown>>;

const SAMPLES = ['x', 'y', 'pressure', 'altitude', 'azimuth'] as const;

const isJson = (value: unknown): value is Json => typeof value === 'object' && value !== null && !Array.isArray(value);

/** A mark with each of its columns put through a change, in their order. */
function markWith(mark: unknown, change: (column: unknown) => unknown): unknown {
  if (!isJson(mark)) return mark;
  if (Array.isArray(mark['rings'])) return { ...mark, rings: mark['rings'].map(change) };
  const { samples } = mark;
  return isJson(samples)
    ? { ...mark, samples: Object.fromEntries(SAMPLES.map((key) => [key, change(samples[key])])) }
    : mark;
}

/** A body with each of its columns put through a change; itself where it has no marks. */
function bodyWith(body: Json, change: (column: unknown) => unknown): Json {
  const { kind, marks, order } = body;
  if (kind !== 'drawing' || !isJson(marks) || !Array.isArray(order)) return body;
  return { ...body, marks: Object.fromEntries(order.map((id: string) => [id, markWith(marks[id], change)])) };
}

/** A body as it is stored, parted into what stands in JSON and its columns. */
export function withoutColumns(body: Json): { json: Json; columns: Buffer } {
  const parts: Buffer[] = [];
  const json = bodyWith(body, (text) => {
    const column = Buffer.from(String(text), 'base64');
    parts.push(column);
    return column.length / 4;
  });
  return { json, columns: Buffer.concat(parts) };
}

/** The body again. @throws where the columns are not as long as the JSON says. */
export function withArchivedColumns(json: Json, columns: Buffer): Json {
  let at = 0;
  const body = bodyWith(json, (count) => {
    if (typeof count !== 'number' || !Number.isInteger(count) || count < 0 || at + count * 4 > columns.length)
      throw new Error('there are fewer numbers than it says');
    const column = columns.subarray(at, at + count * 4);
    at += count * 4;
    return column.toString('base64');
  });
  if (at !== columns.length) throw new Error('there are more numbers than it says');
  return body;
}
