/** Keeps a program running: started again whenever it ends, with waits that grow until it has been quiet for a minute. */
import { setTimeout as pause } from 'node:timers/promises';
import { adviceFor } from './reasons.mjs';

const FIRST_MS = 200;
const MOST_MS = 30_000;
const QUIET_MS = 60_000;

/** An error that no further try can heal. */
export class CannotHeal extends Error {}

const seconds = (ms) => `${ms < 1000 ? (ms / 1000).toFixed(1) : Math.round(ms / 1000)} s`;

/**
 * @param name how it is called in what is said.
 * @param start runs it once and resolves when it is ready, to `{ended}`: a promise of why it ended.
 * @param options `isStopping()`, `home`, `say`, and `quiet`: ms after which waits are short again.
 * @returns resolves when it is ready for the first time. @throws CannotHeal
 */
export async function keepRunning(name, start, { isStopping, home, say = console.log, quiet = QUIET_MS }) {
  let wait = FIRST_MS;
  const advise = (words) => {
    const advice = adviceFor(words, home);
    return advice ? ` ${advice}` : '';
  };
  const again = async (why, words) => {
    say(
      `${name} ${why}${words ? `: ${words.replace(/\.$/, '')}` : ''}. Started again in ${seconds(wait)}.${advise(words)}`,
    );
    await pause(wait);
    wait = Math.min(MOST_MS, wait * 2);
  };
  const untilReady = async () => {
    for (;;) {
      try {
        return await start();
      } catch (error) {
        if (error instanceof CannotHeal || isStopping()) throw error;
        await again('did not start', error.message);
        if (isStopping()) throw error;
      }
    }
  };
  const watch = async (running) => {
    for (;;) {
      const calm = setTimeout(() => (wait = FIRST_MS), quiet);
      const { how, words } = await running.ended;
      clearTimeout(calm);
      if (isStopping()) return;
      await again(`ended (${how})`, words);
      if (isStopping()) return;
      running = await untilReady();
      say(`${name} is back.`);
    }
  };
  const running = await untilReady();
  watch(running).catch((error) => {
    if (!isStopping()) say(`${name} cannot go on: ${error.message}`);
  });
}
