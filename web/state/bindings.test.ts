import fc from 'fast-check';
import type { Action, Key } from './action.ts';
import { ACTION_NAMES, ACTIONS, type ActionName } from './actions.ts';
import { actionOf, bind, keysOf, mirrored, sameKey, unbindAll, useBindings } from './bindings.ts';

const keys = fc.record({
  code: fc.constantFrom('KeyA', 'KeyP', 'Digit1', 'BracketLeft', 'Slash', 'Backquote', 'F5', 'Space', 'Semicolon'),
  shift: fc.boolean(),
  ctrl: fc.boolean(),
  alt: fc.boolean(),
}) satisfies fc.Arbitrary<Key>;
const names = fc.constantFrom(...ACTION_NAMES);
const all = () => ACTION_NAMES.flatMap((name) => keysOf(name).map((key) => ({ name, key })));
const expectUnique = () => {
  for (const { name, key } of all()) expect(actionOf(key)).toBe(name);
};

beforeEach(() => {
  unbindAll();
  useBindings.setState({ leftHanded: false });
});

test('no key has two actions, for right hands and for left ones', () => {
  expectUnique();
  useBindings.setState({ leftHanded: true });
  expectUnique();
});

test('every action has a label of its own, and one that is held can be let go of', () => {
  expect(new Set(ACTION_NAMES.map((name) => ACTIONS[name].label)).size).toBe(ACTION_NAMES.length);
  const held = ACTION_NAMES.filter((name) => ACTIONS[name].label.startsWith('Hold '));
  const releasing = held.filter((name) => (ACTIONS[name] as Action).release !== undefined);
  expect(releasing).toEqual(held.filter((name) => !['longer', 'shorter'].includes(name)));
});

test('the mirror of a key’s mirror is the key, and commands with Ctrl stay where they are', () => {
  fc.assert(
    fc.property(keys, (key) => {
      expect(mirrored(mirrored(key))).toEqual(key);
      if (key.ctrl) expect(mirrored(key)).toEqual(key);
      expect(mirrored(key)).toMatchObject({ shift: key.shift, ctrl: key.ctrl, alt: key.alt });
    }),
  );
});

test('whatever is bound, a key never has two actions, and the last one bound has it', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(names, keys), { maxLength: 12 }), (bound) => {
      unbindAll();
      for (const [name, key] of bound) {
        const before = actionOf(key);
        const lost = bind(name, key);
        expect(lost).toBe(before === name ? undefined : before);
        expect(actionOf(key)).toBe(name);
        if (lost) expect(keysOf(lost).some((each) => sameKey(each, key))).toBe(false);
      }
      expectUnique();
    }),
  );
});

test('all are given back as they were', () => {
  const before = all();
  bind('play' satisfies ActionName, { code: 'KeyS' });
  expect(all()).not.toEqual(before);
  unbindAll();
  expect(all()).toEqual(before);
});
