/**
 * The marks of a drawing as one run of bytes, for keeping them elsewhere than in memory: a count of bytes, JSON in which
 * counts stand where columns belong, then the columns. As numbers lie on this machine, so the bytes are for this machine alone.
 */
import type { Id } from './id.ts';
import type { BrushSettings, Mark, Samples } from './mark-types.ts';

type Marks = Readonly<Record<Id, Mark>>;

/** What stands in the JSON for a mark: a stroke's samples and a shape's rings are counts of numbers. */
type PackedMark =
  | (Record<string, unknown> & {
      readonly kind: 'stroke' | 'rub';
      readonly brush: BrushSettings;
      readonly samples: number;
    })
  | (Record<string, unknown> & { readonly kind: 'shape'; readonly rings: readonly number[] });

const SAMPLES = ['x', 'y', 'pressure', 'altitude', 'azimuth'] as const;
const FLOAT = Float32Array.BYTES_PER_ELEMENT;
const SPACE = ' '.charCodeAt(0);

/** Packs marks. @returns the parts of the run in their order; columns are not copied. */
export function packedMarks(marks: Marks): (Uint8Array<ArrayBuffer> | Float32Array)[] {
  const columns: Float32Array[] = [];
  const put = (column: Float32Array): number => {
    columns.push(column);
    return column.length;
  };
  const packed = Object.values(marks).map((mark) => {
    if (mark.kind === 'shape') return { ...mark, rings: mark.rings.map(put) };
    for (const key of SAMPLES) put(mark.samples[key]);
    return { ...mark, samples: mark.samples.x.length };
  });
  const json = new TextEncoder().encode(JSON.stringify(packed));
  // Numbers begin where one may begin.
  const head = new Uint8Array(FLOAT + Math.ceil(json.length / FLOAT) * FLOAT).fill(SPACE);
  new DataView(head.buffer).setUint32(0, head.length - FLOAT);
  head.set(json, FLOAT);
  return [head, ...columns];
}

/** The marks that were packed to a run of bytes, exactly, each with memory of its own. @throws where the bytes are no such run. */
export function unpackedMarks(bytes: ArrayBuffer): Marks {
  const jsonLength = new DataView(bytes).getUint32(0);
  const packed = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, FLOAT, jsonLength))) as PackedMark[];
  let at = FLOAT + jsonLength;
  /** Numbers in a block of their own. */
  const next = (count: number): Float32Array => {
    const from = at;
    at += count * FLOAT;
    if (at > bytes.byteLength) throw new RangeError('The marks of a drawing are cut off');
    return new Float32Array(bytes.slice(from, at));
  };
  const samplesOf = (count: number): Samples => {
    const block = next(SAMPLES.length * count);
    const column = (i: number): Float32Array => block.subarray(i * count, (i + 1) * count);
    return { x: column(0), y: column(1), pressure: column(2), altitude: column(3), azimuth: column(4) };
  };
  const marks: Record<Id, Mark> = {};
  for (const each of packed) {
    const mark = (each.kind === 'shape'
      ? { ...each, rings: each.rings.map(next) }
      : { ...each, samples: samplesOf(each.samples) }) as unknown as Mark;
    marks[mark.id] = mark;
  }
  return marks;
}

/** What a mark takes beside its numbers, roughly, bytes. */
const MARK_BYTES = 800;

/** Roughly how much memory marks take, bytes. */
export function bytesOfMarks(marks: Marks): number {
  let bytes = 0;
  for (const mark of Object.values(marks)) {
    const numbers =
      mark.kind === 'shape'
        ? mark.rings.reduce((sum, ring) => sum + ring.length, 0)
        : SAMPLES.length * mark.samples.x.length;
    bytes += MARK_BYTES + FLOAT * numbers;
  }
  return bytes;
}
