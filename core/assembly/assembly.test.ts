import fc from 'fast-check';
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import {
  constant,
  entitiesOf,
  find,
  newPath,
  newPlacement,
  putEntities,
  shotOf,
  type Corners,
  type Element,
  type Placement,
  type ShotDocument,
} from '../document/index.ts';
import { addElement, setElement, anchorPlace, setPlaceAnchor } from '../edit/index.ts';
import {
  apply,
  cornersOf,
  IDENTITY,
  invert,
  isConvex,
  project,
  projectionTo,
  unproject,
  type Quad,
} from '../geometry/index.ts';
import { momentOn, outerFrame, seenFrames, turnsIn, type InTime } from '../timing/index.ts';
import {
  rideables,
  allOccurrences,
  cornersMap,
  drawingsOn,
  firstKeyOf,
  occurrencesOn,
  onWay,
  pathOf,
  placementMatrix,
  shotFrameIn,
  standing,
} from './index.ts';

const made = fixture(90);
const { elementId, layerId, newId, stroke } = made;
const doc = cycleOf(made, 4, (i) => stroke(i, 0, i, 9));
const element = find(doc, 'element', elementId)!;
const first = entitiesOf(doc, 'placement')[0]!;
const used = (changes: Partial<Placement> = {}): Placement => ({
  ...newPlacement(elementId, { start: 0, x: 0, y: 0 }, newId),
  ...changes,
});
/** The shot with some placements on its plane in place of the one it has. */
const withUses = (base: ShotDocument, ...uses: Placement[]): ShotDocument => {
  const plane = entitiesOf(base, 'plane')[0]!;
  return putEntities(base, ...uses, { ...plane, placements: uses.map(({ id }) => id) });
};

const anyTime = fc.record({
  start: fc.integer({ min: -200, max: 400 }),
  repeats: fc.option(fc.integer({ min: 1, max: 20 })),
  lasts: fc.option(fc.integer({ min: 1, max: 300 })),
  phase: fc.integer({ min: 0, max: 40 }),
  speed: fc.record({ over: fc.integer({ min: 1, max: 12 }), of: fc.integer({ min: 1, max: 12 }) }),
});
const nothing = { before: 'nothing', after: 'nothing' } as const;

describe('the map of time', () => {
  test('leads there and back: the first frame that shows something shows it, or what the speed leaps to', () => {
    fc.assert(
      fc.property(
        anyTime,
        fc.integer({ min: 1, max: 60 }),
        fc.constantFrom('cycle', 'one-shot'),
        fc.nat({ max: 500 }),
        (time, length, kind, n) => {
          const placement: InTime = { ...time, ...nothing, phase: kind === 'cycle' ? time.phase : time.phase % length };
          const timed = { time: kind } as Pick<Element, 'time'>;
          const outer = placement.start + n;
          const moment = momentOn(placement, timed, length, outer);
          if (!moment) {
            expect(n).toBeGreaterThanOrEqual(seenFrames(placement, timed, length));
            return;
          }
          expect(moment.frame).toBeLessThan(length);
          const back = outerFrame(placement, timed, length, moment.frame, moment.turn);
          expect(back).toBeLessThanOrEqual(outer);
          const again = momentOn(placement, timed, length, back)!;
          expect([again.frame, again.turn]).toEqual([moment.frame, moment.turn]);
        },
      ),
    );
  });

  test('does not drift: after 10,000 frames it is where whole numbers say', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 12 }), (over, of) => {
        const placement: InTime = { ...nothing, start: 3, repeats: null, lasts: null, phase: 5, speed: { over, of } };
        const at = Number((10_000n * BigInt(over)) / BigInt(of)) + 5;
        expect(momentOn(placement, { time: 'cycle' }, 7, 10_003)).toEqual({
          frame: at % 7,
          turn: Math.floor(at / 7),
          since: 10_000,
        });
      }),
    );
  });

  test('shows before and after what is asked for', () => {
    const once = { start: 10, repeats: null, lasts: null, phase: 0, speed: { over: 1, of: 2 } };
    const at = (before: Placement['before'], after: Placement['after'], outer: number) =>
      momentOn({ ...once, before, after }, { time: 'one-shot' }, 4, outer)?.frame ?? null;
    expect([9, 10, 11, 12, 17, 18].map((f) => at('nothing', 'nothing', f))).toEqual([null, 0, 0, 1, 3, null]);
    expect([0, 9, 18, 40].map((f) => at('first', 'last', f))).toEqual([0, 0, 3, 3]);
    expect([0, 40].map((f) => at('last', 'first', f))).toEqual([3, 0]);
    const trimmed = { ...once, ...nothing, lasts: 3, after: 'last' as const };
    expect(momentOn(trimmed, { time: 'one-shot' }, 4, 50)!.frame).toBe(1);
  });

  test('counts turns that begin in the shot', () => {
    const placement = { ...nothing, start: 2, repeats: null, lasts: null, phase: 3, speed: { over: 2, of: 1 } };
    // 22 frames of the shot are 44 of the cycle, begun at its fourth.
    expect(turnsIn(placement, { time: 'cycle' }, 8, 24)).toBe(6);
    expect(turnsIn({ ...placement, repeats: 2 }, { time: 'cycle' }, 8, 24)).toBe(3);
  });
});

describe('where it is put', () => {
  const anyPlace = fc.record({
    x: fc.integer({ min: -900, max: 900 }),
    y: fc.integer({ min: -900, max: 900 }),
    skew: fc.double({ min: -1, max: 1, noNaN: true }),
    mirror: fc.boolean(),
    scale: fc.double({ min: 0.1, max: 4, noNaN: true }),
    angle: fc.double({ min: -3, max: 3, noNaN: true }),
    turn: fc.nat({ max: 9 }),
  });
  test('has a way back, and its anchor is where it is put, whatever it is turned and scaled by', () => {
    fc.assert(
      fc.property(anyPlace, ({ x, y, skew, mirror, scale, angle, turn }) => {
        const shift = { ...first.shift, scale: constant(scale), angle: constant(angle) };
        const placement = used({ x, y, skew, mirror, shift, anchor: { x: 30, y: -20 }, drift: { x: 5, y: -2 } });
        const matrix = placementMatrix(doc, placement, element, { since: 0, turn });
        const at = apply(matrix, { x: 30, y: -20 });
        expect(at.x).toBeCloseTo(x + 30 + 5 * turn, 6);
        expect(at.y).toBeCloseTo(y - 20 - 2 * turn, 6);
        const there = apply(invert(matrix), apply(matrix, { x: 7, y: 11 }));
        expect(there.x).toBeCloseTo(7, 6);
        expect(there.y).toBeCloseTo(11, 6);
      }),
    );
  });

  const anyQuad = fc
    .tuple(...Array.from({ length: 8 }, () => fc.integer({ min: -60, max: 60 })))
    .map((d): Quad => [
      { x: d[0]!, y: d[1]! },
      { x: 200 + d[2]!, y: d[3]! },
      { x: 200 + d[4]!, y: 160 + d[5]! },
      { x: d[6]!, y: 160 + d[7]! },
    ])
    .filter(isConvex);
  const box = { left: -50, top: -40, right: 90, bottom: 70 };
  test('four corners lie exactly where they are put, straight lines stay straight, and there is a way back', () => {
    fc.assert(
      fc.property(anyQuad, fc.double({ min: 0, max: 1, noNaN: true }), (at, t) => {
        const map = projectionTo(box, at)!;
        cornersOf(box).forEach((corner, i) => {
          const p = project(map, corner);
          expect(Math.hypot(p.x - at[i]!.x, p.y - at[i]!.y)).toBeLessThan(1e-6);
        });
        const [a, b] = [project(map, { x: -50, y: -40 }), project(map, { x: 90, y: 70 })];
        const on = project(map, { x: -50 + 140 * t, y: -40 + 110 * t });
        const off =
          Math.abs((b.x - a.x) * (on.y - a.y) - (b.y - a.y) * (on.x - a.x)) / Math.hypot(b.x - a.x, b.y - a.y);
        expect(off).toBeLessThan(1e-6);
        const back = project(unproject(map), on);
        expect(Math.hypot(back.x - (-50 + 140 * t), back.y - (-40 + 110 * t))).toBeLessThan(1e-5);
      }),
    );
  });

  test('corners that are no rectangle seen in perspective are not taken', () => {
    const at: Quad = [
      { x: 0, y: 0 },
      { x: 100, y: 0 },
      { x: 20, y: 20 },
      { x: 0, y: 100 },
    ];
    expect(cornersMap(used({ corners: { box, at } as Corners }))).toBeNull();
  });

  test('along a path its anchor is on the ticks, each for as long as a tick is held, and turns with them', () => {
    const nodes = Float32Array.of(0, 0, 0, 0, 50, 0, 100, 0, 100, 0, 100, 50, 100, 100, 100, 100, 100, 100);
    const path = { ...newPath(elementId, 'Way', nodes, false, newId), ticks: 5, hold: 2, softStart: 0, softEnd: 0 };
    const placement = used({ x: 10, way: { pathId: path.id, turned: true }, anchor: { x: 3, y: 4 } });
    const world = putEntities(withUses(doc, placement), path);
    const at = (since: number) => apply(placementMatrix(world, placement, element, { since, turn: 0 }), { x: 3, y: 4 });
    expect(at(0)).toEqual({ x: 10, y: 0 });
    expect(at(1)).toEqual(at(0));
    expect(at(2).x).toBeGreaterThan(15);
    expect(at(40).x).toBeCloseTo(110, 3);
    expect(at(40).y).toBeCloseTo(100, 3);
    expect(onWay(path, 40).angle).toBeCloseTo(Math.PI / 2, 2);
  });

  test('on a followed point it goes with it, and is turned by a second one', () => {
    const slots = Object.keys(layerOf(doc, layerId).slots);
    const trace = (id: string, places: readonly (readonly [number, number])[]) => ({
      id,
      layerId,
      points: Object.fromEntries(slots.map((slot, i) => [slot, { x: places[i]![0], y: places[i]![1], aim: false }])),
    });
    const [one, two] = [newId(), newId()];
    const traces = [
      trace(one, [[0, 0], [40, 0], [80, 0], [0, 0]]), // prettier-ignore
      trace(two, [[10, 0], [40, 10], [70, 0], [10, 0]]), // prettier-ignore
    ];
    const other = addElement(putEntities(doc, { ...element, traces }), 'Rider', 0, newId);
    const rider = entitiesOf(other.doc, 'placement').find((each) => each.elementId === other.elementId)!;
    const seated = {
      ...rider,
      x: 100,
      y: 0,
      seat: { onElementId: elementId, onUseId: null, traceId: one, turnId: two },
    };
    const world = putEntities(other.doc, seated);
    const at = (frame: number) => apply(standing(world, [seated], frame)!.matrix, { x: 0, y: 0 });
    const home = find(world, 'placement', first.id)!;
    const off = { x: 100 - home.x, y: -home.y };
    expect(at(0)).toEqual({ x: 100, y: 0 });
    // A quarter turn about the point, which has gone 40 px.
    expect(at(2).x).toBeCloseTo(home.x + 40 - off.y, 6);
    expect(at(2).y).toBeCloseTo(home.y + off.x, 6);
    // Its anchor is where it is seen, ridden along; taken elsewhere, nothing that is seen moves.
    const seat = find(world, 'placement', seated.id)!;
    const anchored = setPlaceAnchor(world, seat.id, 2, { x: 7, y: -3 });
    for (const each of [world, anchored]) {
      const now = find(each, 'placement', seat.id)!;
      const its = now.anchor ?? find(each, 'element', now.elementId)!.anchor;
      expect(anchorPlace(each, now, 2).x).toBeCloseTo(apply(standing(each, [now], 2)!.matrix, its).x, 6);
      expect(anchorPlace(each, now, 2).y).toBeCloseTo(apply(standing(each, [now], 2)!.matrix, its).y, 6);
      expect(apply(standing(each, [now], 2)!.matrix, { x: 0, y: 0 }).x).toBeCloseTo(at(2).x, 6);
    }
    // On another use of it, it goes by that one's time: two frames later.
    const second = { ...home, id: newId(), start: home.start + 2, x: home.x + 300 };
    const onSecond = { ...seated, seat: { ...seated.seat, onUseId: second.id } };
    const two_ = withUses(world, home, second, onSecond);
    const there = (frame: number) => apply(standing(two_, [onSecond], frame)!.matrix, { x: 0, y: 0 });
    const before = { x: 100 - second.x, y: -second.y };
    expect(there(2)).toEqual({ x: 100, y: 0 });
    expect(there(4).x).toBeCloseTo(second.x + 40 - before.y, 6);
    expect(there(4).y).toBeCloseTo(second.y + before.x, 6);
    expect(rideables(two_).map(({ onUseId }) => onUseId)).toEqual([home.id, home.id, second.id, second.id]);
    // No two of them look alike in a list.
    const labels = rideables(two_).map(({ name, nth }) => `${name}, ${nth}`);
    expect(new Set(labels).size).toBe(4);
    expect(labels[0]).toMatch(/ · 1 of 2, 0$/);
  });
});

describe('inside one another', () => {
  /** A in B in C, C on the plane; A shows its four drawings. */
  const inB = addElement(doc, 'B', 0, newId);
  const inC = addElement(inB.doc, 'C', 0, newId);
  const a = used({ start: 2, x: 10, y: 0 });
  const b = { ...newPlacement(inB.elementId, { start: 3, x: 0, y: 20 }, newId), holderId: inC.elementId };
  const c = newPlacement(inC.elementId, { start: 5, x: 100, y: 100 }, newId);
  const nest = (into: ShotDocument, holder: string, use: Placement) => {
    const around = find(into, 'element', holder)!;
    return putEntities(into, { ...use, holderId: holder }, { ...around, layers: [...around.layers, use.id] });
  };
  const nested = withUses(nest(nest(inC.doc, inB.elementId, a), inC.elementId, b), c);
  const key = `${c.id}/${b.id}/${a.id}`;

  test('each is found by its path, on its own frame, in its own place', () => {
    const all = allOccurrences(nested, 12);
    expect(all.map((each) => each.key)).toEqual([c.id, `${c.id}/${b.id}`, key]);
    expect(all[2]!.moment.frame).toBe(12 - 5 - 3 - 2);
    expect(apply(all[2]!.matrix, { x: 0, y: 0 })).toEqual({ x: 110, y: 120 });
    expect(firstKeyOf(nested, elementId)).toBe(key);
    expect(drawingsOn(nested, 12)).toHaveLength(1);
    expect(drawingsOn(nested, 9)).toEqual([]);
  });

  test('frames lead there and back through all of them', () => {
    const path = pathOf(nested, key)!;
    for (let frame = 0; frame < 8; frame++) {
      const shotFrame = shotFrameIn(nested, path, frame, 0);
      expect(standing(nested, path, shotFrame)!.moment.frame).toBe(frame);
    }
  });

  test('what would lie in itself is not gone into, and a path that does not hold is none', () => {
    const loop = nest(nested, elementId, newPlacement(inC.elementId, { start: 0, x: 0, y: 0 }, newId));
    expect(allOccurrences(loop, 12).map((each) => each.key)).toEqual([c.id, `${c.id}/${b.id}`, key]);
    expect(pathOf(nested, `${b.id}/${a.id}`)).toBeNull();
    expect(pathOf(nested, newId())).toBeNull();
  });

  test('used many times, each is there in its own time; hidden ones are not', () => {
    const uses = Array.from({ length: 5 }, (_, i) => used({ phase: i, x: i * 10 }));
    const many = withUses(setElement(doc, elementId, { time: 'cycle' }), ...uses, used({ visible: false }));
    const on = occurrencesOn(many, 0);
    expect(on.map(({ moment }) => moment.frame)).toEqual([0, 1, 2, 3, 4]);
    expect(shotOf(many).planes).toHaveLength(1);
    expect(standing(many, [uses[2]!], 0)!.matrix).toEqual([...IDENTITY.slice(0, 4), 20, 0]);
  });
});
