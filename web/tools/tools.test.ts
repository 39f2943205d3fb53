/** What every tool promises. One that is new in the list is held to all of it; so is one that is made up here. */
import { IDENTITY } from '@tallow/core/geometry';
import { everyKind } from '../../core/testing/every-kind.ts';
import { seededIds } from '../../core/geometry/index.ts';
import { toolState, makeTool, takeTool } from '../hand/tool-state.ts';
import type { PenSample } from '../hand/pen-doing.ts';
import { openDocument, useDocument } from '../shot/document.ts';
import { beginAnew } from '../shot/opening.ts';
import { seenOf, TOOLS } from './index.ts';

const sample = (x: number, y: number): PenSample => ({
  x,
  y,
  pressure: 1,
  altitude: 1.5,
  azimuth: 0,
  shift: false,
  alt: false,
});

let dropped = 0;
const invented = makeTool({
  name: 'invented',
  begin: () => ({ move: () => undefined, up: () => true, drop: () => void (dropped += 1) }),
  space: 'layer',
  ghosts: 'usual',
  hasPanel: false,
  taking: { name: 'invented', label: 'Invented', group: 'Tools', keys: [] },
});

const ALL = [...TOOLS, { tool: invented }];

beforeEach(() => {
  beginAnew();
  openDocument(everyKind(seededIds(6)), 'Test', []);
});

test('each has a name of its own', () => {
  expect(new Set(ALL.map(({ tool }) => tool.name)).size).toBe(ALL.length);
});

describe.each(ALL.map((seen) => [seen.tool.name, seen] as const))('%s', (_, { tool, Panel }) => {
  test('says truly whether it has settings', () => {
    expect(Panel !== undefined).toBe(tool.hasPanel);
    if (tool !== invented) expect(seenOf(tool).Panel).toBe(Panel);
  });

  test('what can be taken by a button in the tray can be taken by a key', () => {
    if (tool.Icon) expect(tool.taking?.keys.length).toBeGreaterThan(0);
  });

  test('is taken in hand and put down again by its action', () => {
    tool.taking?.run();
    if (tool.taking) expect(toolState().activeTool).toBe(tool);
    tool.taking?.run();
    expect(toolState().activeTool).toBeNull();
  });

  test('backing out of what it began leaves the document as it was, and nothing to undo', () => {
    takeTool(tool);
    const { doc, done } = useDocument.getState();
    const doing = tool.begin(IDENTITY, sample(5, 5));
    doing?.move([sample(6, 6), sample(9, 20), sample(30, 24)]);
    doing?.drop();
    expect(useDocument.getState().doc?.entities).toEqual(doc?.entities);
    expect(useDocument.getState().done).toHaveLength(done.length);
    expect(toolState().activeTool).toBe(tool);
  });
});

test('a made-up tool gets the pen and backs out', () => {
  expect(dropped).toBeGreaterThan(0);
});
