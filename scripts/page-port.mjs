/** The port of the page. A browser keeps unsaved work by address: on another port it is not found, so that is asked first. */
import { createInterface } from 'node:readline/promises';
import { setTimeout as pause } from 'node:timers/promises';
import { freePort, isFree } from './database.mjs';

const LOOK_MS = 500;

async function waitFor(port) {
  console.log(`Waiting for port ${port} …`);
  while (!(await isFree(port))) await pause(LOOK_MS);
  return port;
}

/** @param waits whether to wait for the wished port without asking. */
export async function pagePort(wished, waits) {
  if (await isFree(wished)) return wished;
  if (waits) return waitFor(wished);
  const other = await freePort(wished + 1);
  console.log(
    `Port ${wished} is taken. On another port the browser does not find the unsaved work it keeps for ` +
      `http://localhost:${wished}; it is there again when Tallow runs on ${wished}.`,
  );
  if (process.stdin.isTTY) {
    const ask = createInterface({ input: process.stdin, output: process.stdout });
    const answer = await ask.question(`Wait for port ${wished} [Enter], or use ${other} now [u]? `);
    ask.close();
    if (answer.trim().toLowerCase() !== 'u') return waitFor(wished);
  } else {
    console.log(`Using ${other}. Start with --wait-for-port to wait for ${wished} instead.`);
  }
  return other;
}
