import { find, shotOf, type Stroke } from '../document/index.ts';
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import { restyle, restyled } from './index.ts';

const made = fixture(91);
const stroke = made.stroke(0, 0, 10, 0, 20, 4);
const other = shotOf(made.base).swatches[1]!;
const rub = { kind: 'rub', id: made.newId(), brush: stroke.brush, seed: 0, samples: stroke.samples } as const;
const shape = {
  kind: 'shape',
  id: made.newId(),
  swatch: made.swatch,
  rings: [],
  rule: 'evenodd',
  opacity: 1,
} as const;

test('a stroke takes swatch, width, tapers and brush, and stays the same stroke', () => {
  const grain = { kind: 'grain', width: 30, opacity: 0.5, pressure: true } as const;
  const next = restyled(stroke, { swatch: other, width: 12, taper: [6, 0], brush: grain }) as Stroke;
  expect(next.brush).toEqual({ ...grain, width: 12, taper: [6, 0] });
  expect([next.swatch, next.id, next.samples]).toEqual([other, stroke.id, stroke.samples]);
  expect(restyled(next, { taper: [0, 0] })).toEqual({ ...next, brush: { ...grain, width: 12 } });
});

test('shapes take the swatch alone, what rubs out all but swatch and brush; what has the style already is left alone', () => {
  expect(restyled(shape, { swatch: other, width: 40 })).toEqual({ ...shape, swatch: other });
  expect(restyled(rub, { swatch: other, width: 40 })).toEqual({ ...rub, brush: { ...rub.brush, width: 40 } });
  for (const mark of [stroke, shape, rub])
    expect(restyled(mark, { swatch: made.swatch, width: stroke.brush.width })).toBe(mark);
});

test('all marks that are named take it, in every drawing, and no others', () => {
  const doc = cycleOf(made, 3, (i) => made.stroke(i, 0, i + 9, 9));
  const [a, b] = Object.values(layerOf(doc, made.layerId).slots);
  const of = (id: string) => find(doc, 'drawing', id)!.order;
  const next = restyle(doc, { [a!]: of(a!), [b!]: of(b!) }, { swatch: other });
  const swatches = Object.values(layerOf(next, made.layerId).slots).map((id) => {
    const { marks, order } = find(next, 'drawing', id)!;
    return (marks[order[0]!] as Stroke).swatch;
  });
  expect(swatches).toEqual([other, other, made.swatch]);
});
