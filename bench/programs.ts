/** The built programs of Tallow, each a process of its own as the start command runs them. */
import { fork, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';

/** Where the server of a bench listens. */
export const PORT = 4788;

/** Starts a program and waits until it is ready. @throws where it ends before that. */
export async function started(program: string, ...args: string[]): Promise<ChildProcess> {
  const child = fork(resolve('dist/node', program), args, {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    // Neither the demo nor the shelf: laying them would be measured too.
    env: { ...process.env, TALLOW_PORT: String(PORT), TALLOW_DEMO: 'empty', TALLOW_SHELF: 'empty' },
  });
  const over = once(child, 'exit').then(([code]) => {
    throw new Error(`${program} ended with ${String(code)} before it was ready`);
  });
  await Promise.race([once(child, 'message'), over]);
  over.catch(() => undefined);
  return child;
}

export async function ended(child: ChildProcess): Promise<void> {
  const exit = once(child, 'exit');
  child.disconnect();
  await exit;
}

/** A line of what the kernel tells of a process's memory, MB. */
const memoryOf = (pid: number, line: string): number =>
  Number(new RegExp(`${line}:\\s+(\\d+) kB`).exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? NaN) / 1024;

/** The most memory a process has held so far, MB. */
export const maxOf = (pid: number): number => memoryOf(pid, 'VmHWM');

/** The memory a process holds now, MB. */
export const nowOf = (pid: number): number => memoryOf(pid, 'VmRSS');
