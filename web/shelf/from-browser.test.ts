/** Variants and presets that lay in the browser once: all that can be read goes to the shelf, once, and nothing is lost where that fails. */
import { BRUSHES } from '../hand/brushes.ts';
import { bringFromBrowser } from './from-browser.ts';

const { default: ink } = BRUSHES.ink;
const had = Object.getOwnPropertyDescriptor(globalThis, 'localStorage');
const { fetch } = globalThis;
let stored: Map<string, string>;
/** What the server was asked to keep. */
let asked: { name: string; kind: string; what: unknown }[];
let refuses: string | null;

beforeEach(() => {
  [stored, asked, refuses] = [new Map(), [], null];
  Object.defineProperty(globalThis, 'localStorage', {
    value: {
      getItem: (name: string) => stored.get(name) ?? null,
      setItem: (name: string, text: string) => void stored.set(name, text),
    },
    configurable: true,
  });
  globalThis.fetch = (_path, options) => {
    const request = JSON.parse(options?.body as string) as (typeof asked)[number];
    if (request.name === refuses) return Promise.reject(new TypeError('fetch failed'));
    asked.push(request);
    return Promise.resolve(new Response('{}', { status: 200 }));
  };
});
afterAll(() => {
  globalThis.fetch = fetch;
  if (had) Object.defineProperty(globalThis, 'localStorage', had);
});

const brushes = (...own: unknown[]): void => {
  stored.set('tallow-brushes', JSON.stringify({ state: { own }, version: 0 }));
};
const variant = (name: string) => ({ name, tool: 'ink', brush: ink });

test('what was kept here goes to the shelf under its name, and is asked for no more', async () => {
  brushes(variant('Fine'), variant('Broad'));
  await bringFromBrowser();
  expect(asked.map(({ kind, name, what }) => [kind, name, what])).toEqual([
    ['brush', 'Fine', { tool: 'ink', brush: ink }],
    ['brush', 'Broad', { tool: 'ink', brush: ink }],
  ]);
  await bringFromBrowser();
  expect(asked).toHaveLength(2);
});

test('where the server is out of reach all of it stays, and comes at the next visit', async () => {
  brushes(variant('Fine'), variant('Broad'));
  refuses = 'Broad';
  await bringFromBrowser();
  expect(asked.map(({ name }) => name)).toEqual(['Fine']);
  refuses = null;
  await bringFromBrowser();
  // The first is sent again: under the same name it takes its own place.
  expect(asked.map(({ name }) => name)).toEqual(['Fine', 'Fine', 'Broad']);
});

test('what cannot be read is passed over, and the rest goes', async () => {
  brushes(
    7,
    { name: 'No brush', tool: 'ink' },
    { name: 'Torn', tool: 'ink', brush: { width: 'wide' } },
    variant('Fine'),
  );
  stored.set('tallow-presets', JSON.stringify({ fire: [3, { name: 'No settings' }], smoke: 'text' }));
  await bringFromBrowser();
  expect(asked.map(({ name }) => name)).toEqual(['Fine']);
  stored.set('tallow-brushes', '"text"');
  await bringFromBrowser();
  expect(asked).toHaveLength(1);
});
