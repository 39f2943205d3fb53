import fc from 'fast-check';
import { doubleAreaOf, ringPoints } from '../geometry/index.ts';
import {
  Carrier,
  enclosed,
  paintedBy,
  followed,
  leaksOf,
  OUTSIDE,
  paintableOf,
  regionAt,
  regionsWithin,
  ringsOf,
  silhouetteOf,
  wellInside,
  type Barrier,
} from './index.ts';

/** A barrier drawn with a function that tells how much of a pixel is covered. */
function drawn(width: number, height: number, cover: (x: number, y: number) => number): Barrier {
  const pixels = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) pixels[y * width + x] = Math.round(255 * cover(x + 0.5, y + 0.5));
  return { width, height, left: 0, top: 0, scale: 1, cover: pixels, colour: null };
}
const clamp = (v: number) => Math.min(1, Math.max(0, v));
/** A circle's line of a width, smooth at its edges. @param opening how wide a gap at its right is, px. */
const circle =
  (cx: number, cy: number, r: number, line: number, opening = 0) =>
  (x: number, y: number): number => {
    if (opening > 0 && x > cx && Math.abs(y - cy) < opening / 2) return 0;
    return clamp(line / 2 + 0.5 - Math.abs(Math.hypot(x - cx, y - cy) - r));
  };
const both =
  (...all: ((x: number, y: number) => number)[]) =>
  (x: number, y: number) =>
    Math.max(...all.map((each) => each(x, y)));

const areaOf = (rings: readonly Float32Array[]): number =>
  Math.abs(rings.reduce((sum, ring) => sum + doubleAreaOf(ringPoints(ring, 8)) / 2, 0));

describe('a region', () => {
  test('is filled to the middle of its line', () => {
    const paintable = paintableOf(drawn(200, 200, circle(100, 100, 70, 8)), { gap: 0, under: null });
    const rings = ringsOf(paintable, [regionAt(paintable, { x: 100, y: 100 })]);
    expect(rings).toHaveLength(1);
    for (const { x, y } of ringPoints(rings[0]!, 4))
      expect(Math.abs(Math.hypot(x - 100, y - 100) - 70)).toBeLessThan(1);
    expect(rings[0]!.length / 6).toBeLessThan(24);
  });

  test('reaches so many px under its line when told to', () => {
    const paintable = paintableOf(drawn(200, 200, circle(100, 100, 70, 12)), { gap: 0, under: 2 });
    const [ring] = ringsOf(paintable, [regionAt(paintable, { x: 100, y: 100 })]);
    for (const { x, y } of ringPoints(ring!, 4)) {
      const far = Math.hypot(x - 100, y - 100);
      expect(far).toBeGreaterThan(64.5);
      expect(far).toBeLessThan(67.5);
    }
  });

  test('is filled under half-opaque lines and one pixel wide ones alike', () => {
    for (const [line, strength] of [
      [8, 0.5],
      [1, 1],
    ] as const) {
      const ink = circle(100, 100, 70, line);
      const paintable = paintableOf(
        drawn(200, 200, (x, y) => strength * ink(x, y)),
        { gap: 0, under: null },
      );
      const area = areaOf(ringsOf(paintable, [regionAt(paintable, { x: 90, y: 100 })]));
      expect(Math.abs(area - Math.PI * 70 * 70)).toBeLessThan(2 * Math.PI * 70);
    }
  });

  test('closes gaps up to the size asked for, and runs out over wider ones', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }).map((half) => 2 * half),
        fc.integer({ min: 0, max: 20 }),
        (opening, gap) => {
          fc.pre(Math.abs(opening - gap) >= 2);
          const barrier = drawn(200, 200, circle(100, 100, 60, 6, opening));
          const paintable = paintableOf(barrier, { gap, under: null });
          const label = regionAt(paintable, { x: 80, y: 100 });
          if (gap < opening) expect(label).toBe(OUTSIDE);
          else {
            expect(label).not.toBe(OUTSIDE);
            const area = areaOf(ringsOf(paintable, [label]));
            expect(Math.abs(area / (Math.PI * 3600) - 1)).toBeLessThan(0.02);
          }
        },
      ),
      { numRuns: 25 },
    );
  });

  test('names each place it runs out at, and the least gap that holds', () => {
    const two = (x: number, y: number): number => {
      const ink = circle(100, 100, 60, 6)(x, y);
      const open = (x > 100 && Math.abs(y - 100) < 4.5) || (y < 100 && Math.abs(x - 90) < 3);
      return open ? 0 : ink;
    };
    const barrier = drawn(200, 200, two);
    const { places, minGap } = leaksOf(barrier, { x: 100, y: 120 }, 2);
    expect(places).toHaveLength(2);
    expect(Math.hypot(places[0]!.x - 160, places[0]!.y - 100)).toBeLessThan(5);
    expect(Math.hypot(places[1]!.x - 90, places[1]!.y - 40)).toBeLessThan(5);
    expect(minGap).toBeGreaterThanOrEqual(7);
    expect(minGap).toBeLessThanOrEqual(9);
    const held = paintableOf(barrier, { gap: minGap!, under: null });
    expect(regionAt(held, { x: 100, y: 120 })).not.toBe(OUTSIDE);
    // A seed right beside a line, in a place narrower than the gap, tells the same.
    expect(leaksOf(barrier, { x: 44, y: 100 }, 2).minGap).toBe(minGap);
  });

  test('has its thin tip filled though gaps far wider are closed', () => {
    // A wedge 3 px wide near its tip, open to its body below.
    const half = (y: number) => (y < 20 ? -1 : y < 60 ? 1.5 + ((y - 20) / 40) * 2 : 3.5 + (y - 60) * 0.6);
    const wedge = (x: number, y: number): number => {
      if (y < 17 || y > 123) return 0;
      if (y > 120) return Math.abs(x - 60) < half(120) + 4 ? 1 : 0;
      const far = Math.abs(x - 60) - half(y);
      return far > 0 && far < 4 ? 1 : 0;
    };
    const paintable = paintableOf(drawn(130, 140, wedge), { gap: 10, under: 0 });
    const label = regionAt(paintable, { x: 60, y: 100 });
    expect(label).not.toBe(OUTSIDE);
    for (let y = 22; y < 118; y += 4) expect(regionAt(paintable, { x: 60, y })).toBe(label);
  });

  test('nested rings are three regions, the middle one with a hole', () => {
    const barrier = drawn(220, 220, both(circle(110, 110, 90, 6), circle(110, 110, 50, 6), circle(110, 110, 20, 6)));
    const paintable = paintableOf(barrier, { gap: 4, under: null });
    expect(enclosed(paintable)).toHaveLength(3);
    const band = ringsOf(paintable, [regionAt(paintable, { x: 180, y: 110 })]);
    expect(band).toHaveLength(2);
    expect(Math.abs(areaOf(band) / (Math.PI * (8100 - 2500)) - 1)).toBeLessThan(0.02);
    const whole = silhouetteOf(paintable);
    expect(whole).toHaveLength(1);
    expect(
      regionsWithin(
        paintable,
        [60, 160].flatMap((a) => [60, 160].map((b) => ({ x: a, y: b }))),
      ).length,
    ).toBeGreaterThan(0);
  });

  test('regions that touch share the middle of their line', () => {
    const wall = (x: number, y: number) => (Math.abs(x - 100) < 4 && y > 10 && y < 190 ? 1 : 0);
    const box = (x: number, y: number) => (Math.abs(Math.max(Math.abs(x - 100), Math.abs(y - 100)) - 90) < 3 ? 1 : 0);
    const paintable = paintableOf(drawn(200, 200, both(wall, box)), { gap: 4, under: null });
    const [one, other] = [regionAt(paintable, { x: 50, y: 100 }), regionAt(paintable, { x: 150, y: 100 })];
    expect(one).not.toBe(other);
    const total = areaOf(ringsOf(paintable, [one])) + areaOf(ringsOf(paintable, [other]));
    expect(Math.abs(total / (180 * 180) - 1)).toBeLessThan(0.02);
  });

  test('a picture of 4096 px is filled as exactly as a small one', () => {
    const side = 4096;
    const cover = new Uint8Array(side * side);
    const [middle, radius] = [side / 2, 1900];
    for (let i = 0; i < 40_000; i++) {
      const turn = (i / 40_000) * 2 * Math.PI;
      for (let r = -3; r <= 3; r++)
        cover[
          Math.floor(middle + (radius + r) * Math.sin(turn)) * side + Math.floor(middle + (radius + r) * Math.cos(turn))
        ] = 255;
    }
    const barrier: Barrier = { width: side, height: side, left: 0, top: 0, scale: 1, cover, colour: null };
    const paintable = paintableOf(barrier, { gap: 8, under: null });
    const rings = ringsOf(paintable, [regionAt(paintable, { x: middle, y: middle })]);
    expect(Math.abs(areaOf(rings) / (Math.PI * radius * radius) - 1)).toBeLessThan(0.002);
  });

  test('nothing drawn has no region to fill', () => {
    const paintable = paintableOf(
      drawn(40, 40, () => 0),
      { gap: 8, under: null },
    );
    expect(enclosed(paintable)).toEqual([]);
    expect(silhouetteOf(paintable)).toEqual([]);
    expect(leaksOf(paintable.barrier, { x: 20, y: 20 }, 8)).toEqual({ places: [], minGap: null });
  });
});

describe('paint that follows regions', () => {
  const rules = { gap: 4, under: null };
  const at = (...all: [number, number, number][]) =>
    paintableOf(drawn(240, 240, both(...all.map(([x, y, r]) => circle(x, y, r, 4)))), rules);

  test('goes along, through a split and a join', () => {
    const one = at([120, 140, 60]);
    const painted = new Map([[regionAt(one, { x: 120, y: 140 }), 'flame']]);
    const moved = at([126, 132, 58]);
    const first = followed(one, painted, moved);
    expect([...first.painted.values()]).toEqual(['flame']);
    const parted = at([126, 150, 44], [130, 70, 26]);
    const second = followed(moved, first.painted, parted);
    expect([...second.painted.values()]).toEqual(['flame', 'flame']);
    const joined = followed(parted, second.painted, moved);
    expect([...joined.painted.values()]).toEqual(['flame']);
    expect(joined.lost).toEqual([]);
  });

  test('tells what is lost, what is new, and keeps bare what was left bare', () => {
    const one = at([70, 120, 40], [180, 120, 30]);
    const painted = new Map<number, string | null>([
      [regionAt(one, { x: 70, y: 120 }), 'body'],
      [regionAt(one, { x: 180, y: 120 }), null],
    ]);
    const next = at([184, 118, 30], [60, 30, 16]);
    const { lost, bare, painted: on } = followed(one, painted, next);
    expect(on.get(regionAt(next, { x: 184, y: 118 }))).toBeNull();
    expect(lost).toHaveLength(1);
    expect(Math.hypot(lost[0]!.at.x - 70, lost[0]!.at.y - 120)).toBeLessThan(40);
    expect(bare).toHaveLength(1);
  });

  test('what runs out in one drawing is looked for in those that follow, and each of them tells', () => {
    const open = (cx: number, opening: number) =>
      paintableOf(drawn(240, 240, circle(cx, 120, 60, 6, opening)), { gap: 4, under: null });
    const [first, second, third, last] = [open(120, 0), open(124, 12), open(128, 16), open(130, 0)];
    const carrier = new Carrier(first, paintedBy(first, [{ seed: { x: 120, y: 120 }, swatch: 'flame' }]));
    const went = [second, third, last].map((to) => {
      const carried = carrier.tried(to);
      carrier.goOn(to, carried);
      return carried;
    });
    expect(went.map(({ reports }) => reports.map(({ trouble }) => trouble))).toEqual([['leaked'], ['leaked'], []]);
    for (const [i, opening] of [12, 16].entries()) {
      expect(went[i]!.reports[0]!.gap).toBeGreaterThanOrEqual(opening - 2);
      expect(went[i]!.reports[0]!.gap).toBeLessThanOrEqual(opening + 1);
    }
    expect(went.map(({ shapes }) => shapes.map(({ swatch }) => swatch))).toEqual([[], [], ['flame']]);
  });

  test('what was gone and is back with a gap runs out there, however wide the gap is against those that are closed', () => {
    const open = (opening: number) =>
      paintableOf(drawn(240, 240, circle(120, 120, 60, 6, opening)), { gap: 4, under: null });
    const [whole, gone] = [open(0), paintableOf(drawn(240, 240, circle(40, 200, 12, 6)), { gap: 4, under: null })];
    const carrier = new Carrier(whole, paintedBy(whole, [{ seed: { x: 120, y: 120 }, swatch: 'flame' }]));
    const went = [gone, open(16), open(50), whole].map((to) => {
      const carried = carrier.tried(to);
      carrier.goOn(to, carried);
      return carried.reports.map(({ trouble, gap }) => [trouble, gap === null ? null : Math.round(gap / 10) * 10]);
    });
    expect(went).toEqual([
      [
        ['lost', null],
        ['bare', null],
      ],
      [['leaked', 20]],
      [['leaked', 50]],
      [],
    ]);
  });

  test('what is gone is told once where other paint goes on, and in every drawing that is left empty', () => {
    const rest = at([60, 60, 30]);
    const both2 = at([60, 60, 30], [170, 170, 30]);
    const fills = (...all: [number, number][]) => all.map(([x, y]) => ({ seed: { x, y }, swatch: 'flame' }));
    const told = (from: typeof rest, seeds: [number, number][], list: readonly (typeof rest)[]) => {
      const carrier = new Carrier(from, paintedBy(from, fills(...seeds)));
      return list.map((to) => {
        const carried = carrier.tried(to);
        carrier.goOn(to, carried);
        return carried.reports.map(({ trouble }) => trouble);
      });
    };
    expect(
      told(
        both2,
        [
          [60, 60],
          [170, 170],
        ],
        [rest, rest, both2],
      ),
    ).toEqual([['lost'], [], []]);
    const empty = at([60, 60, 0]);
    expect(told(rest, [[60, 60]], [empty, empty])).toEqual([['lost'], ['lost']]);
  });

  test('a piece that leaps farther than it is wide is found by place and size', () => {
    const one = at([80, 180, 16]);
    const next = at([92, 142, 15]);
    const { painted } = followed(one, new Map([[regionAt(one, { x: 80, y: 180 }), 'drop']]), next);
    expect([...painted.values()]).toEqual(['drop']);
  });

  test('what leaps across the picture is found where nothing else is like it, and lost where two are', () => {
    const one = at([50, 50, 24]);
    const painted = new Map([[regionAt(one, { x: 50, y: 50 }), 'ball']]);
    expect([...followed(one, painted, at([190, 180, 22])).painted.values()]).toEqual(['ball']);
    const two = followed(one, painted, at([190, 180, 22], [190, 60, 23]));
    expect(two.painted.size).toBe(0);
    expect(two.lost).toHaveLength(1);
    expect(followed(one, painted, at([190, 180, 10])).lost).toHaveLength(1);
  });

  test('goes round a cycle in which a lick breaks off and comes back', () => {
    const drawings = [
      at([120, 150, 50]),
      at([120, 152, 48], [122, 84, 14]),
      at([120, 154, 46], [126, 62, 12]),
      at([120, 152, 48], [124, 80, 13]),
    ];
    let painted: ReadonlyMap<number, string | null> = new Map([[regionAt(drawings[0]!, { x: 120, y: 150 }), 'flame']]);
    for (let i = 1; i <= drawings.length; i++) {
      const next = drawings[i % drawings.length]!;
      const on = followed(drawings[i - 1]!, painted, next);
      ({ painted } = on);
      // What has broken off is of the body's paint, or told as new; nothing that was painted is lost but what shrinks away.
      expect([...painted.values()].filter((each) => each === 'flame').length).toBeGreaterThan(0);
      expect(on.bare.length + painted.size).toBe(enclosed(next).length);
    }
    expect(painted.get(regionAt(drawings[0]!, { x: 120, y: 150 }))).toBe('flame');
  });

  test('a drawing goes on to itself as it is', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.integer({ min: 40, max: 200 }),
            fc.integer({ min: 40, max: 200 }),
            fc.integer({ min: 8, max: 34 }),
          ),
          {
            minLength: 1,
            maxLength: 5,
          },
        ),
        (circles) => {
          const one = at(...circles);
          const painted = new Map(enclosed(one).map((label) => [label, `s${label}`]));
          const again = followed(one, painted, one);
          expect([...again.painted].sort((a, b) => a[0] - b[0])).toEqual([...painted].sort((a, b) => a[0] - b[0]));
          expect(again.lost).toEqual([]);
        },
      ),
      { numRuns: 10 },
    );
  });

  test('points told to lie well inside do', () => {
    const one = at([70, 120, 40], [180, 120, 30]);
    for (const label of enclosed(one)) expect(regionAt(one, wellInside(one, label))).toBe(label);
  });
});
