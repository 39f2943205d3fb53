import fc from 'fast-check';
import { fixture } from '../fixture.ts';
import type { Drawing, Mark, Ring, Shape } from '../document/index.ts';
import {
  apply,
  ringPoints,
  seededIds,
  seededRandom,
  translation,
  type Matrix,
  type Point,
  discRing,
} from '../geometry/index.ts';
import { transformed } from '../marks/index.ts';
import {
  betweenAt,
  bodyOf,
  boiled,
  drawingOrder,
  EVEN,
  extrapolated,
  matchMarks,
  matrixOfSimilarity,
  powerOf,
  putFraction,
  fractionsFor,
  similarityBetween,
  waysBack,
  waysCome,
  type Pairing,
} from './index.ts';
import { assign } from './assign.ts';

const made = fixture(5);
const { swatch, stroke } = made;
const newId = seededIds(900);

type Marks = Pick<Drawing, 'marks' | 'order'>;
const drawing = (marks: readonly Mark[]): Marks => ({
  order: marks.map(({ id }) => id),
  marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
});
const shape = (rings: Ring[], colour = swatch): Shape => ({
  kind: 'shape',
  id: newId(),
  swatch: colour,
  rings,
  rule: 'evenodd',
  opacity: 1,
});
const ball = (x: number, y: number, r: number, colour = swatch) => shape([discRing(x, y, r)], colour);
const all = (d: Marks): Mark[] => d.order.map((id) => d.marks[id]!);
const moved = (d: Marks, matrix: Matrix): Marks =>
  drawing(all(d).map((m) => ({ ...transformed(m, matrix), id: newId() })));
const shuffled = (d: Marks, seed: number): Marks => {
  const random = seededRandom(seed);
  return {
    ...d,
    order: [...d.order]
      .map((id) => [random(), id] as const)
      .sort((a, b) => a[0] - b[0])
      .map(([, id]) => id),
  };
};

/** A drawing of strokes that differ in place, length and bend, so that every one can be told from the others. */
function scatter(count: number, seed: number): Marks {
  const random = seededRandom(seed);
  return drawing(
    Array.from({ length: count }, () => {
      const [x, y, long, bend] = [random() * 600, random() * 400, 20 + random() * 60, random() * 40 - 20];
      return stroke(x, y, x + long / 2, y + bend, x + long, y + bend * 0.3);
    }),
  );
}
/** Whether every mark was paired with the one of the same place in the order it was made in. */
const rightly = (pairings: readonly Pairing[], a: Marks, b: Marks, made_: readonly string[]): number => {
  const index = new Map(a.order.map((id, i) => [id, i]));
  return (
    pairings.filter(({ from, to }) => from.length === 1 && to.length === 1 && made_[index.get(from[0]!)!] === to[0])
      .length / b.order.length
  );
};
const area = (rings: readonly Ring[]): number =>
  Math.abs(
    rings.reduce((sum, ring) => {
      const points = ringPoints(ring, 12);
      return (
        sum +
        points.reduce(
          (s, p, i) => s + p.x * points[(i + 1) % points.length]!.y - points[(i + 1) % points.length]!.x * p.y,
          0,
        ) /
          2
      );
    }, 0),
  );

describe('pairing', () => {
  it('finds the cheapest assignment', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 50 }), { minLength: 16, maxLength: 16 }), (numbers) => {
        const cost = Float64Array.from(numbers);
        const found = assign(cost, 4, 4);
        const price = [...found].reduce((sum, c, r) => sum + cost[r * 4 + c]!, 0);
        const permutations = (rest: number[]): number[][] =>
          rest.length === 0
            ? [[]]
            : rest.flatMap((c) => permutations(rest.filter((o) => o !== c)).map((p) => [c, ...p]));
        const best = Math.min(...permutations([0, 1, 2, 3]).map((p) => p.reduce((s, c, r) => s + cost[r * 4 + c]!, 0)));
        expect(price).toBe(best);
      }),
    );
  });

  it.each<[string, Matrix]>([
    ['itself', [1, 0, 0, 1, 0, 0]],
    ['itself moved', [1, 0, 0, 1, 90, -40]],
    ['itself turned a little', [Math.cos(0.2), Math.sin(0.2), -Math.sin(0.2), Math.cos(0.2), 0, 0]],
    ['itself turned by a quarter', [0, 1, -1, 0, 0, 0]],
    ['itself upside down', [-1, 0, 0, -1, 0, 0]],
    ['itself mirrored', [-1, 0, 0, 1, 0, 0]],
    ['itself larger', [1.3, 0, 0, 1.3, 0, 0]],
  ])('pairs a drawing with %s, its marks in another order', (_, matrix) => {
    const a = scatter(24, 3);
    const plain = moved(a, matrix);
    const b = shuffled(plain, 9);
    expect(rightly(matchMarks(a, b, { ties: [] }), a, b, plain.order)).toBeGreaterThanOrEqual(23 / 24);
  });

  it('keeps to colours, to the names of pieces and to what the user ties', () => {
    const other = newId();
    const [a1, a2] = [ball(0, 0, 10), ball(60, 0, 10, other)];
    const [b1, b2] = [ball(40, 0, 10), ball(20, 0, 10, other)];
    const partner = (pairs: readonly Pairing[], id: string) => pairs.find(({ from }) => from.includes(id))?.to;
    const [a, b] = [drawing([a1, a2]), drawing([b1, b2])];
    expect(partner(matchMarks(a, b, { ties: [] }), a1.id)).toEqual([b1.id]);
    expect(partner(matchMarks(a, b, { ties: [{ from: a1.id, to: b2.id }] }), a1.id)).toEqual([b2.id]);
    expect(partner(matchMarks(a, b, { ties: [{ from: a1.id, to: null }] }), a1.id)).toEqual([]);
    const [n1, n2] = [
      { ...b1, swatch, piece: 'right' },
      { ...b2, swatch, piece: 'left' },
    ];
    const named = drawing([
      { ...a1, piece: 'left' },
      { ...a2, swatch, piece: 'right' },
    ]);
    expect(partner(matchMarks(named, drawing([n1, n2]), { ties: [] }), a1.id)).toEqual([b2.id]);
  });

  it('lets two that are tied to one run into it, and one that is tied to two part into them, areas and lines alike', () => {
    for (const mark of [(x: number) => ball(x, 0, 10), (x: number) => stroke(x, 0, x + 30, 40)] as const) {
      const [a1, a2, b] = [mark(0), mark(300), mark(150)];
      const ties = [
        { from: a1.id, to: b.id },
        { from: a2.id, to: b.id },
      ];
      const [from, to] = [drawing([a1, a2]), drawing([b])];
      const merging = matchMarks(from, to, { ties });
      expect(merging.map((pairing) => [pairing.from, pairing.to])).toEqual(
        expect.arrayContaining([
          [[a1.id], [b.id]],
          [[a2.id], [b.id]],
        ]),
      );
      const late = betweenAt(from, to, merging, 0.99, { way: 'straight' }, newId);
      const target = bodyOf(b).middle;
      expect(late.order).toHaveLength(2);
      for (const id of late.order) expect(Math.abs(bodyOf(late.marks[id]!).middle.x - target.x)).toBeLessThan(3);
      const back = ties.map((tie) => ({ from: tie.to, to: tie.from }));
      const early = betweenAt(to, from, matchMarks(to, from, { ties: back }), 0.01, { way: 'straight' }, newId);
      expect(early.order).toHaveLength(2);
      for (const id of early.order) expect(Math.abs(bodyOf(early.marks[id]!).middle.x - target.x)).toBeLessThan(3);
    }
  });

  it('takes every mark of both once', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 9 }),
        fc.integer({ min: 0, max: 9 }),
        fc.integer({ min: 1, max: 99 }),
        (n, m, seed) => {
          const [a, b] = [scatter(n, seed), scatter(m, seed + 1)];
          const pairings = matchMarks(a, b, { ties: [] });
          expect(pairings.flatMap(({ from }) => from).sort()).toEqual([...a.order].sort());
          expect(pairings.flatMap(({ to }) => to).sort()).toEqual([...b.order].sort());
        },
      ),
    );
  });

  it('lets a puff become the one that follows it, where it goes on as it came', () => {
    const column = (lift: number) => drawing([0, 1, 2].map((i) => ball(0, -60 * i - lift, 16)));
    const [before, last, first] = [column(20), column(40), column(0)];
    const pairings = matchMarks(last, first, { ties: [], expected: waysCome(before, last) });
    const partner = (i: number) => pairings.find(({ from }) => from.includes(last.order[i]!))!.to[0];
    expect([partner(0), partner(1)]).toEqual([first.order[1], first.order[2]]);
  });
});

describe('in-betweens', () => {
  const spots = (mark: Mark): Point[] =>
    mark.kind === 'shape'
      ? mark.rings.flatMap((r) => ringPoints(r, 6))
      : [...mark.samples.x].map((x, i) => ({ x, y: mark.samples.y[i]! }));
  it('lies on the first at 0 and on the second at 1', () => {
    const [a, b] = [
      drawing([ball(0, 0, 30), stroke(0, 0, 50, 10, 90, 0)]),
      drawing([ball(80, 20, 50), stroke(30, 60, 80, 50, 120, 90)]),
    ];
    const pairings = matchMarks(a, b, { ties: [] });
    for (const [share, target] of [
      [0, a],
      [1, b],
    ] as const)
      for (const way of ['straight', 'arc'] as const) {
        const got = all(betweenAt(a, b, pairings, share, { way }, newId));
        all(target).forEach((mark, i) => {
          const there = spots(mark);
          const off = (p: Point, others: readonly Point[]) =>
            Math.min(...others.map((q) => Math.hypot(p.x - q.x, p.y - q.y)));
          const here = spots(got[i]!);
          for (const q of there) expect(off(q, here)).toBeLessThan(mark.kind === 'shape' ? 9 : 0.01);
          if (mark.kind === 'shape') for (const p of here) expect(off(p, there)).toBeLessThan(9);
        });
      }
  });

  it('goes along with pressure, width and opacity', () => {
    const a = stroke(0, 0, 100, 0);
    const b = { ...stroke(0, 50, 100, 50), brush: { ...a.brush, width: 8, opacity: 0.5 } };
    const light = { ...a, samples: { ...a.samples, pressure: Float32Array.of(0.2, 0.2) } };
    const [d, e] = [drawing([light]), drawing([b])];
    const [got] = all(betweenAt(d, e, matchMarks(d, e, { ties: [] }), 0.5, { way: 'straight' }, newId));
    expect(got).toMatchObject({ kind: 'stroke', brush: { width: 6, opacity: 0.75 } });
    expect((got as typeof a).samples.pressure[0]).toBeCloseTo(0.6);
    expect((got as typeof a).samples.y[1]).toBeCloseTo(25);
  });

  it('goes round on arcs: a rod that swings keeps its length', () => {
    const turn = 1.6;
    const a = drawing([stroke(0, 0, 50, 0, 100, 0)]);
    const b = moved(a, [Math.cos(turn), Math.sin(turn), -Math.sin(turn), Math.cos(turn), 0, 0]);
    const length = (m: Mark) => {
      const p = spots(m);
      return Math.hypot(p.at(-1)!.x - p[0]!.x, p.at(-1)!.y - p[0]!.y);
    };
    const at = (way: 'arc' | 'straight') =>
      all(betweenAt(a, b, matchMarks(a, b, { ties: [] }), 0.5, { way }, newId))[0]!;
    expect(length(at('arc'))).toBeCloseTo(100, 1);
    expect(length(at('straight'))).toBeLessThan(80);
    expect(spots(at('arc')).at(-1)!.x).toBeCloseTo(100 * Math.cos(turn / 2), 1);
  });

  it('grows what appears and shrinks what vanishes: dot, disc, nothing', () => {
    const [none, disc] = [drawing([]), drawing([ball(0, 0, 40)])];
    const pairings = matchMarks(none, disc, { ties: [] });
    const areas = [0.25, 0.5, 0.75].map((t) => {
      const [mark] = all(betweenAt(none, disc, pairings, t, { way: 'straight' }, newId));
      return area((mark as Shape).rings);
    });
    const whole = Math.PI * 1600;
    areas.forEach((each, i) => expect(each / whole).toBeCloseTo([0.0625, 0.25, 0.5625][i]!, 1));
  });

  it('what stays where it is goes on as itself, however much comes or goes beside it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 3 }),
        fc.nat(99),
        (staying, coming, seed) => {
          const random = seededRandom(seed);
          const row = Array.from({ length: staying }, (_, i) => ball(i * 200, 0, 30));
          const near = row.map((_, i) => ball(i * 200 + 20 * random(), 20 * random(), 31));
          const new_ = Array.from({ length: coming }, (_, i) => ball(200 * (staying + i) + 60, 300 * random(), 60));
          const [few, many] = [drawing(row), drawing([...near, ...new_])];
          const found = (a: Marks, b: Marks) =>
            matchMarks(a, b, { ties: [] }).filter(({ from, to }) => from.length === 1 && to.length === 1);
          expect(found(few, many).map(({ from, to }) => [from[0], to[0]])).toEqual(
            row.map(({ id }, i) => [id, near[i]!.id]),
          );
          expect(found(many, few).map(({ from, to }) => [from[0], to[0]])).toEqual(
            near.map(({ id }, i) => [id, row[i]!.id]),
          );
        },
      ),
    );
  });

  it('parts a flame from its lick and joins them again, in one piece while they touch', () => {
    const whole = drawing([ball(0, 0, 60)]);
    const split = drawing([ball(0, 0, 55), ball(0, -110, 20)]);
    const pairings = matchMarks(whole, split, { ties: [] });
    expect(pairings).toEqual([{ from: whole.order, to: split.order }]);
    const at = (share: number) => all(betweenAt(whole, split, pairings, share, { way: 'straight' }, newId)) as Shape[];
    expect(at(0.2)).toHaveLength(1);
    expect(at(0.9)).toHaveLength(2);
    const back = matchMarks(split, whole, { ties: [] });
    expect(all(betweenAt(split, whole, back, 0.8, { way: 'straight' }, newId))).toHaveLength(1);
    // No part of it is lost or made twice on the way: the area changes slowly.
    const areas = [0.1, 0.3, 0.5, 0.7, 0.9].map((t) => at(t).reduce((sum, s) => sum + area(s.rings), 0));
    areas.slice(1).forEach((each, i) => expect(Math.abs(each / areas[i]! - 1)).toBeLessThan(0.25));
  });

  it('lets the pieces of one shape go their own ways', () => {
    const two = drawing([shape([discRing(0, 0, 40), discRing(0, -120, 15)])]);
    const later = drawing([shape([discRing(0, 0, 40), discRing(0, -160, 12)])]);
    const parts = all(
      betweenAt(two, later, matchMarks(two, later, { ties: [] }), 0.5, { way: 'straight' }, newId),
    ) as Shape[];
    expect(parts).toHaveLength(2);
    expect(
      ringPoints(parts[1]!.rings[0]!, 8).reduce((sum, p) => sum + p.y, 0) / 8 / (parts[1]!.rings[0]!.length / 6),
    ).toBeCloseTo(-140, 0);
  });

  it('opens a hole that only the second has', () => {
    const full = drawing([ball(0, 0, 50)]);
    const holed = drawing([shape([discRing(0, 0, 50), discRing(10, 0, 20)])]);
    const pairings = matchMarks(full, holed, { ties: [] });
    const rings = (share: number) =>
      (all(betweenAt(full, holed, pairings, share, { way: 'straight' }, newId))[0] as Shape).rings;
    expect(rings(0.5)).toHaveLength(2);
    expect(area([rings(0.5)[1]!])).toBeCloseTo(Math.PI * 400 * 0.5, -2);
  });

  it('knows how two shapes are turned to each other: starts that match do not twist', () => {
    const a = ball(0, 0, 50);
    const ring = a.rings[0]!;
    const later = Float32Array.from([...ring.subarray(6), ...ring.subarray(0, 6)]);
    const [d, e] = [drawing([a]), drawing([shape([later])])];
    const [got] = all(betweenAt(d, e, matchMarks(d, e, { ties: [] }), 0.5, { way: 'straight' }, newId)) as Shape[];
    expect(area(got!.rings) / area(a.rings)).toBeCloseTo(1, 1);
  });
});

it('does a similarity to a share: twice half of it is all of it', () => {
  const number = fc.double({ min: -1, max: 1, noNaN: true });
  fc.assert(
    fc.property(number, number, number, number, (angle, grow, e, f) => {
      const whole = { angle: angle * 3, scale: Math.exp(grow), e: e * 100, f: f * 100 };
      const half = powerOf(whole, 0.5);
      for (const p of [
        { x: 0, y: 0 },
        { x: 30, y: -70 },
      ]) {
        const [twice, once] = [apply(half, apply(half, p)), apply(matrixOfSimilarity(whole), p)];
        expect(Math.hypot(twice.x - once.x, twice.y - once.y)).toBeLessThan(0.05);
      }
    }),
  );
  const points = [
    { x: 0, y: 0 },
    { x: 10, y: 0 },
    { x: 3, y: 8 },
  ];
  const there = points.map((p) => apply([0, 2, -2, 0, 5, 6], p));
  expect(similarityBetween(points, there)).toMatchObject({
    angle: expect.closeTo(Math.PI / 2),
    scale: expect.closeTo(2),
  });
});

it('spreads ticks by ease and favour, and keeps their order', () => {
  expect(fractionsFor(3, EVEN)).toEqual([0.25, 0.5, 0.75]);
  expect(fractionsFor(1, { ...EVEN, favour: -1 })[0]).toBeLessThan(0.35);
  expect(fractionsFor(1, { ...EVEN, favour: 1 })[0]).toBeGreaterThan(0.65);
  expect(putFraction([0.25, 0.5, 0.75], 1, 0.9)).toEqual([0.25, 0.75, 0.75]);
  const unit = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 30 }), unit, unit, unit, (n, softStart, softEnd, favour) => {
      const shares = fractionsFor(n, { softStart, softEnd, favour: favour * 2 - 1 });
      expect(shares.every((s, i) => s >= 0 && s <= 1 && (i === 0 || s >= shares[i - 1]!))).toBe(true);
    }),
  );
});

it.each([
  [1, [0]],
  [3, [1, 0, 2]],
  [7, [3, 1, 5, 0, 2, 4, 6]],
])('draws %i in-betweens from the middle', (count, order) => {
  expect(drawingOrder(count)).toEqual(order);
});

it('boils: every breath differs, the same seed is the same, and none strays further than it may', () => {
  const line = drawing([stroke(...Array.from({ length: 40 }, (_, i) => [i * 5, 20 * Math.sin(i / 5)]).flat())]);
  const boil = { amount: 3, scale: 40, seed: 7 };
  const [one, again, two] = [boiled(line, 0, boil, newId), boiled(line, 0, boil, newId), boiled(line, 1, boil, newId)];
  const xs = (d: Marks) => [...(all(d)[0] as ReturnType<typeof stroke>).samples.x];
  expect(xs(one)).toEqual(xs(again));
  expect(xs(one)).not.toEqual(xs(two));
  xs(one).forEach((x, i) => expect(Math.abs(x - i * 5)).toBeLessThanOrEqual(3.001));
});

it('goes on as it came, and knows the way back', () => {
  const [before, last] = [drawing([ball(0, 0, 20)]), drawing([ball(30, -10, 25)])];
  const [next] = extrapolated(before, last) as Shape[];
  expect(area(next!.rings) / (Math.PI * 625 * (25 / 20) ** 2)).toBeCloseTo(1, 1);
  const [home] = extrapolated(drawing([stroke(0, 0, 40, 0)]), drawing([stroke(10, 0, 50, 0)]));
  expect((home as ReturnType<typeof stroke>).samples.x[0]).toBeCloseTo(20, 3);
  const first = drawing([ball(100, 0, 20)]);
  const now = drawing([ball(60, 0, 20), ball(60, -300, 8)]);
  const back = waysBack(now, first);
  expect(back.find(({ markId }) => markId === now.order[0])!.distance).toBeCloseTo(40, 0);
  expect(back.find(({ markId }) => markId === now.order[1])!.to).toBeNull();
});

it('moves along a drawn path', () => {
  const [a, b] = [drawing([stroke(0, 0, 10, 0)]), moved(drawing([stroke(0, 0, 10, 0)]), translation(100, 0))];
  const bend = (share: number) => ({ x: 0, y: -80 * Math.sin(Math.PI * share) });
  const [got] = all(betweenAt(a, b, matchMarks(a, b, { ties: [] }), 0.5, { way: 'path', bend }, newId));
  expect((got as ReturnType<typeof stroke>).samples.y[0]).toBeCloseTo(-80);
});
