/** Where the work lies: database, exports and loops. */
import { existsSync } from 'node:fs';
import { homedir } from 'node:os';
import { join, resolve } from 'node:path';
import { root } from './system.mjs';

/** The user's folder for what programs keep. XDG Base Directory Specification 0.8: a path that is not absolute counts as none. */
export function dataHome(env = process.env) {
  const set = env.XDG_DATA_HOME;
  return join(set?.startsWith('/') ? set : join(env.HOME || homedir(), '.local', 'share'), 'tallow');
}

/** The home that earlier versions made in the clone itself. */
export const cloneHome = (clone = root) => join(clone, '.tallow');

/** Whether somebody's work lies there. */
export const isFilled = (home) => ['database-password', 'database'].some((name) => existsSync(join(home, name)));

/**
 * TALLOW_HOME; else the clone's own, where work lies in it already; else the user's data folder.
 * @param say told at every start what could be lost, and how that is put right.
 */
export function homeOf({ env = process.env, clone = root, say = console.log } = {}) {
  if (env.TALLOW_HOME) return resolve(env.TALLOW_HOME);
  const own = cloneHome(clone);
  if (!isFilled(own)) return dataHome(env);
  say(
    `Your work lies in ${own}, within the clone: \`git clean -fdx\` would delete it. ` +
      `This moves it to ${dataHome(env)}: npm run move-home`,
  );
  return own;
}
