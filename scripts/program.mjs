/** Runs one of the built programs, and notes what it said last. */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { CannotHeal } from './keep-running.mjs';
import { endOf, lastWords } from './reasons.mjs';
import { root } from './system.mjs';

/** With this a program ends that would not start a second time either: EX_CONFIG of sysexits.h. */
const CANNOT_HEAL = 78;

/**
 * @param children takes the process for as long as it runs.
 * @returns once it says that it is ready: the process, and `ended`, a promise of how it ended and its last words.
 */
export function startProgram(file, args, env, children, quiet = false) {
  const child = spawn(process.execPath, ['--enable-source-maps', join(root, 'dist', 'node', file), ...args], {
    cwd: root,
    env: { ...process.env, ...env },
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'pipe', 'ipc'],
  });
  children.add(child);
  let said = '';
  child.stderr.on('data', (text) => {
    if (!quiet) process.stderr.write(text);
    said = (said + text).slice(-8000);
  });
  const ended = new Promise((done) => {
    child.once('close', (code, signal) => {
      children.delete(child);
      done({ code, how: endOf(code, signal), words: lastWords(said) });
    });
  });
  return new Promise((ready, failed) => {
    child.once('message', () => ready({ process: child, ended }));
    void ended.then(({ code, how, words }) => {
      const why = words || `it ended (${how})`;
      // What it wrote has been seen already.
      failed(code === CANNOT_HEAL ? Object.assign(new CannotHeal(why), { isSaid: !quiet }) : new Error(why));
    });
  });
}
