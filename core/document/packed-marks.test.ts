import fc from 'fast-check';
import { bytesOfMarks, packedMarks, same, unpackedMarks, type Mark } from './index.ts';

const id = fc.uuid();
/** Any bits of a float that is a number: what comes back is the very same. */
const float = fc.float({ noNaN: true, noDefaultInfinity: true });
const column = (count: number) =>
  fc.array(float, { minLength: count, maxLength: count }).map((n) => Float32Array.from(n));
const samples = fc
  .integer({ min: 1, max: 40 })
  .chain((n) =>
    fc.record({ x: column(n), y: column(n), pressure: column(n), altitude: column(n), azimuth: column(n) }),
  );
const brush = fc.record(
  {
    kind: fc.constantFrom('ink' as const, 'pencil' as const, 'grain' as const, 'haze' as const),
    version: fc.integer({ min: 1, max: 9 }),
    width: fc.double({ min: 0.1, max: 2000, noNaN: true }),
    opacity: fc.double({ min: 0, max: 1, noNaN: true }).map(Math.abs),
    pressure: fc.boolean(),
    taper: fc.tuple(fc.nat(), fc.nat()),
  },
  { requiredKeys: ['kind', 'width', 'opacity', 'pressure'] },
);
const lays = fc.constantFrom('behind' as const, 'inside' as const);
const mark: fc.Arbitrary<Mark> = fc.oneof(
  fc.record(
    { kind: fc.constant('stroke' as const), id, swatch: id, brush, seed: fc.nat(), samples, lays, piece: fc.string() },
    { requiredKeys: ['kind', 'id', 'swatch', 'brush', 'seed', 'samples'] },
  ),
  fc.record({ kind: fc.constant('rub' as const), id, brush, seed: fc.nat(), samples }),
  fc.record({
    kind: fc.constant('shape' as const),
    id,
    swatch: id,
    rings: fc.array(
      fc.integer({ min: 2, max: 9 }).chain((n) => column(6 * n)),
      { minLength: 1, maxLength: 4 },
    ),
    rule: fc.constantFrom('evenodd' as const, 'nonzero' as const),
    opacity: fc.double({ min: 0, max: 1, noNaN: true }).map(Math.abs),
    piece: fc.constant('火 “lick”'),
  }),
) as fc.Arbitrary<Mark>;
const marks = fc.array(mark, { maxLength: 6 }).map((list) => Object.fromEntries(list.map((each) => [each.id, each])));

const runOf = (parts: ReturnType<typeof packedMarks>): ArrayBuffer => {
  const bytes = parts.map(({ buffer, byteOffset, byteLength }) => new Uint8Array(buffer, byteOffset, byteLength));
  return Uint8Array.from(bytes.flatMap((part) => [...part])).buffer;
};

test('marks come back exactly, in their order, whatever they are', () => {
  fc.assert(
    fc.property(marks, (given) => {
      const back = unpackedMarks(runOf(packedMarks(given)));
      expect(Object.keys(back)).toEqual(Object.keys(given));
      expect(same(back, given)).toBe(true);
    }),
  );
});

test('a mark that comes back shares its memory with no other mark', () => {
  fc.assert(
    fc.property(marks, (given) => {
      const blocks = Object.values(unpackedMarks(runOf(packedMarks(given)))).map((each) =>
        each.kind === 'shape' ? each.rings.map(({ buffer }) => buffer) : [each.samples.x.buffer],
      );
      expect(new Set(blocks.flat()).size).toBe(blocks.flat().length);
    }),
  );
});

test('a run that is cut off is refused', () => {
  fc.assert(
    fc.property(
      marks.filter((given) => Object.keys(given).length > 0),
      fc.integer({ min: 1, max: 40 }),
      (given, less) => {
        const run = runOf(packedMarks(given));
        expect(() => unpackedMarks(run.slice(0, Math.max(0, run.byteLength - less)))).toThrow();
      },
    ),
  );
});

test('what marks take grows with their numbers, four bytes each', () => {
  const of = (count: number): number => {
    const numbers = new Float32Array(count);
    const all = { x: numbers, y: numbers, pressure: numbers, altitude: numbers, azimuth: numbers };
    const set = { kind: 'ink', width: 4, opacity: 1, pressure: true } as const;
    return bytesOfMarks({ a: { kind: 'stroke', id: 'a', swatch: 's', brush: set, seed: 0, samples: all } });
  };
  expect(of(300) - of(200)).toBe(100 * 5 * 4);
});
