import { cameText } from './archives.ts';

const shot = (name: string, more: { renewed?: boolean; onShelf?: boolean } = {}) => ({
  id: '00000000-0000-4000-8000-000000000001',
  name,
  renewed: false,
  onShelf: false,
  ...more,
});

test('what came in is counted and named', () => {
  expect(cameText({ shots: [shot('Vent smoke')] })).toBe('“Vent smoke” came in.');
  expect(cameText({ shots: [shot('A'), shot('B'), shot('C', { onShelf: true })] })).toBe(
    '2 shots and an effect of the shelf came in.',
  );
  expect(cameText({ shots: [shot('A', { renewed: true })] })).toBe(
    '“A” came in. One was here already: it stands beside that.',
  );
  expect(cameText({ shots: [shot('A', { renewed: true }), shot('B', { renewed: true })] })).toBe(
    '2 shots came in. 2 were here already: they stand beside those.',
  );
});
