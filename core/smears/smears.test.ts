import fc from 'fast-check';
import type { Mark, Shape, Stroke } from '../document/index.ts';
import {
  fitRing,
  IDENTITY,
  isInside,
  polygonsArea,
  ringPoints,
  seededIds,
  type Matrix,
  type Pair,
  type Point,
} from '../geometry/index.ts';
import { outlined, transformed } from '../marks/index.ts';
import { drawingOf } from '../starters/index.ts';
import {
  barAt,
  computeSmear,
  fastRuns,
  flowAlong,
  flowBetween,
  motionOf,
  rightAmount,
  ringingAt,
  smearSilhouette,
  SMEARS,
  speedOf,
  sweptOutlines,
  swathOutline,
  THINNEST,
  trailLength,
  warpOf,
  wayShown,
  type SmearWork,
} from './index.ts';

const newId = seededIds(9);
const point = (max: number) =>
  fc.record({ x: fc.integer({ min: -max, max: max }), y: fc.integer({ min: -max, max: max }) });
const far = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

/** A soft lobed form about a place. */
function form(cx: number, cy: number, size: number, swatch = 'body'): Shape {
  const points = Array.from({ length: 40 }, (_, i): Pair => {
    const turn = (i / 40) * 2 * Math.PI;
    const reach = size * (1 + 0.15 * Math.cos(3 * turn) + 0.1 * Math.cos(turn));
    return [cx + 1.3 * reach * Math.cos(turn), cy + 0.8 * reach * Math.sin(turn)];
  });
  return { kind: 'shape', id: newId(), swatch, rings: [fitRing(points, 0.1)], rule: 'evenodd', opacity: 1 };
}
const turned = (angle: number, x: number, y: number, scale = 1): Matrix => {
  const [c, s] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  return [c, s, -s, c, x, y];
};
const body = form(0, 0, 30);
const line = outlined(body, 3, 'line', newId, 2);
const at = (matrix: Matrix, marks: readonly Mark[]): Mark[] =>
  marks.map((mark) => ({ ...transformed(mark, matrix), id: newId() }));

/** The form with its line on a layer over it, on several drawings. */
function workOf(path: readonly Matrix[], smear: Partial<SmearWork['smear']> = {}): SmearWork {
  const layers = ['line', 'body'];
  return {
    layers,
    stops: path.map((matrix) => ({
      drawings: [drawingOf('', at(matrix, line)), drawingOf('', at(matrix, [body]))],
      matrices: [IDENTITY, IDENTITY],
      frames: 1,
      traced: { tip: null, root: null },
    })),
    smear: {
      form: 'stretch',
      piece: null,
      marks: [],
      rigid: [],
      way: 'as drawn',
      bend: 0,
      settings: {},
      seed: 3,
      ...smear,
    },
    line: null,
    contact: null,
    room: 3,
    cycle: false,
    back: [IDENTITY, IDENTITY],
  };
}
const ringOf = (mark: Mark): Point[] => (mark.kind === 'shape' ? ringPoints(mark.rings[0]!, 24) : []);
const pointsOf = (mark: Mark): Point[] =>
  mark.kind === 'shape' ? ringOf(mark) : Array.from(mark.samples.x, (x, i) => ({ x, y: mark.samples.y[i]! }));
const nearest = (p: Point, ring: readonly Point[]): number => {
  let min = Infinity;
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length]!;
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const t = Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1)));
    min = Math.min(min, Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy));
  });
  return min;
};

describe('the way', () => {
  const ways = fc
    .record({ left: point(300), arrived: point(300), turn: fc.double({ min: -2.5, max: 2.5, noNaN: true }) })
    .filter(({ left, arrived }) => far(left, arrived) > 40);

  it('takes a place to the way and back to where it was', () => {
    fc.assert(
      fc.property(ways, point(60), ({ left, arrived, turn }, off) => {
        const flow = flowBetween(left, arrived, turn, 1.1);
        // A place near what an arc turns about is on both sides of it.
        const p = { x: arrived.x + off.x / 4, y: arrived.y + off.y / 4 };
        if (flow.about && far(flow.about, p) < 20) return;
        const { along, across } = flow.to(p);
        expect(far(flow.from(along, across), p)).toBeLessThan(1e-6);
      }),
    );
  });

  it('arrives where the subject arrives and leaves where it left, straight, on an arc and as drawn', () => {
    fc.assert(
      fc.property(ways, ({ left, arrived, turn }) => {
        const drawn = [left, { x: left.x + 40, y: left.y - 70 }, { x: arrived.x - 30, y: arrived.y - 60 }, arrived];
        for (const flow of [flowBetween(left, arrived, turn), flowAlong(drawn, left, arrived)]) {
          expect(far(flow.from(0, 0), arrived)).toBeLessThan(0.01);
          expect(far(flow.from(-1, 0), left)).toBeLessThan(0.01);
        }
      }),
    );
  });

  it('goes only the part of a path that lies between where it left and where it arrives', () => {
    const path = Array.from({ length: 80 }, (_, i) => ({ x: i * 20, y: 90 * Math.sin(i / 6) }));
    const [left, arrived] = [path[20]!, path[32]!];
    const flow = flowAlong(path, left, arrived);
    for (let i = 21; i < 32; i++) {
      const near = Array.from({ length: 101 }, (_, k) => far(flow.from(k / 100 - 1, 0), path[i]!));
      expect(Math.min(...near)).toBeLessThan(6);
    }
    // Drawn elsewhere, it is taken there whole.
    const aside = path.map(({ x, y }) => ({ x, y: y + 4000 }));
    expect(flowAlong(aside, left, arrived).length).toBeGreaterThan(3 * flow.length);
  });

  it('along an arc a form moved on is the form turned', () => {
    const [left, arrived] = [
      { x: 0, y: 0 },
      { x: 120, y: 40 },
    ];
    const flow = flowBetween(left, arrived, 1.2);
    const [p, q] = [
      { x: 130, y: 60 },
      { x: 100, y: 30 },
    ];
    const moved = (r: Point) => {
      const { along, across } = flow.to(r);
      return flow.from(along - 0.5, across);
    };
    expect(far(moved(p), moved(q))).toBeCloseTo(far(p, q), 6);
  });

  it('turns as the drawings do, and a round thing that only moves does not turn', () => {
    const motion = (matrix: Matrix, marks: readonly Mark[]) => {
      const [before, after] = [marks, at(matrix, marks)];
      return motionOf(before, after, { left: smearSilhouette(before), arrived: smearSilhouette(after) });
    };
    expect(motion(turned(0.8, 150, 40), [body, ...line]).turn).toBeCloseTo(0.8, 1);
    const disc = outlined(
      {
        ...body,
        rings: [
          fitRing(
            Array.from({ length: 40 }, (_, i): Pair => [20 * Math.cos(i * 0.15708), 20 * Math.sin(i * 0.15708)]),
            0.05,
          ),
        ],
      },
      3,
      'line',
      newId,
    );
    expect(motion(turned(0, 150, 40), disc).turn).toBe(0);
  });
});

describe('a followed point', () => {
  it('tells the arc of what does not turn by itself', () => {
    // A disc circles a place 200 px below it; its traced middle says so.
    const at = (turn: number) => ({ x: 200 * Math.sin(turn), y: 200 - 200 * Math.cos(turn) });
    const places = [0, 0.4, 0.8].map(at);
    const disc = fitRing(
      Array.from({ length: 40 }, (_, i): Pair => [15 * Math.cos(i * 0.15708), 15 * Math.sin(i * 0.15708)]),
      0.05,
    );
    const work: SmearWork = {
      ...workOf([]),
      layers: ['body'],
      stops: places.map((tip) => ({
        drawings: [
          drawingOf('', [{ ...body, id: newId(), rings: [disc.map((v, k) => v + (k % 2 === 0 ? tip.x : tip.y))] }]),
        ],
        matrices: [IDENTITY],
        frames: 1,
        traced: { tip, root: null },
      })),
      back: [IDENTITY],
    };
    for (const p of wayShown(work)) expect(Math.abs(far(p, { x: 0, y: 200 }) - 200)).toBeLessThan(0.5);
  });
});

describe('a stretch', () => {
  const steps = fc.record({
    x: fc.integer({ min: 90, max: 400 }),
    y: fc.integer({ min: -200, max: 200 }),
    turn: fc.double({ min: -0.9, max: 0.9, noNaN: true }),
  });

  it('keeps its area where it is not squeezed as far as it may be, and is never thinner than 45 %', () => {
    fc.assert(
      fc.property(steps, fc.double({ min: 0.05, max: 1, noNaN: true }), ({ x, y, turn }, amount) => {
        const arrived = smearSilhouette(at(turned(turn, x, y), [body]));
        const flow = flowBetween({ x: 0, y: 0 }, arrived.middle, turn);
        const warp = warpOf({ flow, arrived, contact: null }, { amount, spread: 0, volume: 1, thins: 0 });
        expect(warp.squeeze).toBeGreaterThanOrEqual(THINNEST - 1e-9);
        if (warp.squeeze > THINNEST + 1e-6 && warp.squeeze < 1) expect(Math.abs(warp.grown - 1)).toBeLessThan(0.01);
        else expect(warp.grown).toBeGreaterThan(0.99);
      }),
      { numRuns: 40 },
    );
  });

  it('reaches from where it was to where it is: the leading end stays, the trailing end is where the trailing end was', () => {
    const path = [turned(0, 0, 0), turned(0, 260, 0)];
    const { own } = computeSmear(workOf(path, { settings: { amount: 100, thins: 0, volume: 0, spread: 0 } }), newId);
    const xs = (marks: readonly Mark[]) =>
      smearSilhouette(marks)
        .outlines.flat()
        .map(([x]) => x);
    const all = [body, ...line];
    const [was, is, made] = [all, at(path[1]!, all), [...own.values()].flat()].map(xs) as [
      number[],
      number[],
      number[],
    ];
    expect(Math.abs(Math.max(...made) - Math.max(...is))).toBeLessThan(1);
    expect(Math.abs(Math.min(...made) - Math.min(...was))).toBeLessThan(1);
  });

  it('keeps line and fill together: the line lies on the edge of the fill within 0.5 px', () => {
    fc.assert(
      fc.property(steps, fc.integer({ min: 0, max: 150 }), ({ x, y, turn }, spread) => {
        const { own } = computeSmear(
          workOf([turned(0, 0, 0), turned(turn, x, y)], { settings: { amount: 100, spread } }),
          newId,
        );
        const fill = ringOf(own.get('body')![0]!);
        for (const p of pointsOf(own.get('line')![0]!).filter((_, i) => i % 3 === 0))
          expect(nearest(p, fill)).toBeLessThan(0.5);
      }),
      { numRuns: 8 },
    );
  });

  it('leaves marks that are rigid as they arrive', () => {
    const work = workOf([turned(0, 0, 0), turned(0, 200, 0)]);
    const eye = { ...form(210, 0, 6), id: newId() };
    const arrives = drawingOf('', [...Object.values(work.stops[1]!.drawings[1]!.marks), eye]);
    const stops = [work.stops[0]!, { ...work.stops[1]!, drawings: [work.stops[1]!.drawings[0]!, arrives] }];
    const { own } = computeSmear({ ...work, stops, smear: { ...work.smear, rigid: [eye.id] } }, newId);
    expect(own.get('body')!.map((mark) => (mark as Shape).rings[0])).toContainEqual(eye.rings[0]);
  });

  it('goes no farther than what stops it', () => {
    const wall = [
      { x: 230, y: -200 },
      { x: 230, y: 200 },
    ];
    const { own } = computeSmear({ ...workOf([turned(0, 0, 0), turned(0, 240, 0)]), contact: wall }, newId);
    expect(Math.max(...ringOf(own.get('body')![0]!).map(({ x }) => x))).toBeLessThan(231);
  });

  it('turned, moved and scaled drawings give the smear turned, moved and scaled', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        point(400),
        fc.double({ min: 0.5, max: 2, noNaN: true }),
        (angle, { x, y }, scale) => {
          const all = turned(angle, x, y, scale);
          const path = [turned(0, 0, 0), turned(0.5, 180, 60)];
          const moved = (work: SmearWork): SmearWork => ({
            ...work,
            stops: work.stops.map((stop) => ({
              ...stop,
              drawings: stop.drawings.map((d) =>
                drawingOf(
                  '',
                  Object.values(d!.marks).map((mark) => transformed(mark, all)),
                ),
              ),
            })),
          });
          const plain = workOf(path);
          const one = computeSmear(plain, seededIds(1)).own.get('body')![0]!;
          const other = computeSmear(moved(plain), seededIds(1)).own.get('body')![0]!;
          const expected = ringOf(transformed(one, all));
          const size = 2 * scale;
          for (const p of ringOf(other).filter((_, i) => i % 17 === 0)) expect(nearest(p, expected)).toBeLessThan(size);
        },
      ),
      { numRuns: 8 },
    );
  });
});

describe('the body it leaves', () => {
  it('holds both silhouettes and every pose between, without crossings', () => {
    fc.assert(
      fc.property(fc.integer({ min: 60, max: 400 }), fc.double({ min: -1.4, max: 1.4, noNaN: true }), (x, turn) => {
        const arrived = smearSilhouette(at(turned(turn, x, 30), [body]));
        const flow = flowBetween({ x: 0, y: 0 }, arrived.middle, turn);
        if (flow.about && arrived.outlines.flat().some(([px, py]) => far(flow.about!, { x: px, y: py }) < 8)) return;
        const whole = { amount: 1, tapers: 0, hollow: 0, strands: 0, torn: 0, seed: 1 };
        const swept = sweptOutlines(flow, arrived.outlines, whole);
        const outer = swept
          .toSorted((a, b) => polygonsArea([b]) - polygonsArea([a]))[0]!
          .map(([px, py]) => ({ x: px, y: py }));
        for (let k = 0; k <= 8; k++)
          for (const [px, py] of arrived.outlines.flat().filter((_, i) => i % 9 === 0)) {
            const { along, across } = flow.to({ x: px, y: py });
            const p = flow.from(along - k / 8, across);
            if (!isInside(outer, p)) expect(nearest(p, outer)).toBeLessThan(0.35);
          }
        // Nothing crosses: the area by its winding is the area that is covered.
        expect(polygonsArea(swept)).toBeGreaterThan(arrived.area);
      }),
      { numRuns: 8 },
    );
  });
});

describe('the strands of a body', () => {
  const square = [
    [0, 0],
    [0, 100],
    [60, 100],
    [60, 0],
  ] satisfies Pair[];
  /** px of each slit, across the way, close to where they open. */
  const slits = (strands: number, line?: number): number[] => {
    const flow = flowBetween({ x: -200, y: 50 }, { x: 0, y: 50 }, 0);
    const form = { amount: 1, tapers: 0, hollow: 0, strands, torn: 0.5, seed: 3, ...(line && { line }) };
    const [x, outlines] = [-195, sweptOutlines(flow, [square], form)];
    const crossings = outlines
      .flatMap((outline) =>
        outline.flatMap(([ax, ay], i) => {
          const [bx, by] = outline[(i + 1) % outline.length]!;
          return ax < x !== bx < x ? [ay + ((x - ax) / (bx - ax)) * (by - ay)] : [];
        }),
      )
      .toSorted((a, b) => a - b)
      .slice(1, -1);
    return crossings.flatMap((y, i) => (i % 2 === 0 ? [crossings[i + 1]! - y] : []));
  };

  it('are as many as asked where nothing goes round them, but for slits that run into one', () => {
    expect(slits(5)).toHaveLength(5);
    expect(slits(9).length).toBeGreaterThan(7);
    expect(slits(0)).toHaveLength(0);
  });
  it('are fewer where a line goes round them, so that none of its slits closes', () => {
    for (const line of [4, 8, 14]) {
      const open = slits(9, line);
      expect(open.length).toBeLessThan(9);
      expect(Math.min(...open)).toBeGreaterThan(line);
    }
    expect(slits(2, 4)).toHaveLength(2);
  });
});

describe('a swath', () => {
  const bars = [
    { root: { x: 0, y: 0 }, tip: { x: -100, y: -20 } },
    { root: { x: 6, y: 2 }, tip: { x: -30, y: -95 } },
    { root: { x: 12, y: 4 }, tip: { x: 90, y: -60 } },
  ];
  it('passes through tip and root of every drawing, on arcs', () => {
    const outline = swathOutline(bars, { from: 'all of it', tipGone: 0, rootGone: 0 }).map(([x, y]) => ({ x, y }));
    for (const { tip, root } of bars) {
      expect(nearest(tip, outline)).toBeLessThan(0.5);
      expect(nearest(root, outline)).toBeLessThan(0.5);
    }
    const half = barAt(bars[0]!, bars[1]!, 0.5);
    // The tip is as far from the root on its way as on the drawings.
    expect(far(half.tip, half.root)).toBeGreaterThan(98);
  });

  it('is bitten away until nothing is left', () => {
    const areas = [0, 0.3, 0.6, 0.9].map((gone) =>
      polygonsArea([swathOutline(bars, { from: 'all of it', tipGone: gone, rootGone: Math.min(1, gone * 1.4) })]),
    );
    areas.slice(1).forEach((area, i) => expect(area).toBeLessThan(areas[i]!));
    expect(swathOutline(bars, { from: 'all of it', tipGone: 1, rootGone: 1 })).toEqual([]);
  });

  it('sweeps as the drawings turn, whichever way the middle is sent', () => {
    const path = [turned(0, 150, 0), turned(1.1, 68, 134)];
    const line = [
      { x: -80, y: -40 },
      { x: 150, y: 0 },
      { x: 190, y: 120 },
      { x: 68, y: 134 },
      { x: -200, y: 300 },
    ];
    const swept = (way: 'as drawn' | 'path') =>
      computeSmear(
        { ...workOf(path, { form: 'swath', way }), line: way === 'path' ? line : null },
        seededIds(2),
      ).behind[0]!.flatMap(ringOf);
    const [drawn, sent] = [swept('as drawn'), swept('path')];
    expect(drawn.length).toBeGreaterThan(20);
    for (const p of sent) expect(nearest(p, drawn)).toBeLessThan(0.01);
  });

  it('is let go straight on, or along a path, thinning or growing', () => {
    const path = [turned(0, 0, 0), turned(0, 150, 0), turned(0, 300, 0)];
    // A path that turns down where the crescent is let go.
    const down = [
      ...Array.from({ length: 7 }, (_, i) => ({ x: i * 40, y: 0 })),
      { x: 250, y: 100 },
      { x: 250, y: 900 },
    ];
    const flown = (line: Point[] | null, thins: number) => {
      const work = workOf(path, { form: 'swath', settings: { end: 1, lasts: 3, thins } });
      return computeSmear({ ...work, line }, newId).behind.map((marks) => smearSilhouette(marks));
    };
    const [straight, along] = [flown(null, 25), flown(down, 25)];
    straight.slice(1).forEach(({ middle, area }, i) => {
      expect(middle.x).toBeGreaterThan(straight[i]!.middle.x + 100);
      expect(Math.abs(middle.y - straight[i]!.middle.y)).toBeLessThan(20);
      expect(area).toBeLessThan(straight[i]!.area);
    });
    const [, , third, last] = along;
    expect(last!.middle.y).toBeGreaterThan(third!.middle.y + 100);
    expect(Math.abs(last!.middle.x - third!.middle.x)).toBeLessThan(20);
    const grown = flown(null, -40);
    expect(grown[2]!.area).toBeGreaterThan(1.3 * grown[0]!.area);
  });
});

describe('a trail', () => {
  it('is never longer than the way gone, nor reaches back to its start', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2000, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (gone, share) => {
          expect(trailLength(gone, share)).toBeLessThanOrEqual(gone * 0.9 + 1e-9);
        },
      ),
    );
    const path = [turned(0, 0, 0), turned(0, 100, 0), turned(0, 280, 0)];
    const { behind } = computeSmear(workOf(path, { form: 'trail', settings: { length: 90, drawings: 2 } }), newId);
    const xs = behind[0]!.flatMap(pointsOf).map(({ x }) => x);
    expect(Math.min(...xs)).toBeGreaterThan(20);
  });

  it('lies on its path, where it has one', () => {
    const bow = Array.from({ length: 41 }, (_, i) => ({ x: i * 10, y: -200 * Math.sin((i / 40) * Math.PI) }));
    const work = workOf([turned(0, 0, 0), turned(0, 400, 0)], {
      form: 'trail',
      settings: { of: 2, length: 90, drawings: 1, lags: 0 },
    });
    const { behind } = computeSmear({ ...work, line: bow }, newId);
    const outline = behind[0]!.flatMap(pointsOf);
    expect(Math.min(...outline.map(({ y }) => y))).toBeLessThan(-170);
    const wide = Math.max(...outline.map((p) => nearest(p, bow)));
    expect(wide).toBeLessThan(45);
  });

  it('grows with the speed and is nothing at rest', () => {
    const long = (x: number) => {
      const { behind } = computeSmear(
        workOf([turned(0, 0, 0), turned(0, x, 0)], { form: 'trail', settings: { drawings: 1 } }),
        newId,
      );
      const xs = (behind[0] ?? []).flatMap(pointsOf).map((p) => p.x);
      return xs.length === 0 ? 0 : Math.max(...xs) - Math.min(...xs);
    };
    expect(long(0)).toBe(0);
    expect(long(200)).toBeGreaterThan(long(100) * 1.8);
  });
});

describe('speeds', () => {
  it('only runs of two or more fast steps are smeared, round the seam too', () => {
    expect(fastRuns([true, false, true, true, false], false)).toEqual([false, false, true, true, false]);
    expect(fastRuns([true, false, false, true], true)).toEqual([true, false, false, true]);
    expect(fastRuns([true], false)).toEqual([false]);
  });

  it('the right amount brings back an overlap, grows with the speed, and obeys how far a subject may stretch', () => {
    const left = smearSilhouette([body]);
    const speed = (x: number) => {
      const arrived = smearSilhouette(at(turned(0, x, 0), [body]));
      return speedOf(flowBetween(left.middle, arrived.middle), left, arrived);
    };
    expect(speed(10).fast).toBe(false);
    expect(speed(200).fast).toBe(true);
    expect(rightAmount(speed(400), 'far')).toBeGreaterThan(rightAmount(speed(150), 'far'));
    expect(rightAmount(speed(400), 'some')).toBeLessThan(rightAmount(speed(400), 'far'));
    expect(rightAmount(speed(400), 'stiff')).toBe(0);
    // Stretched by it, the trailing end lies over where the form was.
    const { length, extent } = speed(400);
    expect(rightAmount(speed(400), 'far') * length).toBeGreaterThan(length - extent);
  });

  it('what rings has come to rest on the last drawing', () => {
    expect(ringingAt(0, 6, 2, 0.5)).toBe(1);
    expect(ringingAt(6, 6, 2, 0.5)).toBe(0);
    for (let i = 1; i < 6; i++) expect(Math.abs(ringingAt(i, 6, 2, 0.5))).toBeLessThan(1);
  });
});

describe.each(SMEARS.map((kind) => [kind.form, kind] as const))('%s', (name, kind) => {
  const path = [turned(0, 0, 0), turned(0.2, 90, 10), turned(0.6, 260, 60)];

  it('has three or more numbers within their ranges, the first three not set aside', () => {
    expect(kind.controls.length).toBeGreaterThanOrEqual(3);
    for (const { default: preset, min, max, key } of kind.controls) {
      expect(key).toMatch(/^[a-z][a-zA-Z0-9]{0,31}$/);
      expect(preset).toBeGreaterThanOrEqual(min);
      expect(preset).toBeLessThanOrEqual(max);
    }
    expect(kind.controls.slice(0, 3).some(({ more }) => more)).toBe(false);
  });

  it('is the same for the same seed, and holds numbers throughout its ranges', () => {
    const settings = fc.record(
      Object.fromEntries(
        kind.controls.map(({ key, min, max }) => [key, fc.integer({ min: Math.ceil(min), max: Math.floor(max) })]),
      ),
    );
    fc.assert(
      fc.property(settings, (own) => {
        const work = workOf(path, { form: name, settings: own });
        const [one, other] = [1, 1].map((seed) => computeSmear(work, seededIds(seed)));
        expect(one).toEqual(other);
        const marks = [...one!.own.values(), ...one!.behind].flat() as (Stroke | Shape)[];
        for (const mark of marks) {
          expect(pointsOf(mark).every((p) => Number.isFinite(p.x) && Number.isFinite(p.y))).toBe(true);
          expect(['body', 'line']).toContain(mark.swatch);
        }
      }),
      { numRuns: 5 },
    );
  });

  it('lays nothing where nothing moves', () => {
    const still = [turned(0, 0, 0), turned(0, 0, 0)];
    const { own, behind } = computeSmear(workOf(still, { form: name }), newId);
    expect([...own.values(), ...behind].flat()).toEqual([]);
  });
});
