import fc from 'fast-check';
import { seededIds } from '../geometry/index.ts';
import {
  documentOf,
  newPlacement,
  NO_PLAN,
  newLayer,
  type Element,
  type Placement,
  type RunList,
  type ShotDocument,
} from '../document/index.ts';
import {
  framesTyped,
  describeHolds,
  dueFrame,
  elementLength,
  exposureAt,
  exposures,
  fillGap,
  insertRun,
  listFrame,
  neighbours,
  placementFrame,
  RateMeter,
  removeRun,
  retime,
  runStart,
  secondsText,
  setHold,
  timedLayers,
  totalLength,
} from './index.ts';

const newId = seededIds(3);
const list = (lengths: number[], more: Partial<RunList> = {}): RunList => ({
  kind: 'runlist',
  poses: {},
  numbers: {},
  id: newId(),
  elementId: newId(),
  runs: lengths.map((length) => ({ id: newId(), slot: length < 0 ? null : newId(), length: Math.abs(length) })),
  period: null,
  offset: 0,
  ...more,
});
const lengths = fc.array(fc.oneof(fc.integer({ min: 1, max: 9 }), fc.integer({ min: -9, max: -1 })), {
  minLength: 1,
  maxLength: 12,
});

describe('run lists', () => {
  test('every frame before the end belongs to exactly one run, in order', () => {
    fc.assert(
      fc.property(lengths, (runs) => {
        const made = list(runs);
        const total = totalLength(made);
        const seen = Array.from({ length: total }, (_, frame) => exposureAt(made, frame, total)!.index);
        expect(seen).toEqual(made.runs.flatMap((run, i) => Array<number>(run.length).fill(i)));
        expect(exposureAt(made, total, total + 5)).toBeNull();
      }),
    );
  });
  test('a hold changes only its own run, and later ones move by as much', () => {
    fc.assert(
      fc.property(lengths, fc.nat(), fc.integer({ min: 1, max: 20 }), (runs, at, hold) => {
        const made = list(runs);
        const index = at % runs.length;
        const held = setHold(made, index, hold);
        const moved = hold - made.runs[index]!.length;
        expect(exposures(held).map((e) => e.start)).toEqual(
          exposures(made).map((e) => e.start + (e.index > index ? moved : 0)),
        );
      }),
    );
  });
  test('inserting and removing the same run gives back the list', () => {
    fc.assert(
      fc.property(lengths, fc.nat(), (runs, at) => {
        const made = list(runs);
        const index = at % (runs.length + 1);
        expect(removeRun(insertRun(made, index, { id: newId(), slot: newId(), length: 2 }), index)).toEqual(made);
      }),
    );
  });
  test('an offset turns the list round the element, and runs start where they are first seen', () => {
    const made = list([2, 3, 1], { offset: 4 });
    expect([0, 1, 2, 3, 4, 5].map((f) => exposureAt(made, f, 6)!.index)).toEqual([1, 1, 1, 2, 0, 0]);
    expect(runStart(made, 0, 6)).toBe(4);
    expect(listFrame(made, 0, 6)).toBe(2);
  });
  test('a list with a period of its own repeats it', () => {
    const made = list([1, 1], { period: 2 });
    expect([0, 1, 2, 3].map((f) => exposureAt(made, f, 24)!.index)).toEqual([0, 1, 0, 1]);
  });
  test('on 3s holds every drawing for three frames and leaves gaps alone', () => {
    expect(retime(list([1, -5, 2]), 3).runs.map((run) => run.length)).toEqual([3, 5, 3]);
  });
});

describe('drawing where nothing shows', () => {
  test('keeps every other frame as it was', () => {
    fc.assert(
      fc.property(lengths, fc.nat({ max: 60 }), fc.integer({ min: 1, max: 6 }), (runs, frame, hold) => {
        const made = list(runs);
        const total = totalLength(made);
        fc.pre(!exposureAt(made, frame, 1000)?.run.slot);
        const slot = newId();
        const filled = fillGap(made, frame, slot, hold, newId);
        expect(exposureAt(filled, frame, 1000)!.run.slot).toBe(slot);
        expect(new Set(filled.runs.map((run) => run.id)).size).toBe(filled.runs.length);
        for (let f = 0; f < total; f++) {
          const now = exposureAt(filled, f, 1000)?.run.slot ?? null;
          if (now !== slot) expect(now).toBe(exposureAt(made, f, 1000)?.run.slot ?? null);
        }
      }),
    );
  });
  test('is refused where a drawing shows', () => {
    expect(() => fillGap(list([2]), 1, newId(), 1, newId)).toThrow();
  });
});

function elementOf(lists: RunList[], time: Element['time']): { doc: ShotDocument; element: Element } {
  const elementId = newId();
  const layers = lists.map((each) => ({
    ...newLayer(elementId, 'L', 'line', newId).layer,
    runListId: each.id,
    slots: Object.fromEntries(each.runs.flatMap((r) => (r.slot ? [[r.slot, newId()]] : []))),
  }));
  const element: Element = {
    kind: 'element',
    id: elementId,
    name: 'E',
    time,
    form: 'auto',
    ...NO_PLAN,
    layers: layers.map((l) => l.id),
  };
  return { doc: documentOf(newId(), [element, ...layers, ...lists]), element };
}

describe('elements', () => {
  test('are as long as their longest layer without a repeat of its own', () => {
    const { doc, element } = elementOf([list([2, 2]), list([3]), list([1], { period: 1 })], 'open');
    expect(elementLength(doc, element)).toBe(4);
  });
  test('map shot frames: cycles wrap, one-shots end, repeats are counted', () => {
    const element = (time: Element['time']): Element => ({
      kind: 'element',
      id: 'e',
      name: 'E',
      time,
      form: 'auto',
      ...NO_PLAN,
      layers: [],
    });
    const placement = (repeats: number | null): Placement => ({
      ...newPlacement('e', { start: 0, x: 0, y: 0 }, () => 'p'),
      start: 3,
      repeats,
      x: 0,
      y: 0,
    });
    const row = (time: Element['time'], repeats: number | null) =>
      [2, 3, 6, 7, 10, 11].map((f) => placementFrame(placement(repeats), element(time), 4, f));
    expect(row('cycle', null)).toEqual([null, 0, 3, 0, 3, 0]);
    expect(row('cycle', 2)).toEqual([null, 0, 3, 0, 3, null]);
    expect(row('one-shot', null)).toEqual([null, 0, 3, null, null, null]);
  });
});

describe('onion skin', () => {
  const { doc, element } = elementOf([list([2, 2, -2, 2, 2])], 'cycle');
  const timed = timedLayers(doc, element)[0]!;
  const reach = (frame: number, wraps: boolean, before: number, after: number) =>
    neighbours(timed, frame, 10, wraps, before, after).map((n) => `${n.side} ${n.index}`);

  test('counts drawings, not frames: a hold is not its own neighbour', () => {
    expect(reach(1, false, 1, 1)).toEqual(['after 1']);
    expect(reach(2, false, 1, 1)).toEqual(['before 0', 'after 3']);
  });
  test('wraps round a cycle: the last sees the first as next', () => {
    expect(reach(9, true, 0, 1)).toEqual(['after 0']);
    expect(reach(0, true, 1, 0)).toEqual(['before 4']);
  });
  test('shows no drawing twice, however far it reaches', () => {
    expect(reach(0, true, 5, 5)).toHaveLength(3);
  });
  test('looks both ways from a frame where nothing shows', () => {
    expect(reach(4, false, 1, 1)).toEqual(['before 1', 'after 3']);
  });
});

describe('the clock', () => {
  test('every frame is due for its whole time and no longer, across the seam too', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 120 }),
        fc.integer({ min: 1, max: 50 }),
        fc.nat({ max: 5000 }),
        (rate, length, n) => {
          expect(dueFrame((n * 1000) / rate, rate, 0, length)).toBe(n % length);
          expect(dueFrame(((n + 0.98) * 1000) / rate, rate, 0, length)).toBe(n % length);
        },
      ),
    );
  });
  test('the rate is what was shown, not what was asked', () => {
    const meter = new RateMeter();
    expect(meter.rate()).toBeNull();
    for (let i = 0; i < 30; i++) meter.note(i * 50);
    expect(meter.rate()).toBeCloseTo(20, 5);
  });
  test('lengths are told in seconds and in the words of the trade', () => {
    expect(secondsText(8, 24)).toBe('0.33 s');
    expect(
      [list([2, 2]), list([1, 2]), list([2, -2]), list([-4]), list([1], { period: 1 })].map((l) => describeHolds(l, 4)),
    ).toEqual(['on 2s', 'once', 'once', 'empty', 'still']);
    expect(describeHolds(list([1, 3]), 4)).toBe('mixed holds');
  });
});

test('a length is typed as frames or as seconds', () => {
  expect(['7', '0.3s', '.5 s', '0,25s', '1sec', '0.001s'].map((text) => framesTyped(text, 24))).toEqual([
    7, 7, 12, 6, 24, 1,
  ]);
  expect(['', 's', '0.3', '1 2', '-4', '3f'].map((text) => framesTyped(text, 24))).toEqual(Array(6).fill(null));
});
