import { Worker } from 'node:worker_threads';
import { passGate, setGate, type Gate } from './gate.ts';

const shared = (): Gate => ({ sign: new Int32Array(new SharedArrayBuffer(4)) });

/** Another thread that stands at a gate and says when it has passed. */
function waiting({ sign }: Gate): { passed: Promise<void>; end: () => Promise<number> } {
  const worker = new Worker(
    `const { parentPort, workerData } = require('node:worker_threads');
     parentPort.postMessage('here'); Atomics.wait(workerData, 0, 1); parentPort.postMessage('passed');`,
    { eval: true, workerData: sign },
  );
  const passed = new Promise<void>((done) =>
    worker.on('message', (said) => {
      if (said === 'passed') done();
    }),
  );
  return { passed, end: () => worker.terminate() };
}

test('an open gate, and one that shares nothing, are passed at once', () => {
  passGate(shared());
  passGate({ sign: null });
  setGate({ sign: null }, true);
});

test('a thread stands at a closed gate until it is opened', async () => {
  const gate = shared();
  setGate(gate, true);
  const { passed, end } = waiting(gate);
  const first = await Promise.race([
    passed.then(() => 'passed'),
    new Promise((late) => setTimeout(late, 150, 'waits')),
  ]);
  expect(first).toBe('waits');
  setGate(gate, false);
  await passed;
  await end();
});

test('passing a closed gate takes until another thread opens it', async () => {
  const gate = shared();
  setGate(gate, true);
  const opener = new Worker(
    `const { workerData } = require('node:worker_threads');
     setTimeout(() => { Atomics.store(workerData, 0, 0); Atomics.notify(workerData, 0); }, 100);`,
    { eval: true, workerData: gate.sign },
  );
  passGate(gate);
  expect(gate.sign![0]).toBe(0);
  await opener.terminate();
});
