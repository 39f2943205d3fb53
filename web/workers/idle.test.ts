import { inIdleTurn, nextTask } from './idle.ts';

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

test('the next task comes after what this one still has to do, and before timers', async () => {
  const came: string[] = [];
  const late = new Promise<void>((end) => {
    setTimeout(() => {
      came.push('timer');
      end();
    }, 5);
  });
  const next = nextTask().then(() => came.push('next'));
  for (let i = 0; i < 3; i++) await Promise.resolve().then(() => came.push('this'));
  await next;
  await late;
  expect(came).toEqual(['this', 'this', 'this', 'next', 'timer']);
});
