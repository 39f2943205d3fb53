/** Why a program ended, from its last words, and what a person can do where it cannot heal by itself. */

/** Lines that are said at every restart and tell nothing. */
const NOISE =
  /terminating connection due to|the database system is (starting up|shutting down|in recovery mode|not yet accepting)|^\s+at |^\s*$|(DETAIL|HINT|CONTEXT):|^Node\.js v/;

const ADVICE = [
  [
    /No space left on device|disk full|ENOSPC/i,
    (home) => `Make room on the disk of ${home}; it goes on by itself then.`,
  ],
  [/EADDRINUSE|Address already in use/i, () => 'Another program has taken its port: end that one, and it goes on.'],
  [/shared memory block .* still in use|lock file .* already exists/i, () => 'What is left of it is still ending.'],
  [/permission denied|EACCES/i, (home) => `Its user must be able to read and write ${home}: give that back.`],
  [/out of memory|Cannot allocate memory|ENOMEM/i, () => 'Memory has run out: end something else.'],
  [
    /could not locate a valid checkpoint|invalid (primary )?checkpoint|could not read (file|block)|invalid page/i,
    (home) => `The files of the database are damaged. Stop Tallow and put back a copy of ${home}.`,
  ],
];

/** The last line of what a program said that tells something, or an empty text. */
export function lastWords(said) {
  const lines = said.split('\n').filter((line) => !NOISE.test(line));
  const telling = lines.findLast((line) => /error|fatal|panic|cannot|could not/i.test(line)) ?? lines.at(-1) ?? '';
  return telling
    .replace(/^\d{4}-\d\d-\d\d [\d:.]+ \w+ \[\d+\] /, '')
    .trim()
    .slice(0, 300);
}

/** What to do about it, or null when it heals by itself. @param home the folder that all of it lies in. */
export function adviceFor(words, home) {
  return ADVICE.find(([is]) => is.test(words))?.[1](home) ?? null;
}

/** How a program ended. */
export const endOf = (code, signal) => (signal ? `killed by ${signal}` : `code ${code}`);
