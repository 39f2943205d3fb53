/**
 * Finds values that a file exports and no other names; types may have to be told along with what is of them. Names are looked for as words, comments left out: one that some other file uses for
 * something else is not found, and nothing that is used ever is.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { root } from './system.mjs';

const ROOMS = ['core', 'server', 'web', 'demo', 'e2e', 'bench'];
/** A small room with such an export: a search that does not find it is blind. */
const FIXTURE = 'scripts/fixtures/unused';
const FAULTS = [`${FIXTURE}/one.ts: nobodyAsks`];

const EXPORT = /^export (?:async )?(?:const|function\*?|class|let) ([A-Za-z_$][\w$]*)/gm;
// Lent on by an index is not used yet.
const LENT = /^export (?:type )?\{[^}]*\} from [^;]+;/gm;
const COMMENTS = /\/\*[\s\S]*?\*\/|^[ \t]*\/\/.*$/gm;

/** All exports of some rooms that no other file of them names, as lines. */
function unusedIn(rooms) {
  const files = rooms.flatMap((room) =>
    readdirSync(join(root, room), { recursive: true, withFileTypes: true })
      .filter((each) => each.isFile() && /\.(tsx?|mjs)$/.test(each.name))
      .map((each) => relative(root, join(each.parentPath, each.name)))
      .filter((path) => !path.includes('node_modules')),
  );
  const texts = files.map((path) => [path, readFileSync(join(root, path), 'utf8')]);
  /** How many files have each word. */
  const counts = new Map();
  for (const [, text] of texts)
    for (const word of new Set(
      text
        .replace(COMMENTS, '')
        .replace(LENT, '')
        .match(/[A-Za-z_$][\w$]*/g),
    ))
      counts.set(word, (counts.get(word) ?? 0) + 1);
  return texts.flatMap(([path, text]) =>
    [...text.matchAll(EXPORT)].filter(([, name]) => counts.get(name) === 1).map(([, name]) => `${path}: ${name}`),
  );
}

const inFixture = unusedIn([FIXTURE]);
for (const wanted of FAULTS)
  if (!inFixture.includes(wanted)) {
    console.error(`The search for exports is blind: it does not find ${wanted}`);
    process.exit(1);
  }
const unused = unusedIn(ROOMS);
for (const each of unused) console.error(`Exported and used nowhere else: ${each}`);
console.log(`${unused.length} exports that nobody imports`);
process.exit(unused.length > 0 ? 1 : 0);
