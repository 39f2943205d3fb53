import fc from 'fast-check';
import { sineTurn, ringBox, seededIds } from '../geometry/index.ts';
import { newPath, type Stroke } from '../document/index.ts';
import {
  asStandIn,
  cutWay,
  dropNode,
  easedTicks,
  easeOf,
  flatTicks,
  holdsFor,
  joinWays,
  nodePoints,
  partOfStroke,
  phaseAt,
  phasesFrom,
  PHASE_SETS,
  placeTick,
  reachOn,
  revealCount,
  simplified,
  smoothedWay,
  spacingFacts,
  stampRing,
  stampsOf,
  ticksOf,
  wayOf,
  wayThrough,
} from './index.ts';

const newId = seededIds(5);
const straight = wayThrough(
  [
    { x: 0, y: 0 },
    { x: 300, y: 400 },
  ],
  false,
);
const path = { ...newPath('e', 'Path 1', straight, false, newId), ticks: 12 };

const share = fc.double({ min: 0, max: 1, noNaN: true });
const slows = fc.array(fc.record({ at: share, width: fc.double({ min: 0.02, max: 1, noNaN: true }), amount: share }), {
  maxLength: 4,
});
const spacings = fc
  .record({
    softStart: share,
    softEnd: share,
    slows: slows.map((list) => list.map((s) => ({ ...s, id: 's' }))),
    ticks: fc.integer({ min: 2, max: 60 }),
    perspective: fc.boolean(),
    closed: fc.boolean(),
    placed: fc.dictionary(fc.integer({ min: 0, max: 59 }).map(String), share, { maxKeys: 5 }),
  })
  .map((settings) => ({ ...path, ...settings }));

describe('ticks', () => {
  test('never turn back, for any ease, slow places and ticks put by hand', () => {
    fc.assert(
      fc.property(spacings, (spaced) => {
        const ticks = ticksOf(spaced);
        expect(ticks).toHaveLength(spaced.ticks);
        ticks.forEach((t, i) => {
          expect(t).toBeGreaterThanOrEqual(ticks[i - 1] ?? 0);
          expect(t).toBeLessThanOrEqual(1);
        });
      }),
    );
  });
  test('their steps sum to the length of an open path', () => {
    fc.assert(
      fc.property(spacings, (spaced) => {
        const open = { ...spaced, closed: false, placed: {} };
        const { length } = wayOf(open);
        const { steps } = spacingFacts(
          easedTicks(open),
          length,
          open.slows.map(() => 1).concat(Array<number>(open.ticks).fill(1)),
        );
        expect(steps.reduce((a, b) => a + b, 0)).toBeCloseTo(length, 6);
      }),
    );
  });
  test('are even without an ease', () => {
    expect(easedTicks({ ...path, softStart: 0, softEnd: 0, ticks: 5 }).map((t) => Math.round(t * 1e6) / 1e6)).toEqual(
      flatTicks({ ...path, ticks: 5 }),
    );
  });
  test('by frame 4 of 12 well past the middle, the last nearly coinciding, when the end alone is soft', () => {
    const ticks = easedTicks({ ...path, softStart: 0, softEnd: 1 });
    expect(ticks[4]!).toBeGreaterThan(0.7);
    expect(ticks[11]! - ticks[10]!).toBeLessThan(0.02);
  });
  test('a softer start and end is the same curve turned round', () => {
    const ease = { softStart: 0.6, softEnd: 0.2 };
    for (const t of [0.1, 0.3, 0.5, 0.9])
      expect(easeOf(ease, t)).toBeCloseTo(1 - easeOf({ softStart: 0.2, softEnd: 0.6 }, 1 - t), 9);
  });
  test('crowd in a slow place without stopping, and stop only where asked', () => {
    const slow = (amount: number) =>
      easedTicks({ ...path, ticks: 41, softStart: 0, softEnd: 0, slows: [{ id: 'a', at: 0.5, width: 0.3, amount }] });
    const min = (ticks: number[]) => Math.min(...ticks.slice(1).map((t, i) => t - ticks[i]!));
    expect(min(slow(0.8))).toBeLessThan(0.6 * min(slow(0)));
    expect(min(slow(0.999))).toBeGreaterThan(1e-4);
    expect(min(slow(1))).toBeLessThan(min(slow(0.999)));
  });
  test('are smaller where the stand-in is small, when speed follows size', () => {
    const ticks = easedTicks({
      ...path,
      perspective: true,
      softStart: 0,
      softEnd: 0,
      standIn: { ...path.standIn, sizeStart: 100, sizeEnd: 20 },
    });
    expect(ticks[1]!).toBeGreaterThan(3 * (ticks[11]! - ticks[10]!));
  });
  test('put by hand stay between their neighbours, and the others stay where they are', () => {
    const eased = ticksOf(path);
    const dragged = { ...path, placed: placeTick(path, 5, 0.99) };
    expect(ticksOf(dragged)[5]).toBe(eased[6]);
    expect(ticksOf(dragged).filter((t, i) => t !== eased[i])).toHaveLength(1);
    const reshaped = { ...dragged, ...simplified(dragged, 10) };
    expect(ticksOf(reshaped)).toEqual(ticksOf(dragged));
  });
});

describe('ways', () => {
  const zigzag = Array.from({ length: 60 }, (_, i) => ({ x: i * 10, y: 80 * sineTurn(i / 30) }));
  test('walk by arc length and find the nearest place', () => {
    const way = wayOf({ nodes: straight, closed: false });
    expect(way.length).toBeCloseTo(500, 3);
    const half = way.at(0.5);
    expect([half.x, half.y, half.dx, half.dy].map((v) => Math.round(v * 1000) / 1000)).toEqual([150, 200, 0.6, 0.8]);
    expect(way.nearest({ x: 75 + 40, y: 100 - 30 })).toBeCloseTo(0.25, 3);
  });
  test('smooth what was drawn within their tolerance, with few nodes, closing what nearly meets', () => {
    const fitted = smoothedWay(zigzag)!;
    expect(fitted.closed).toBe(false);
    expect(fitted.nodes.length / 6).toBeLessThan(12);
    const way = wayOf(fitted);
    for (const p of zigzag) {
      const at = way.at(way.nearest(p));
      expect(Math.hypot(at.x - p.x, at.y - p.y)).toBeLessThan(7);
    }
    const round = Array.from({ length: 41 }, (_, i) => ({
      x: 200 * sineTurn(i / 40 + 0.25),
      y: 200 * sineTurn(i / 40),
    }));
    expect(smoothedWay(round)!.closed).toBe(true);
    expect(smoothedWay([{ x: 1, y: 1 }])).toBeNull();
  });
  test('taken apart and joined again are as long as before', () => {
    const whole = wayThrough(
      zigzag.filter((_, i) => i % 10 === 0),
      false,
    );
    const [a, b] = cutWay({ nodes: whole, closed: false }, 2);
    for (const joined of [joinWays(a!, b!), joinWays(b!, a!)]) {
      expect(nodePoints(joined)).toHaveLength(nodePoints(whole).length);
      expect(wayOf({ nodes: joined, closed: false }).length).toBeCloseTo(
        wayOf({ nodes: whole, closed: false }).length,
        1,
      );
    }
    expect(nodePoints(cutWay({ nodes: whole, closed: true }, 3)[0]!)).toHaveLength(7);
    expect(dropNode(straight, 0)).toBe(straight);
  });
});

describe('stand-ins', () => {
  test('lie on their ticks, along the path, and keep their area when stretched', () => {
    const stretched = { ...path, standIn: { ...path.standIn, stretch: 1, sizeStart: 40, sizeEnd: 40 } };
    const way = wayOf(path);
    const stamps = stampsOf(stretched);
    stamps.forEach((stamp, i) => {
      const at = way.at(ticksOf(path)[i]!);
      expect([stamp.x, stamp.y]).toEqual([at.x, at.y]);
      expect(stamp.frame).toBe(path.from + i * path.hold);
    });
    const middle = stamps[6]!;
    expect(middle.stretch).toBeGreaterThan(1.2);
    expect(middle.angle).toBeCloseTo(Math.atan2(4, 3), 6);
    const box = ringBox(stampRing(stretched.standIn, { ...middle, angle: 0 }));
    expect(box.right - box.left).toBeCloseTo(40 * middle.stretch, 3);
    expect(box.bottom - box.top).toBeCloseTo(40 / middle.stretch, 3);
  });
  test('a drawn one is brought to one px about its middle', () => {
    const ring = asStandIn(straight);
    expect(nodePoints(ring)).toEqual([
      { x: -0.375, y: -0.5 },
      { x: 0.375, y: 0.5 },
    ]);
  });
});

describe('reveal', () => {
  const stroke: Stroke = {
    kind: 'stroke',
    id: 'a',
    swatch: 'b',
    seed: 1,
    brush: { kind: 'ink', width: 4, opacity: 1, pressure: true },
    samples: {
      x: Float32Array.of(0, 30, 100),
      y: Float32Array.of(0, 0, 0),
      pressure: Float32Array.of(0.2, 0.5, 1),
      altitude: Float32Array.of(1, 1, 1),
      azimuth: Float32Array.of(0, 0, 0),
    },
  };
  test('gives the part of a stroke between two shares of its length, pressure with it', () => {
    const part = partOfStroke(stroke, { from: 0.15, to: 0.65 })!;
    expect([...part.samples.x]).toEqual([15, 30, 65]);
    expect([...part.samples.pressure].map((p) => Math.round(p * 100))).toEqual([35, 50, 75]);
    expect(partOfStroke(stroke, { from: 0.5, to: 0.5 })).toBeNull();
    expect([...partOfStroke(stroke, { from: 0, to: 1 })!.samples.x]).toEqual([0, 30, 100]);
  });
  test('comes whole, goes whole, and the two overlap', () => {
    fc.assert(
      fc.property(
        fc.record({
          comes: fc.integer({ min: 1, max: 30 }),
          goes: fc.integer({ min: 0, max: 30 }),
          overlap: fc.integer({ min: 0, max: 30 }),
        }),
        (revealing) => {
          const reaches = Array.from({ length: revealCount(revealing) }, (_, i) => reachOn(revealing, i));
          expect(reaches[revealing.comes - 1]!.to).toBe(1);
          if (revealing.goes > 0) expect(reaches.at(-1)!.from).toBe(1);
          else expect(reaches.every((r) => r.from === 0)).toBe(true);
          reaches.forEach((r, i) => {
            expect(r.to).toBeGreaterThanOrEqual(reaches[i - 1]?.to ?? 0);
            expect(r.from).toBeGreaterThanOrEqual(reaches[i - 1]?.from ?? 0);
          });
        },
      ),
    );
  });
});

describe('phases', () => {
  test('of every set fill any length they have room in', () => {
    fc.assert(
      fc.property(fc.constantFrom(...PHASE_SETS), fc.integer({ min: 4, max: 300 }), (set, length) => {
        const phases = phasesFrom(set, length, newId);
        expect(phases.every((p) => p.length >= 1)).toBe(true);
        expect(phases.reduce((sum, p) => sum + p.length, 0)).toBe(length);
      }),
    );
  });
  test('say how drawings are held, and cut a hold short where a phase ends', () => {
    const phases = [
      { id: 'a', name: 'Burst', length: 3, hold: 1 },
      { id: 'b', name: 'Billow', length: 5, hold: 2 },
    ];
    expect(holdsFor(0, 10, null, phases)).toEqual([1, 1, 1, 2, 2, 1, 2]);
    expect(holdsFor(0, 7, 3, phases)).toEqual([3, 3, 1]);
    expect(phaseAt(phases, 3)?.name).toBe('Billow');
    expect(phaseAt(phases, 8)).toBeUndefined();
  });
});

test('the portable sine is the sine', () => {
  for (let i = -40; i < 40; i++) expect(sineTurn(i / 17)).toBeCloseTo(Math.sin((2 * Math.PI * i) / 17), 8);
  expect(sineTurn(3.375)).toBe(sineTurn(-2.625));
});
