import fc from 'fast-check';
import { setToolState } from '../hand/tool-state.ts';
import { shownOf, useRecent } from './recent.ts';

const all = Array.from({ length: 20 }, (_, i) => ({ id: `s${i}` }));

test('all are shown where there is room, in their order', () => {
  expect(shownOf(all, ['s9'], 20)).toEqual(all);
});

test('where there is too little room those in hand lately are among them, none twice, in the order of the palette', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(30), { maxLength: 12 }), fc.integer({ min: 1, max: 19 }), (list, room) => {
      const recent = list.map((n) => `s${n}`);
      const shown = shownOf(all, recent, room).map(({ id }) => id);
      expect(shown).toHaveLength(room);
      expect(shown).toEqual(all.map(({ id }) => id).filter((id) => shown.includes(id)));
      const here = recent.filter((id) => all.some((each) => each.id === id)).slice(0, room);
      for (const id of here) expect(shown).toContain(id);
    }),
  );
});

test('what is taken in hand comes first, and what was in hand before it next', () => {
  useRecent.setState({ swatches: [] });
  setToolState({ swatchId: 'a' });
  setToolState({ swatchId: 'b' });
  setToolState({ swatchId: 'c' });
  setToolState({ swatchId: 'a' });
  expect(useRecent.getState().swatches.slice(0, 3)).toEqual(['a', 'c', 'b']);
});
