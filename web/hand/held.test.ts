import { held, setBrush, takeBrush } from './held.ts';

test('ink and rub out keep brushes of their own', () => {
  takeBrush('ink');
  setBrush({ width: 33 });
  takeBrush('rub');
  setBrush({ width: 66 });
  const { brushes } = held();
  expect([brushes.ink.width, brushes.rub.width]).toEqual([33, 66]);
});
