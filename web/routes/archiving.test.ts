import { isArchive } from './archiving.ts';

test('a file is taken for an archive by its ending', () => {
  expect(isArchive({ name: 'Vent smoke.tallow.ZIP' })).toBe(true);
  expect(isArchive({ name: 'zip.mov' })).toBe(false);
});
