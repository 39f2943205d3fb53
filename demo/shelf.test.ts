import { entitiesOf, shotOf } from '@tallow/core/document';
import { shelfKinds } from '@tallow/core/shelf';
import { elementLength, placedElements, timedLayers } from '@tallow/core/timing';
import { SHIPPED } from './index.ts';

test('at least 24 effects ship, of every kind, each with a name of its own', () => {
  expect(SHIPPED.length).toBeGreaterThanOrEqual(24);
  expect(new Set(SHIPPED.map(({ name }) => name)).size).toBe(SHIPPED.length);
  const kinds = new Set(SHIPPED.map(({ kind }) => kind));
  expect(shelfKinds.filter((kind) => kind !== 'other' && !kinds.has(kind))).toEqual([]);
});

// One of each kind, those that are laid soonest; every preset closes and ends by the tests of the starters.
test.each(['Lamp flame', 'Steam', 'Ripple', 'Crackle', 'Embers', 'Grinding sparks', 'Shock ring'])(
  '%s closes or ends, stands by itself in a shot as long as it is, and grows from its anchor',
  (name) => {
    const { build } = SHIPPED.find((each) => each.name === name)!;
    const doc = build();
    const [placed, ...others] = placedElements(doc);
    expect(others).toEqual([]);
    const { element } = placed!;
    expect(element.time).not.toBe('open');
    expect(shotOf(doc).length).toBe(elementLength(doc, element));
    const drawn = timedLayers(doc, element).filter(({ layer }) => Object.keys(layer.slots).length > 2);
    expect(drawn.length).toBeGreaterThan(0);
    const [starter] = entitiesOf(doc, 'starter');
    expect(element.anchor).toEqual({ x: starter!.x, y: starter!.y });
  },
);

test('an effect is the same whenever it is built', () => {
  const { build } = SHIPPED.find(({ name }) => name === 'Ripple')!;
  expect(JSON.stringify(build())).toBe(JSON.stringify(build()));
});
