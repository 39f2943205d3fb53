import fc from 'fast-check';
import { middleLine } from '../brush/index.ts';
import type { Ring } from '../document/index.ts';
import {
  ringBox,
  ringPoints,
  seededIds,
  type Box,
  doubleAreaOf,
  gridOver,
  levelLines,
  ringsAt,
} from '../geometry/index.ts';
import {
  fireGrid,
  grownAt,
  isLine,
  layAll,
  lineAlong,
  LINE_SAMPLES,
  marksFrom,
  readable,
  sceneFor,
  STARTERS,
  starterOf,
  tiedDiscs,
  unionField,
  type LaidFrame,
  type LaidMark,
  type Scene,
  type StarterKind,
} from './index.ts';
import { settingsOf } from '../controls/index.ts';

const preset = (kind: StarterKind, seed = 7): Scene => sceneFor(kind, kind.presets[0]!, seed);

/** Settings anywhere in their ranges, on the steps of the controls. */
const settingsFor = (kind: StarterKind) =>
  fc
    .record(
      Object.fromEntries(
        kind.controls.map(({ key, min, max, step }) => [
          key,
          fc.integer({ min: 0, max: Math.floor((max - min) / step) }).map((n) => min + n * step),
        ]),
      ),
    )
    .map((settings) => settingsOf(kind, settings));

const ringsIn = (marks: readonly LaidMark[] | undefined): Ring[] =>
  (marks ?? []).flatMap((mark) => (isLine(mark) ? [] : mark.rings));
const areaOf = (rings: readonly Ring[]): number =>
  Math.abs(rings.reduce((sum, ring) => sum + doubleAreaOf(ringPoints(ring, 5)), 0)) / 2;

/** The farthest that any of some points lies from a closed polyline, px. */
function farthest(points: readonly { x: number; y: number }[], line: readonly { x: number; y: number }[]): number {
  return Math.max(
    ...points.map((p) =>
      Math.min(
        ...line.map((a, i) => {
          const b = line[(i + 1) % line.length]!;
          const [dx, dy] = [b.x - a.x, b.y - a.y];
          const squared = dx * dx + dy * dy;
          const t = squared === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / squared));
          return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
        }),
      ),
    ),
  );
}

/** How often the sides of a closed polyline cross one another. */
function crossings(line: readonly { x: number; y: number }[]): number {
  const count = line.length;
  const side = (a: { x: number; y: number }, b: { x: number; y: number }, p: { x: number; y: number }) =>
    Math.sign((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x));
  let found = 0;
  for (let i = 0; i < count; i++) {
    const [a, b] = [line[i]!, line[(i + 1) % count]!];
    for (let k = i + 2; k < count; k++) {
      if (i === 0 && k === count - 1) continue;
      const [c, d] = [line[k]!, line[(k + 1) % count]!];
      if (Math.max(a.x, b.x) < Math.min(c.x, d.x) || Math.max(c.x, d.x) < Math.min(a.x, b.x)) continue;
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) found++;
    }
  }
  return found;
}

describe('the disc field', () => {
  test('cuts a disc to a ring of its radius', () => {
    const disc = { x: 3, y: -2, r: 40 };
    const grid = gridOver({ left: -40, right: 46, top: -44, bottom: 40 }, 1);
    const [ring] = ringsAt(unionField([disc], grid, 0), grid, 0, 10);
    for (const p of ringPoints(ring!, 5)) expect(Math.hypot(p.x - 3, p.y + 2)).toBeCloseTo(40, 0);
  });
  test('leaves out what is small or a sliver', () => {
    const grid = gridOver({ left: -60, right: 60, top: -60, bottom: 60 }, 1);
    const values = unionField([{ x: 0, y: 0, r: 30 }], grid, 0).map((v, i) => {
      const x = grid.left + (i % grid.columns) * grid.cell;
      return Math.max(v, 0.8 - Math.abs(x - 50));
    });
    expect(ringsAt(values, grid, 0, 10)).toHaveLength(1);
  });
});

describe.each(STARTERS.map((kind) => [kind.name, kind] as const))('%s', (_, kind) => {
  test('is the same for the same seed, and its settings stay in their ranges', () => {
    const scene = { ...preset(kind), starts: preset(kind).starts.slice(0, 3) };
    expect(layAll(kind, scene)).toEqual(layAll(kind, scene));
    const wild = settingsOf(kind, Object.fromEntries(kind.controls.map((c) => [c.key, 1e9])));
    for (const { key, max } of kind.controls) expect(wild[key]).toBe(max);
    expect(
      kind.presets.every((p) => Object.keys(p.settings).every((k) => kind.controls.some((c) => c.key === k))),
    ).toBe(true);
  });

  test('paints only with its own paints and fills only its own outputs, wherever its settings are', () => {
    fc.assert(
      fc.property(settingsFor(kind), fc.integer({ min: 0, max: 1e6 }), (settings, seed) => {
        const scene = { ...preset(kind, seed), settings, cycle: kind.cycles(settings) };
        const frame = kind.draw(scene, scene.starts.length >> 1);
        for (const [key, marks] of Object.entries(frame)) {
          expect(kind.outputs.map((o) => o.key)).toContain(key);
          for (const mark of marks) {
            expect(kind.paints.map((p) => p.key)).toContain(mark.paint);
            const numbers = isLine(mark) ? [mark.samples.x, mark.samples.y] : mark.rings;
            for (const column of numbers) expect(column.every(Number.isFinite)).toBe(true);
            if (!isLine(mark)) expect(mark.rings.length).toBeGreaterThan(0);
          }
        }
      }),
      { numRuns: 3 },
    );
  });

  const round = kind.controls.some((c) => c.key === 'ends') || kind.cycles(settingsOf(kind, {}));
  const cyclesOnly = round ? test : (_name: string, _run: () => void) => undefined;
  cyclesOnly('closes: a whole turn later every point is where it was, to 0.01 px', () => {
    fc.assert(
      fc.property(settingsFor(kind), fc.integer({ min: 0, max: 1e6 }), (random, seed) => {
        const settings = { ...random, ...('ends' in random ? { ends: 0 } : {}) };
        const scene = { ...preset(kind, seed), settings, cycle: true };
        const turn = { ...scene, starts: [0, scene.length] };
        const [first, after] = [kind.draw(turn, 0), kind.draw(turn, 1)];
        for (const [key, marks] of Object.entries(first)) {
          expect(after[key]).toHaveLength(marks.length);
          marks.forEach((mark, i) => {
            const other = after[key]![i]!;
            const columns = (m: LaidMark) => (isLine(m) ? [m.samples.x, m.samples.y] : m.rings);
            columns(mark).forEach((column, c) => {
              expect(columns(other)[c]).toHaveLength(column.length);
              column.forEach((v, k) => {
                if (Math.abs(v - columns(other)[c]![k]!) > 0.01) throw new Error(`${key} opens by more than 0.01 px`);
              });
            });
          });
        }
      }),
      { numRuns: 3 },
    );
  });

  // Contours have about 150 points at most; a bolt with its forks is one outline of straight pieces.
  const max = kind.effect === 'bolt' ? 300 : 180;
  test('lays clean outlines: few points, none crossing itself, no slivers', () => {
    const scene = preset(kind);
    const some = [1, 5, 9].filter((i) => i < scene.starts.length);
    for (const index of some) {
      for (const ring of Object.values(kind.draw(scene, index)).flatMap(ringsIn)) {
        expect(ring.length / 6).toBeLessThanOrEqual(max);
        const line = ringPoints(ring, 4);
        expect(crossings(line)).toBe(0);
        const around = line.reduce((sum, p, i) => {
          const q = line[(i + 1) % line.length]!;
          return sum + Math.hypot(q.x - p.x, q.y - p.y);
        }, 0);
        expect((2 * areaOf([ring])) / around).toBeGreaterThan(1.8);
      }
    }
  });
});

describe('pieces', () => {
  const disc = (x: number, y: number, r: number): Ring => {
    const grid = gridOver({ left: x - r, right: x + r, top: y - r, bottom: y + r }, 1);
    return ringsAt(unionField([{ x, y, r }], grid, 0), grid, 0, 1)[0]!;
  };
  const body = disc(0, 0, 60);
  const framesWith = (lives: number, cycle: boolean): LaidFrame[] =>
    readable(
      { pieces: ['body'] },
      Array.from({ length: 8 }, (_, i) => ({
        body: [{ paint: 'body', rings: [body, ...(i >= 3 && i < 3 + lives ? [disc(200, -12 * i, 14)] : [])] }],
      })),
      cycle,
    );
  test('that live under three drawings are left out, longer ones stay', () => {
    for (const cycle of [true, false]) {
      expect(framesWith(2, cycle).every((f) => ringsIn(f['body']).length === 1)).toBe(true);
      expect(framesWith(3, cycle).filter((f) => ringsIn(f['body']).length === 2)).toHaveLength(3);
    }
  });
  test.each(['fire', 'smoke', 'burst'] as const)('of a %s never stand alone in time', (effect) => {
    const kind = starterOf(effect);
    const scene = preset(kind, 11);
    const frames = layAll(kind, scene)!;
    const near = (a: Box, b: Box) =>
      a.left - 40 < b.right && b.left - 40 < a.right && a.top - 60 < b.bottom && b.top - 60 < a.bottom;
    frames.forEach((frame, i) => {
      for (const ring of ringsIn(frame['body'])) {
        const neighbours = [frames.at(i - 1), frames[(i + 1) % frames.length]].flatMap((f) => ringsIn(f?.['body']));
        expect(neighbours.some((other) => near(ringBox(ring), ringBox(other)))).toBe(true);
      }
    });
  });
});

describe('fire', () => {
  const kind = starterOf('fire');
  test('keeps its body’s area within half and twice its mean', () => {
    for (const [p, preset] of kind.presets.slice(0, 3).entries()) {
      const frames = layAll(kind, sceneFor(kind, preset, 3 + p))!;
      const areas = frames.map((f) => areaOf(ringsIn(f['body']?.slice(0, 1))));
      const mean = areas.reduce((a, b) => a + b, 0) / areas.length;
      for (const area of areas) {
        expect(area).toBeGreaterThan(mean / 2);
        expect(area).toBeLessThan(mean * 2);
      }
    }
  });
  test('what breaks off rises and never sinks', () => {
    const frames = [7, 12].flatMap((seed) => layAll(kind, preset(kind, seed))!);
    const height = preset(kind).settings['height']!;
    const free = (f: LaidFrame) =>
      ringsIn(f['body']?.filter((m) => m.paint === 'body'))
        .map(ringBox)
        .filter((b) => b.bottom < -0.6 * height);
    let followed = 0;
    frames.forEach((frame, i) => {
      for (const piece of i % 12 === 11 ? [] : free(frame)) {
        const next = free(frames[i + 1]!).find(
          (b) => Math.abs(b.left + b.right - piece.left - piece.right) < 120 && Math.abs(b.top - piece.top) < 90,
        );
        if (!next) continue;
        followed++;
        expect(next.top + next.bottom).toBeLessThan(piece.top + piece.bottom);
      }
    });
    expect(followed).toBeGreaterThan(2);
  });
  test('its contours lie within half a px of the field’s own', () => {
    const grid = fireGrid(preset(kind));
    const discs = [
      { x: 0, y: -60, r: 70 },
      { x: 30, y: -170, r: 42 },
    ];
    const values = unionField(discs, grid, 30);
    const lines = levelLines(values, grid, 0).map((line) => line.map(([x, y]) => ({ x, y })));
    ringsAt(values, grid, 0, 30).forEach((ring, i) => {
      expect(farthest(ringPoints(ring, 6), lines[i]!)).toBeLessThanOrEqual(0.5);
    });
  });
  test('a line along an outline has at most 150 samples and stays within three quarters of a px of it', () => {
    const frame = kind.draw(preset(kind), 0);
    for (const ring of ringsIn(frame['body']).slice(0, 1)) {
      const samples = lineAlong(ring);
      expect(samples.x.length).toBeLessThanOrEqual(LINE_SAMPLES);
      const line = middleLine(samples, { kind: 'ink', width: 4, opacity: 1, pressure: true });
      expect(farthest(line, ringPoints(ring, 8))).toBeLessThanOrEqual(0.75);
    }
  });
});

test('smoke rises: no ball of a plume is ever lower on the next drawing, until it comes round', () => {
  const kind = starterOf('smoke');
  const scene = preset(kind);
  const heights = (i: number) =>
    (kind.draw(scene, i)['balls'] ?? []).map((m) => (isLine(m) ? ringBoxOf(m.samples) : 0));
  const ringBoxOf = ({ y }: { y: Float32Array }) => (Math.min(...y) + Math.max(...y)) / 2;
  const [now, next] = [heights(2).sort((a, b) => a - b), heights(3).sort((a, b) => a - b)];
  // Of the balls that stay, each has risen.
  for (const [i, y] of now.slice(1).entries()) expect(next[i]!).toBeLessThan(y + 1);
});

test('a burst has most of its size within the first fifth', () => {
  expect(grownAt(0)).toBe(0);
  expect(grownAt(0.2)).toBeGreaterThan(0.66);
  expect(grownAt(1)).toBe(1);
});

test('a bolt lives for some drawings with small shifts, and strikes elsewhere then', () => {
  const kind = starterOf('bolt');
  const scene = preset(kind);
  const end = (i: number) => {
    const boxes = ringsIn(kind.draw(scene, i)['core']).map(ringBox);
    return { bottom: Math.max(...boxes.map((b) => b.bottom)), left: Math.min(...boxes.map((b) => b.left)) };
  };
  expect(Math.abs(end(1).bottom - end(2).bottom)).toBeLessThan(40);
  expect(kind.draw(scene, 1)['core']).not.toEqual(kind.draw(scene, 2)['core']);
  expect(kind.draw(scene, 7)['core']).toEqual([]);
  expect(Math.abs(end(9).left - end(1).left)).toBeGreaterThan(5);
});

test('a gob keeps its area on its way, within an eighth', () => {
  const kind = starterOf('liquid');
  const scene = preset(kind);
  const disc = Math.PI * (scene.settings['size']! / 2) ** 2;
  for (const i of [0, 2, 4, 6]) {
    const area = areaOf(ringsIn(kind.draw(scene, i)['body']));
    expect(Math.abs(area / disc - 1)).toBeLessThan(0.25);
  }
});

test('tied shapes keep the sum of their areas', () => {
  const scene = preset(starterOf('tied'));
  for (const age of [0, 0.3, 0.5, 0.9, 1]) {
    const [a, b] = tiedDiscs(scene, age);
    expect(a.r ** 2 + b.r ** 2).toBeCloseTo((scene.settings['size']! / 2) ** 2, 6);
  }
});

test('marks are moved to where the starter stands and take the swatch of their paint', () => {
  const kind = starterOf('fire');
  const frame = kind.draw(preset(kind), 0);
  const marks = marksFrom(frame['body']!, (paint) => `swatch ${paint}`, { x: 100, y: 50 }, seededIds(1));
  const [mark] = marks;
  expect(mark).toMatchObject({ kind: 'shape', swatch: 'swatch body', rule: 'evenodd', opacity: 1 });
  expect(mark?.kind === 'shape' && mark.rings[0]![0]).toBeCloseTo(ringsIn(frame['body'])[0]![0]! + 100, 3);
});
