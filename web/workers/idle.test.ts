import { inIdleTurn } from './idle.ts';

const done = (): Promise<void> =>
  new Promise((end) => {
    inIdleTurn(end);
  });

test('pieces come one after another, and what is taken back does not come', async () => {
  const came: string[] = [];
  inIdleTurn(() => came.push('a'));
  const takeBack = inIdleTurn(() => came.push('b'));
  inIdleTurn(() => came.push('c'));
  takeBack();
  await done();
  expect(came).toEqual(['a', 'c']);
});

test('one that fails is told and holds up no other', async () => {
  const told: unknown[] = [];
  globalThis.reportError = (error: unknown) => told.push(error);
  const fault = new Error('no canvas');
  inIdleTurn(() => {
    throw fault;
  });
  await done();
  expect(told).toEqual([fault]);
});
