import fc from 'fast-check';
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import { addFolder, dropKey, setKey, setLayer, setValue, valueOf } from '../edit/index.ts';
import { apply } from '../geometry/index.ts';
import { drawListOf } from '../render/index.ts';
import { shiftAt } from '../timing/index.ts';
import {
  AT_HOME,
  constant,
  encodeEntity,
  find,
  jumpsAtSeam,
  keysIn,
  readEntity,
  valueAt,
  withKey,
  withNumber,
  withoutKey,
  type Value,
} from './index.ts';

const fade = withKey(withKey(constant(1), 2, 1), 6, 0);

it('is one number, or goes from key to key', () => {
  expect([0, 2, 4, 6, 9].map((f) => valueAt(fade, f, null))).toEqual([1, 1, 0.5, 0, 0]);
  expect(valueAt(constant(7), 3, null)).toBe(7);
});

it('goes round a cycle: from the last key on to the first', () => {
  // Ten frames: from frame 6 to frame 12, which is 2 of the next turn.
  expect([6, 8, 9, 0, 1, 2].map((f) => Math.round(valueAt(fade, f, 10) * 100) / 100)).toEqual([
    0, 0.33, 0.5, 0.67, 0.83, 1,
  ]);
});

it('goes on as its key says', () => {
  const held = withKey(fade, 2, 1, 'hold');
  expect(valueAt(held, 5, null)).toBe(1);
  const soft = withKey(fade, 2, 1, 'soft');
  expect(valueAt(soft, 3, null)).toBeGreaterThan(0.75);
  expect(valueAt(soft, 4, null)).toBe(0.5);
});

it('is set throughout, or at a frame once it changes over time', () => {
  expect(withNumber(constant(1), 5, 0.3)).toEqual(constant(0.3));
  expect(keysIn(withNumber(fade, 4, 0.9)).map(({ frame }) => frame)).toEqual([2, 4, 6]);
  expect(withoutKey(withoutKey(fade, 6), 2)).toEqual(constant(1));
});

it('says when it does not end where it began', () => {
  const sudden: Value = {
    keys: [
      { frame: 0, value: 1, ease: 'straight' },
      { frame: 9, value: 0, ease: 'straight' },
    ],
  };
  expect(jumpsAtSeam(sudden, 10)).toBe(true);
  expect(jumpsAtSeam(fade, 10)).toBe(false);
  expect(jumpsAtSeam(constant(4), 10)).toBe(false);
});

it('holds at its ends where time ends, where it has one key, and where its last key lies on the seam or past it', () => {
  const once = withKey(constant(1), 4, 5);
  expect([0, 4, 9].map((f) => valueAt(once, f, 10))).toEqual([5, 5, 5]);
  const toSeam = withKey(withKey(constant(0), 3, 1), 10, 8);
  expect([0, 3, 9].map((f) => valueAt(toSeam, f, 10))).toEqual([1, 1, 7]);
  // A frame earlier it leads on to the first key of the next turn.
  expect(valueAt(withKey(withKey(constant(0), 3, 1), 9, 9), 1, 10)).toBe(5);
  expect(valueAt({ keys: [] }, 3, null)).toBe(0);
});

it('jumps at the seam where that step is half as large again as any other', () => {
  const steps = (...values: number[]): Value => ({
    keys: values.map((v, frame) => ({ frame, value: v, ease: 'straight' })),
  });
  expect(jumpsAtSeam(steps(0, 2, 4, 3), 4)).toBe(false);
  expect(jumpsAtSeam(steps(0, 2, 4, 3.5), 4)).toBe(true);
  expect(jumpsAtSeam(steps(0, 10, 11, 12), 4)).toBe(false);
  expect(jumpsAtSeam(steps(3, 3, 3), 3)).toBe(false);
  expect(jumpsAtSeam(steps(0, 9), 1)).toBe(false);
});

it('keeps how a key goes on where only its number changes', () => {
  const soft = withKey(fade, 2, 1, 'soft');
  expect(keysIn(withKey(soft, 2, 0.4))).toEqual([
    { frame: 2, value: 0.4, ease: 'soft' },
    { frame: 6, value: 0, ease: 'straight' },
  ]);
  expect(keysIn(withKey(soft, 4, 0.4))[1]).toEqual({ frame: 4, value: 0.4, ease: 'straight' });
});

it('stays between its keys, whatever the frame', () => {
  const key = fc.record({ frame: fc.integer({ min: 0, max: 40 }), value: fc.integer({ min: -50, max: 50 }) });
  fc.assert(
    fc.property(
      fc.array(key, { minLength: 1, maxLength: 8 }),
      fc.integer({ min: 0, max: 47 }),
      fc.boolean(),
      (keys, f, round) => {
        const value = keys.reduce<Value>((all, { frame, value: v }) => withKey(all, frame, v, 'soft'), constant(0));
        const all = keysIn(value).map((k) => k.value);
        const at = valueAt(value, f, round ? 48 : null);
        expect(at).toBeGreaterThanOrEqual(Math.min(...all) - 1e-9);
        expect(at).toBeLessThanOrEqual(Math.max(...all) + 1e-9);
      },
    ),
  );
});

describe('of a layer', () => {
  const made = fixture(3);
  const { layerId, base } = made;
  const doc = cycleOf(made, 4, () => made.stroke(0, 0, 10, 10));

  it('puts it elsewhere over time, and the picture follows', () => {
    let moved = setKey(doc, layerId, 'x', 0, 8);
    moved = setValue(setKey(moved, layerId, 'x', 4, 8), layerId, 'x', 4, 80);
    const at = (frame: number) => apply(drawListOf(moved, frame, { guides: true })[0]!.matrix, { x: 0, y: 0 }).x;
    const home = apply(drawListOf(doc, 0, { guides: true })[0]!.matrix, { x: 0, y: 0 }).x;
    expect([0, 2, 4, 6].map((f) => at(f) - home)).toEqual([0, 40, 80, 40]);
    expect(valueOf(layerOf(dropKey(dropKey(moved, layerId, 'x', 0), layerId, 'x', 4), layerId), 'x')).toEqual(
      constant(80),
    );
  });

  it('turns and scales about the anchor', () => {
    const shift = { ...AT_HOME, angle: constant(Math.PI / 2), scale: constant(2) };
    const layer = { ...layerOf(doc, layerId), shift };
    const there = apply(shiftAt({ layer, folder: undefined }, { x: 10, y: 0 }, 0, null), { x: 15, y: 0 });
    expect([there.x, there.y].map((v) => Math.round(v * 1000) / 1000)).toEqual([10, 10]);
  });

  it('moves a layer with its folder, after where it is put itself', () => {
    const elementId = layerOf(doc, layerId).elementId;
    const filed = addFolder(doc, elementId, 'All', [layerId], made.newId);
    const put = setValue(setValue(filed.doc, filed.folderId, 'x', 0, 30), filed.folderId, 'scale', 0, 2);
    const own = setValue(put, layerId, 'x', 0, 5);
    const home = drawListOf(doc, 0, { guides: true })[0]!.matrix;
    const { anchor } = find(doc, 'element', elementId)!;
    // Scaled about the anchor, what the layer is moved by counts twice.
    const at = apply(drawListOf(own, 0, { guides: true })[0]!.matrix, anchor);
    const before = apply(home, anchor);
    expect([at.x - before.x, at.y - before.y].map(Math.round)).toEqual([40, 0]);
  });

  it('keeps to its limits, and fades on a frame', () => {
    expect(valueOf(layerOf(setValue(doc, layerId, 'opacity', 0, 3), layerId), 'opacity')).toEqual(constant(1));
    const keyed = setLayer(setKey(doc, layerId, 'opacity', 0, 8), layerId, { opacity: 0.5 }, 4);
    expect(drawListOf(keyed, 2, { guides: true })[0]!.opacity).toBeCloseTo(0.75);
  });

  it('is read back exactly, and refused when its frames do not rise', () => {
    const layer = layerOf(setKey(base, layerId, 'angle', 3, null), layerId);
    expect(readEntity(JSON.parse(JSON.stringify(encodeEntity(layer))))).toEqual({ ok: layer });
    const bad = {
      ...layer,
      opacity: {
        keys: [
          { frame: 4, value: 1, ease: 'soft' },
          { frame: 4, value: 0, ease: 'soft' },
        ],
      },
    };
    expect(readEntity(bad)).toMatchObject({
      problems: [{ field: 'opacity.keys', message: expect.stringMatching(/rising order/) }],
    });
    expect(readEntity({ ...layer, opacity: { constant: 4 } })).toMatchObject({
      problems: [
        { field: expect.stringMatching(/^opacity/), message: expect.stringMatching(/from 0 to 1|within its range/) },
      ],
    });
    const old = Object.fromEntries(Object.entries(layer).filter(([field]) => field !== 'shift'));
    expect(readEntity(JSON.parse(JSON.stringify(old)))).toMatchObject({ ok: { shift: AT_HOME } });
  });
});

it('puts a layer about the anchor, scaled, turned and moved, and its folder round that', () => {
  const anchor = { x: 10, y: 20 };
  const put = (x: number, y: number, scale: number, angle: number) => ({
    shift: { x: constant(x), y: constant(y), scale: constant(scale), angle: constant(angle) },
  });
  const at = (
    layer: ReturnType<typeof put>,
    folder: ReturnType<typeof put> | null,
    point: { x: number; y: number },
  ) => {
    const { x, y } = apply(shiftAt({ layer, folder } as Parameters<typeof shiftAt>[0], anchor, 0, null), point);
    return [Math.round(x * 1e6) / 1e6, Math.round(y * 1e6) / 1e6];
  };
  const rest = put(0, 0, 1, 0);
  const quarter = put(0, 0, 1, Math.PI / 2);
  expect(at(rest, null, { x: 3, y: 4 })).toEqual([3, 4]);
  expect(at(put(5, -7, 1, 0), null, { x: 3, y: 4 })).toEqual([8, -3]);
  expect(at(put(0, 6, 1, 0), null, { x: 3, y: 4 })).toEqual([3, 10]);
  expect(at(put(0, 0, 2, 0), null, { x: 11, y: 23 })).toEqual([12, 26]);
  expect(at(quarter, null, { x: 11, y: 20 })).toEqual([10, 21]);
  expect(at(rest, quarter, { x: 11, y: 20 })).toEqual([10, 21]);
  expect(at(put(0, 0, 3, 0), rest, { x: 11, y: 20 })).toEqual([13, 20]);
  // The layer first, then its folder: moved by 1 to the right, which a quarter turn makes downwards.
  expect(at(put(1, 0, 1, 0), quarter, { x: 10, y: 20 })).toEqual([10, 21]);
});
