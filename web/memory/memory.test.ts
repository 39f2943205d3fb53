import { quietStorage, recall, remember } from './memory.ts';

const had = Object.getOwnPropertyDescriptor(globalThis, 'localStorage');
afterEach(() => {
  if (had) Object.defineProperty(globalThis, 'localStorage', had);
});
const withStore = (store: Partial<Storage>): void => {
  Object.defineProperty(globalThis, 'localStorage', { value: store, configurable: true });
};

test('what is remembered is recalled, by itself and by a store that keeps itself', () => {
  const kept = new Map<string, string>();
  withStore({ getItem: (name) => kept.get(name) ?? null, setItem: (name, text) => void kept.set(name, text) });
  expect(remember('a', { b: 1 })).toBe(true);
  expect(recall('a')).toEqual({ b: 1 });
  expect(recall('nothing')).toBeNull();
  const storage = quietStorage<number>();
  void storage.setItem('c', { state: 3 });
  expect(storage.getItem('c')).toEqual({ state: 3 });
  void storage.removeItem('c');
  expect(storage.getItem('c')).toBeNull();
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
