import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import type { Shortcut } from '../actions/action.ts';
import { actionOf, bind, keysOf, mirrored, sameKey, unbindAll, useBindings } from '../actions/bindings.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { ACTIONS } from './all-actions.ts';

const keys = fc.record({
  code: fc.constantFrom('KeyA', 'KeyP', 'Digit1', 'BracketLeft', 'Slash', 'Backquote', 'F5', 'Space', 'Semicolon'),
  shift: fc.boolean(),
  ctrl: fc.boolean(),
  alt: fc.boolean(),
}) satisfies fc.Arbitrary<Shortcut>;
const actions = fc.constantFrom(...ACTIONS);
const all = () => ACTIONS.flatMap((action) => keysOf(action).map((key) => ({ action, key })));
const expectUnique = () => {
  for (const { action, key } of all()) expect(actionOf(key, ACTIONS)).toBe(action);
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
    fc.property(fc.array(fc.tuple(actions, keys), { maxLength: 12 }), (bound) => {
      unbindAll();
      for (const [action, key] of bound) {
        const before = actionOf(key, ACTIONS);
        const lost = bind(action, key, ACTIONS);
        expect(lost).toBe(before === action ? undefined : before);
        expect(actionOf(key, ACTIONS)).toBe(action);
        if (lost) expect(keysOf(lost).some((each) => sameKey(each, key))).toBe(false);
      }
      expectUnique();
    }),
  );
});

test('all are given back as they were', () => {
  const before = all();
  bind(TIME_ACTIONS.play, { code: 'KeyS' }, ACTIONS);
  expect(all()).not.toEqual(before);
  unbindAll();
  expect(all()).toEqual(before);
});

test('actions keep the names under which browsers remember keys of one’s own', () => {
  const stored = JSON.parse(readFileSync(new URL('stored-actions.json', import.meta.url), 'utf8')) as string[];
  const names = new Set(ACTIONS.map(({ name }) => name));
  expect(stored.filter((name) => !names.has(name))).toEqual([]);
});
