import fc from 'fast-check';
import type { Mark } from '../../document/index.ts';
import { apply, ringPoints, seededIds, type Point } from '../../geometry/index.ts';
import { Defs, marksText } from './marks.ts';
import { matrixOf } from './style.ts';
import { svgLength } from './paths.ts';
import { readSvg, type SvgMarks } from './read.ts';
import type { SvgNode } from './tree.ts';

const newId = seededIds(11);

/** A node; lines of our own SVG are paths alone. */
const node = (name: string, attributes: Record<string, string> = {}, ...children: SvgNode[]): SvgNode => ({
  name,
  attributes,
  children,
  text: '',
});
const svg = (...children: SvgNode[]): SvgNode => node('svg', { viewBox: '0 0 200 100' }, ...children);
const parsed = (line: string): SvgNode =>
  node('path', Object.fromEntries([...line.matchAll(/([\w-]+)="([^"]*)"/g)].map(([, key, value]) => [key!, value!])));
const only = ({ layers }: SvgMarks) => layers[0]!.marks[0]!;
const pointsOf = (mark: Pick<Mark, 'kind'> & Partial<Mark>): Point[] => {
  if (mark.kind === 'shape') return ringPoints((mark as unknown as { rings: Float32Array[] }).rings[0]!, 8);
  const { x, y } = (mark as unknown as { samples: { x: Float32Array; y: Float32Array } }).samples;
  return Array.from(x, (v, i) => ({ x: v, y: y[i]! }));
};
const nearest = (p: Point, all: readonly Point[]): number => {
  let min = Infinity;
  for (let i = 0; i < all.length - 1; i++) {
    const [a, b] = [all[i]!, all[i + 1]!];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const t = Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1)));
    min = Math.min(min, Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy));
  }
  return min;
};

test('what was taken away as SVG comes back as shapes and strokes, within a tenth of a px', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 })), {
        minLength: 3,
        maxLength: 14,
      }),
      fc.boolean(),
      (places, isLine) => {
        // A dot is a disc in SVG, and comes back as one.
        fc.pre(places.some(([x, y]) => x !== places[0]![0] || y !== places[0]![1]));
        const n = places.length;
        const columns = (of: (i: number) => number) => Float32Array.from({ length: n }, (_, i) => of(i));
        const base = { id: newId(), swatch: 'a' };
        const mark: Mark = isLine
          ? {
              ...base,
              kind: 'stroke',
              seed: 1,
              brush: { kind: 'ink', width: 8, opacity: 1, pressure: false },
              samples: {
                x: columns((i) => places[i]![0]),
                y: columns((i) => places[i]![1]),
                pressure: columns(() => 1),
                altitude: columns(() => 1.5),
                azimuth: columns(() => 0),
              },
            }
          : {
              ...base,
              kind: 'shape',
              rule: 'nonzero',
              opacity: 1,
              rings: [Float32Array.from(places.flatMap(([x, y]) => [x, y, x - 9, y + 4, x + 9, y - 4]))],
            };
        const write = (one: Mark) =>
          marksText({ order: [one.id], marks: { [one.id]: one } }, () => '#123456', new Defs());
        const text = write(mark);
        const came = only(readSvg(svg(parsed(text))));
        expect(came).toMatchObject({ kind: mark.kind, colour: '#123456' });
        const again = { ...came, id: mark.id, swatch: 'a' } as unknown as Mark;
        // Held against what is seen of the first: its own path.
        const drawn = (of: string) => pointsOf(only(readSvg(svg(parsed(of)))));
        const [before, after] = [drawn(text), drawn(write(again))];
        for (const p of before.filter((_, i) => i % 7 === 0))
          expect(nearest(p, [...after, after[0]!])).toBeLessThan(0.1);
        for (const p of after.filter((_, i) => i % 7 === 0))
          expect(nearest(p, [...before, before[0]!])).toBeLessThan(0.1);
      },
    ),
    // Many slight bends in a row: what runs through them smoothly strays the most.
    {
      numRuns: 24,
      examples: [
        [
          [
            [138, 300],
            [-181, 80],
            [-182, 122],
            [141, 175],
            [224, 11],
            [-54, 237],
            [-268, -186],
            [99, -86],
            [189, 24],
            [115, -200],
            [288, -211],
            [-232, 172],
            [216, 136],
          ],
          true,
        ],
      ],
    },
  );
});

test('groups become layers, nested ones lie in theirs; what lies loose has one of its own', () => {
  const path = (d: string) => node('path', { d });
  const read = readSvg(
    svg(
      node('g', { 'data-name': 'Back' }, path('M0 0h9v9z'), node('g', { id: 'inner' }, path('M1 1h9v9z'))),
      path('M2 2h9v9z'),
      node('g', { id: 'front' }, node('circle', { cx: '5', cy: '5', r: '4' })),
      node('g', { id: 'nothing' }),
    ),
  );
  expect(read.layers.map(({ name, marks }) => [name, marks.length])).toEqual([
    ['Back', 2],
    ['Shapes', 1],
    ['front', 1],
  ]);
});

test('paint comes from attributes, styles, classes and what is round it', () => {
  const style: SvgNode = { ...node('style'), text: '.a, .b { fill: rgb(255 0 0); } #c{stroke:#0f0;stroke-width:2mm}' };
  const rect = (more: Record<string, string>) => node('rect', { width: '9', height: '9', ...more });
  const colours = (...nodes: SvgNode[]) => readSvg(svg(style, ...nodes)).layers[0]!.marks.map(({ colour }) => colour);
  expect(colours(rect({ class: 'b' }))).toEqual(['#ff0000']);
  expect(colours(rect({ id: 'c', fill: 'none' }))).toEqual(['#00ff00']);
  expect(colours(node('g', { fill: 'navy' }, rect({}), rect({ style: 'fill: white' })))).toEqual([
    '#000080',
    '#ffffff',
  ]);
  const faded = readSvg(svg(node('g', { opacity: '0.5' }, rect({ 'fill-opacity': '50%' })))).layers[0]!.marks[0];
  expect(faded).toMatchObject({ opacity: 0.25 });
  expect(() => readSvg(svg(rect({ display: 'none' }), rect({ fill: 'none' })))).toThrow('no shape and no line');
});

test('transforms put things where they are seen, widths with them', () => {
  expect(apply(matrixOf('translate(10) rotate(90, 5, 5) scale(2)'), { x: 1, y: 0 })).toEqual({
    x: 10 + 5 + 5,
    y: expect.closeTo(2, 9) as number,
  });
  expect(matrixOf('nonsense(1) matrix(1 2 3)')).toEqual([1, 0, 0, 1, 0, 0]);
  const line = node('line', { x1: '0', y1: '0', x2: '10', y2: '0', stroke: 'red', transform: 'scale(3)' });
  const stroke = only(readSvg(svg(line)));
  expect(stroke).toMatchObject({ kind: 'stroke', brush: { width: 3 } });
  expect(pointsOf(stroke).at(-1)!.x).toBeCloseTo(30, 4);
  const used = node('use', { href: '#d', x: '50', y: '20' });
  const defs = node('defs', {}, node('rect', { id: 'd', width: '10', height: '10' }));
  expect(pointsOf(only(readSvg(svg(defs, used))))[0]).toEqual({ x: 50, y: 20 });
  expect([svgLength('1in'), svgLength('2.5px'), svgLength('10%', 7), svgLength('x')]).toEqual([96, 2.5, 7, 0]);
});

test('what cannot be a mark is told; what is hostile is refused, and ends', () => {
  const path = node('path', { d: 'M0 0h9v9z', filter: 'url(#f)' });
  const read = readSvg(svg(path, node('text'), node('text'), node('image'), node('path', { d: 'what?' })));
  expect(read.left).toEqual(['filter', '2 × text', 'picture', 'path that cannot be read']);
  let deep = node('g');
  for (let i = 0; i < 200; i++) deep = node('g', {}, deep);
  expect(() => readSvg(svg(deep))).toThrow('nested more than 100 deep');
  const many = Array.from({ length: 100_001 }, () => node('g'));
  expect(() => readSvg({ ...svg(), children: many })).toThrow('more than 100000 things');
  const round = node('g', { id: 'r' }, node('use', { href: '#r' }), node('path', { d: 'M0 0h9v9z' }));
  expect(readSvg(svg(round)).left[0]).toMatch(/use of something/);
  expect(() => readSvg(node('html'))).toThrow('no SVG');
  const far = node('path', { d: 'M0 0C1e9 0 0 1e9 9 9', stroke: 'red', fill: 'none' });
  expect(readSvg(svg(far, node('path', { d: 'M0 0h9v9z' }))).left).toEqual(['shape far outside the picture']);
  const long = node('path', { d: `M0 0${'C9000 0 0 9000 9 9'.repeat(9000)}`, stroke: 'red', fill: 'none' });
  expect(() => readSvg(svg(long))).toThrow('too long');
});
