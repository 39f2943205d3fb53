import fc from 'fast-check';
import { seededIds } from '../geometry/index.ts';
import { addMark, newDrawing, setLayer, setSwatch } from '../edit/index.ts';
import {
  applyStep,
  joinSteps,
  mergeEntity,
  mergeOrder,
  newShotDocument,
  reversed,
  shotOf,
  touchedBetween,
  type Drawing,
  type Layer,
  type RunList,
  type ShotDocument,
  type Step,
  type Stroke,
} from './index.ts';

const newId = seededIds(2);
const base = newShotDocument(
  newId(),
  { name: 'Test', width: 640, height: 360, rate: 24, length: 24, background: null },
  newId,
);
const swatch = shotOf(base).swatches[0]!;
const only = <T>(doc: ShotDocument, kind: string): T => Object.values(doc.entities).find((e) => e.kind === kind) as T;
const layerId = only<Layer>(base, 'layer').id;
const stroke = (): Stroke => {
  const one = Float32Array.of(1);
  return {
    kind: 'stroke',
    id: newId(),
    swatch,
    brush: { kind: 'ink', width: 4, opacity: 1, pressure: false },
    seed: 0,
    samples: { x: one, y: one, pressure: one, altitude: one, azimuth: one },
  };
};
const draw = (doc: ShotDocument, mark = stroke()): ShotDocument => addMark(doc, layerId, 0, mark, newId);
const step = (name: string, before: ShotDocument, after: ShotDocument): Step => ({
  name,
  touched: touchedBetween(before, after),
});
const orders = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { maxLength: 8 });

describe('merging orders', () => {
  test('an order nobody else changed becomes ours', () => {
    fc.assert(
      fc.property(orders, orders, (from, ours) => {
        expect(mergeOrder(from, ours, from)).toEqual(ours);
        expect(mergeOrder(from, from, ours)).toEqual(ours);
        expect(mergeOrder(from, ours, ours)).toEqual(ours);
      }),
    );
  });
  test('nothing put in is lost or doubled, nothing taken out comes back', () => {
    fc.assert(
      fc.property(orders, orders, orders, (from, ours, theirs) => {
        const merged = mergeOrder(from, ours, theirs);
        const expected = [...'abcdefgh'].filter((id) =>
          from.includes(id) ? ours.includes(id) && theirs.includes(id) : ours.includes(id) || theirs.includes(id),
        );
        expect([...merged].sort()).toEqual(expected);
      }),
    );
  });
  test('two additions at the end stand one after the other', () => {
    expect(mergeOrder(['a'], ['a', 'x'], ['a', 'y'])).toEqual(['a', 'y', 'x']);
  });
});

describe('merging bodies', () => {
  test('strokes drawn on one drawing in two places are both there, once', () => {
    const start = draw(base);
    const id = only<Drawing>(start, 'drawing').id;
    const [ours, theirs] = [draw(start), draw(start)].map((doc) => doc.entities[id] as Drawing);
    const { merged, clashes } = mergeEntity(start.entities[id] as Drawing, ours!, theirs!);
    expect(clashes).toEqual([]);
    expect(new Set(merged.order)).toEqual(new Set([...ours!.order, ...theirs!.order]));
    expect(merged.order).toHaveLength(3);
    expect(mergeEntity(start.entities[id] as Drawing, merged, merged).merged).toEqual(merged);
  });
  test('a mark changed on both sides is kept twice', () => {
    const start = draw(base);
    const drawing = only<Drawing>(start, 'drawing');
    const id = drawing.order[0]!;
    const changed = (width: number): Drawing => ({
      ...drawing,
      marks: { [id]: { ...(drawing.marks[id] as Stroke), brush: { kind: 'ink', width, opacity: 1, pressure: true } } },
    });
    expect(mergeEntity(drawing, changed(7), changed(9)).merged.order).toHaveLength(2);
  });
  test('drawings added to one layer on both sides get exposures of their own', () => {
    const [ours, theirs] = [newDrawing(base, layerId, 0, newId).doc, newDrawing(base, layerId, 0, newId).doc];
    const list = only<RunList>(base, 'runlist');
    const merged = mergeEntity(list, ours.entities[list.id] as RunList, theirs.entities[list.id] as RunList).merged;
    const layer = mergeEntity(
      only<Layer>(base, 'layer'),
      only<Layer>(ours, 'layer'),
      only<Layer>(theirs, 'layer'),
    ).merged;
    expect(merged.runs).toHaveLength(2);
    expect(merged.runs.every((run) => run.slot! in layer.slots)).toBe(true);
  });
  test('different fields come together; one field changed twice is told', () => {
    const layer = only<Layer>(base, 'layer');
    const renamed = only<Layer>(setLayer(base, layerId, { name: 'A' }), 'layer');
    const hidden = only<Layer>(setLayer(base, layerId, { visible: false }), 'layer');
    expect(mergeEntity(layer, renamed, hidden)).toEqual({ merged: { ...hidden, name: 'A' }, clashes: [] });
    expect(mergeEntity(layer, renamed, { ...layer, name: 'B' })).toEqual({
      merged: { ...layer, name: 'B' },
      clashes: ['name'],
    });
  });
});

describe('steps', () => {
  test('undone and redone, any row of edits gives back the very same documents', () => {
    let doc = base;
    const states = [doc];
    const steps: Step[] = [];
    for (let i = 0; i < 12; i++) {
      const next =
        i % 3 === 0
          ? newDrawing(doc, layerId, 0, newId).doc
          : i % 3 === 1
            ? draw(doc)
            : setSwatch(doc, swatch, { colour: `#0000${10 + i}` });
      steps.push(step('edit', doc, next));
      states.push(next);
      doc = next;
    }
    for (let i = steps.length - 1; i >= 0; i--) {
      doc = applyStep(doc, reversed(steps[i]!))!;
      expect(doc).toEqual(states[i]);
    }
    for (let i = 0; i < steps.length; i++) doc = applyStep(doc, steps[i]!)!;
    expect(doc).toEqual(states.at(-1));
  });
  test("undoing a stroke leaves another's stroke on the same drawing", () => {
    const start = draw(base);
    const mine = draw(start);
    const id = only<Drawing>(start, 'drawing').id;
    const theirMark = stroke();
    const current = draw(mine, theirMark);
    const back = applyStep(current, reversed(step('stroke', start, mine)))!;
    expect((back.entities[id] as Drawing).order).toEqual([...(start.entities[id] as Drawing).order, theirMark.id]);
  });
  test('undoing the making of a drawing somebody else has drawn on is refused', () => {
    const mine = draw(base);
    expect(applyStep(draw(mine), reversed(step('stroke', base, mine)))).toBeNull();
  });
  test('joined steps are undone as one', () => {
    const a = setSwatch(base, swatch, { colour: '#111111' });
    const b = setSwatch(a, swatch, { colour: '#222222' });
    const joined = joinSteps(step('colour', base, a), step('colour', a, b));
    expect(applyStep(b, reversed(joined))).toEqual(base);
  });
});
