/** What every action promises. One that is new in a room's list is held to all of it. */
import { GROUPS, act } from '../actions/action.ts';
import { openDocument, useDocument } from '../shot/document.ts';
import { beginAnew } from '../shot/opening.ts';
import { everyKind } from '../../core/testing/every-kind.ts';
import { seededIds } from '../../core/geometry/index.ts';
import { ACTIONS } from './all-actions.ts';

const doc = everyKind(seededIds(5));
// There is no page here: full screen is asked of a browser that gives none.
Object.assign(globalThis, {
  document: {
    fullscreenElement: null,
    documentElement: { requestFullscreen: () => Promise.reject(new Error('none')) },
  },
});

beforeEach(() => {
  beginAnew();
});

test('each has a name and a label of its own', () => {
  expect(new Set(ACTIONS.map(({ name }) => name)).size).toBe(ACTIONS.length);
  expect(new Set(ACTIONS.map(({ label }) => label)).size).toBe(ACTIONS.length);
});

describe.each(ACTIONS.map((action) => [action.name, action] as const))('%s', (_, action) => {
  test('has a label, a group, and keys that stand on a keyboard', () => {
    expect(action.label).toMatch(/^[A-Z].+[^.]$/);
    expect(GROUPS).toContain(action.group);
    for (const { code } of action.keys) expect(code).toMatch(/^[A-Z][A-Za-z]+[0-9]?$/);
  });

  test('what says it is held is let go of', () => {
    expect(action.release !== undefined).toBe(
      action.label.startsWith('Hold ') && !/^Hold (longer|shorter)$/.test(action.label),
    );
  });

  test('says why it cannot be done as a sentence', () => {
    openDocument(doc, 'Test', []);
    const why = action.whyNot?.() ?? null;
    if (why !== null) expect(why).toMatch(/^[A-Z“].*[.!]$/);
  });

  test('with no shot open it does nothing, and does not fail', () => {
    useDocument.setState({ doc: null });
    const { serial } = useDocument.getState();
    act(action);
    action.release?.();
    expect(useDocument.getState().serial).toBe(serial);
  });
});
