import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { keptAs, recall, remember } from './memory.ts';

const had = Object.getOwnPropertyDescriptor(globalThis, 'localStorage');
afterEach(() => {
  if (had) Object.defineProperty(globalThis, 'localStorage', had);
});
const withStore = (store: Partial<Storage>): void => {
  Object.defineProperty(globalThis, 'localStorage', { value: store, configurable: true });
};

test('what is remembered is recalled', () => {
  const kept = new Map<string, string>();
  withStore({ getItem: (name) => kept.get(name) ?? null, setItem: (name, text) => void kept.set(name, text) });
  expect(remember('a', { b: 1 })).toBe(true);
  expect(recall('a')).toEqual({ b: 1 });
  expect(recall('nothing')).toBeNull();
});

test('a browser that refuses, or keeps something torn, is no trouble', () => {
  const refuse = () => {
    throw new DOMException('full', 'QuotaExceededError');
  };
  withStore({ getItem: refuse, setItem: refuse });
  expect(remember('a', 1)).toBe(false);
  expect(recall('a')).toBeNull();
  withStore({ getItem: () => '{"torn":' });
  expect(recall('a')).toBeNull();
});

interface Desk {
  readonly width: number;
  readonly look: { readonly on: boolean; readonly strength: number };
  readonly frame: number;
}
const deskOf = () =>
  create<Desk>()(
    persist(
      (): Desk => ({ width: 4, look: { on: true, strength: 1 }, frame: 0 }),
      keptAs<Desk>('desk', ['width', 'look'], (kept, preset) => ({ ...kept, look: { ...preset.look, ...kept.look } })),
    ),
  );

test('a store keeps the fields that it names, writes them when they change, and has them again at the next visit', () => {
  const kept = new Map<string, string>();
  let writings = 0;
  withStore({
    getItem: (name) => kept.get(name) ?? null,
    setItem: (name, text) => {
      writings += 1;
      kept.set(name, text);
    },
  });
  const desk = deskOf();
  desk.setState({ width: 9 });
  for (let frame = 1; frame < 50; frame++) desk.setState({ frame });
  expect(writings).toBe(1);
  expect(deskOf().getState()).toEqual({ width: 9, look: { on: true, strength: 1 }, frame: 0 });
});

test('what was remembered before more was added is made whole; what cannot be read, or lay under the old name, is no trouble', () => {
  const visit = (kept: Record<string, string>) => {
    withStore({ getItem: (name) => kept[name] ?? null, setItem: () => undefined });
    return deskOf().getState();
  };
  const preset = { width: 4, look: { on: true, strength: 1 }, frame: 0 };
  expect(visit({ desk: '{"state":{"look":{"on":false},"frame":7,"gone":1}}' })).toEqual({
    ...preset,
    look: { on: false, strength: 1 },
  });
  for (const torn of ['{"state":', '7', '"text"', '{"state":[3]}', 'null'])
    expect(visit({ desk: torn })).toEqual(preset);
  expect(visit({ 'tallow-desk': '{"width":12,"loops":true}' })).toEqual({ ...preset, width: 12 });
});
