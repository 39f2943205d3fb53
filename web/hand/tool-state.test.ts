import { toolState, makeTool, setBrush, takeBrush, takeTool } from './tool-state.ts';

test('ink and rub out keep brushes of their own', () => {
  takeBrush('ink');
  setBrush({ width: 33 });
  takeBrush('rub');
  setBrush({ width: 66 });
  const { brushes } = toolState();
  expect([brushes.ink.width, brushes.rub.width]).toEqual([33, 66]);
});

test('a tool is told when it is put down: by itself, by another, by a brush; not when it is taken again', () => {
  let told = 0;
  const tool = makeTool({
    name: 'made up',
    begin: () => null,
    space: 'layer',
    ghosts: 'usual',
    hasPanel: false,
    taking: { name: 'made up', label: 'Made up', group: 'Tools', keys: [] },
    putDown: () => void (told += 1),
  });
  const other = makeTool({ name: 'other', begin: () => null, space: 'layer', ghosts: 'usual', hasPanel: false });
  takeTool(tool);
  takeTool(tool);
  expect(told).toBe(0);
  tool.taking!.run();
  expect(told).toBe(1);
  takeTool(tool);
  takeTool(other);
  expect(told).toBe(2);
  takeTool(tool);
  takeBrush('ink');
  expect([told, toolState().activeTool]).toEqual([3, null]);
});
