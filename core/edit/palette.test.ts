import fc from 'fast-check';
import { hexOf, oklchOf, shifted } from '../colour/index.ts';
import { find, FIRST_SWATCHES, shotOf, entitiesOf } from '../document/index.ts';
import { paletteCss, paletteText, readPalette } from '../formats/index.ts';
import { fixture } from '../fixture.ts';
import { paintsOnLayer, plainOf } from '../render/index.ts';
import {
  addMark,
  addRecolour,
  addSwatches,
  mergeSwatch,
  removeSwatches,
  dropRecolour,
  seeRecolour,
  setRecolour,
  setLayer,
  setSwatch,
  unusedSwatches,
  usesOf,
} from './index.ts';

const { base, newId, layerId, elementId, stroke, swatch } = fixture();
const drawn = addMark(base, layerId, 0, stroke(0, 0, 50, 50), newId);
const others = shotOf(base).swatches.slice(1);

test('where a swatch is used is told, and what is used nowhere can go', () => {
  expect(usesOf(drawn, swatch).layers).toEqual([{ layerId, drawings: 1 }]);
  expect(unusedSwatches(drawn)).toEqual(others);
  const tinted = setLayer(drawn, layerId, { tint: others[0]! });
  expect(usesOf(tinted, others[0]!).others).toEqual({ tint: 1 });
  const ends = { run: 'axis', form: 'linear', from: { x: 0, y: 0 }, to: { x: 0, y: 1 } } as const;
  const gradient = {
    ...ends,
    stops: [
      { at: 0, swatch: others[1]! },
      { at: 1, swatch: others[2]! },
    ],
  };
  const graded = setSwatch(tinted, swatch, { gradient });
  expect(unusedSwatches(graded)).toEqual([others[3]]);
  expect(shotOf(removeSwatches(graded, unusedSwatches(graded))).swatches).not.toContain(others[3]);
});

test('merging takes every mark along, and gradients and tints with them', () => {
  const merged = mergeSwatch(drawn, swatch, others[1]!);
  const drawing = entitiesOf(merged, 'drawing')[0]!;
  expect(Object.values(drawing.marks).map((m) => m.kind === 'stroke' && m.swatch)).toEqual([others[1]]);
  expect(find(merged, 'swatch', swatch)).toBeUndefined();
  expect(mergeSwatch(drawn, swatch, swatch)).toBe(drawn);
});

test('an element is seen in other swatches, switched without touching what was drawn', () => {
  const { doc, recolourId } = addRecolour(drawn, elementId, 'blue', { [swatch]: others[2]! }, newId);
  const seen = (d: typeof doc) => plainOf(paintsOnLayer(d, layerId)(swatch));
  expect(seen(doc)).toBe(find(base, 'swatch', others[2])!.colour);
  expect(seen(seeRecolour(doc, elementId, null))).toBe(FIRST_SWATCHES[0]!.colour);
  expect(seeRecolour(doc, elementId, recolourId)).toBe(doc);
  for (const e of Object.values(doc.entities)) if (e.kind === 'drawing') expect(e).toBe(drawn.entities[e.id]);
});

test('palettes go out as text and CSS and come back as they were', () => {
  const entry = fc.record({
    name: fc.stringMatching(/^[a-zA-Z][a-zA-Z0-9 ]{0,20}[a-zA-Z]$/),
    role: fc.constantFrom('outline', 'body', 'core', 'light', 'shade', 'hole' as const),
    colour: fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`),
  });
  fc.assert(
    fc.property(fc.array(entry, { minLength: 1, maxLength: 12 }), (given) => {
      const entries = given.map((each) => ({ ...each, name: each.name.replaceAll(/ +/g, ' ') }));
      expect(readPalette(paletteText(entries as never))).toEqual({ ok: entries });
      expect(readPalette(paletteCss(entries as never))).toEqual({ ok: entries });
    }),
  );
  expect(readPalette('#abc\n#12345g')).toEqual({ problem: 'Line 2 must begin with a colour like #e4551b.' });
  expect(readPalette('')).toEqual({ problem: 'There is no colour in this file.' });
  expect(readPalette('--fire: red;')).toEqual({ problem: 'Line 1: “red” is no colour like #e4551b.' });
  expect(readPalette('--a: #fff; /* open')).toEqual({ problem: 'Line 1: a property is “--name: #rrggbb;”.' });
  // Hostile lines are read in one go, however long: a minute would not do otherwise.
  const blanks = ' '.repeat(400_000);
  for (const text of [
    `--a: #fff; /*${blanks}`,
    `--a:${blanks}x`,
    `${'-'.repeat(400_000)}\n#fff`,
    `--a: #fff${blanks}; /* b */ c`,
  ])
    expect(readPalette(text)).toHaveProperty('problem');
  expect(readPalette('#ABC shade  deep one')).toEqual({ ok: [{ colour: '#aabbcc', role: 'shade', name: 'deep one' }] });
  const ends = { form: 'linear', run: 'axis', from: { x: 0, y: 0 }, to: { x: 0, y: 1 } } as const;
  const [a, b, c] = [newId(), newId(), newId()];
  const brought = addSwatches(
    drawn,
    [
      { id: a, name: 'foot', role: 'shade', colour: '#101010' },
      { id: b, name: 'head', role: 'light', colour: '#f0f0f0' },
      {
        id: c,
        name: 'fade',
        role: 'body',
        colour: '#808080',
        gradient: {
          ...ends,
          stops: [
            { at: 0, swatch: a },
            { at: 1, swatch: b },
          ],
        },
      },
    ],
    newId,
  );
  const named = (name: string) => entitiesOf(brought, 'swatch').find((e) => e.name === name)!;
  expect(named('fade')).toMatchObject({
    gradient: { stops: [{ swatch: named('foot').id }, { swatch: named('head').id }] },
  });
  const grown = addSwatches(drawn, [{ name: 'line', role: 'outline', colour: FIRST_SWATCHES[0]!.colour }], newId);
  expect(grown).toBe(drawn);
});

test('lightness, chroma and hue lead back to the colour they were taken from', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 0xffffff }), (n) => {
      const hex = `#${n.toString(16).padStart(6, '0')}`;
      const back = hexOf(oklchOf(hex));
      for (const i of [1, 3, 5])
        expect(
          Math.abs(Number.parseInt(back.slice(i, i + 2), 16) - Number.parseInt(hex.slice(i, i + 2), 16)),
        ).toBeLessThanOrEqual(1);
    }),
  );
  expect(shifted('#e6571b', { hue: 360, chroma: 1, lightness: 0 })).toBe('#e6571b');
  // What sRGB cannot show is taken back to what it can.
  expect(hexOf({ l: 0.9, c: 0.37, h: 260 })).toMatch(/^#[0-9a-f]{6}$/);
});

describe('an element in other swatches', () => {
  const [a, b, c] = shotOf(drawn).swatches as [string, string, string];
  const { doc, recolourId } = addRecolour(drawn, elementId, 'blue', { [a]: b }, newId);
  const recolourIn = (now: typeof doc) =>
    find(now, 'element', elementId)!.recolours.find(({ id }) => id === recolourId);

  test('one more is set for another, one set for itself is itself again, and the name changes', () => {
    expect(recolourIn(setRecolour(doc, elementId, recolourId, { from: b, to: c }))?.map).toEqual({ [a]: b, [b]: c });
    expect(recolourIn(setRecolour(doc, elementId, recolourId, { from: a, to: a }))?.map).toEqual({});
    expect(recolourIn(setRecolour(doc, elementId, recolourId, { name: 'Cold' }))).toEqual({
      id: recolourId,
      name: 'Cold',
      map: { [a]: b },
    });
  });

  test('other recolourings are left alone, and one that is gone is shown no more', () => {
    const two = addRecolour(doc, elementId, 'red', { [b]: c }, newId);
    const set = setRecolour(two.doc, elementId, recolourId, { from: c, to: a });
    expect(find(set, 'element', elementId)!.recolours.find(({ id }) => id === two.recolourId)?.map).toEqual({ [b]: c });
    const seen = seeRecolour(two.doc, elementId, recolourId);
    expect(find(dropRecolour(seen, elementId, two.recolourId), 'element', elementId)).toMatchObject({
      recolour: recolourId,
    });
    expect(find(dropRecolour(seen, elementId, recolourId), 'element', elementId)).toMatchObject({ recolour: null });
    expect(recolourIn(dropRecolour(seen, elementId, recolourId))).toBeUndefined();
  });
});
