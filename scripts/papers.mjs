/** Finds files, commands, settings and names of the code that papers tell of and that are not there. */
import { existsSync, readFileSync } from 'node:fs';
import { readdir, readFile } from 'node:fs/promises';
import { dirname, join, relative } from 'node:path';
import { root } from './system.mjs';

const PAPERS = ['README.md', 'CONTRIBUTING.md', 'docs'];
const CODE = ['core', 'server', 'web', 'demo', 'e2e', 'bench', 'scripts'];
const SINGLE = ['package.json', 'vite.config.mjs', 'eslint.config.mjs', 'jest.config.mjs', '.ci/run'];
/** A paper with one of each fault: a search that does not find them is blind. */
const FIXTURE = 'scripts/fixtures/papers/untrue.md';
const FAULTS = [
  'core/nowhere/',
  'no-such-file.ts',
  'noSuchName',
  'npm run nothing',
  'TALLOW_NOTHING',
  'nowhere.md',
  'Nonsensical',
];

async function filesIn(folder) {
  const entries = await readdir(join(root, folder), { recursive: true, withFileTypes: true });
  return entries
    .filter((each) => each.isFile())
    .map((each) => relative(root, join(each.parentPath, each.name)))
    .filter(
      (path) => !path.includes('node_modules') && !path.startsWith('scripts/fixtures') && path !== 'scripts/papers.mjs',
    );
}

const files = [...(await Promise.all([...CODE, 'docs'].map(filesIn))).flat(), ...SINGLE];
const text = (
  await Promise.all(
    files.filter((path) => /\.(tsx?|mjs|json|css|html)$/.test(path)).map((path) => readFile(join(root, path), 'utf8')),
  )
).join('\n');
const words = new Set(text.match(/[A-Za-z_$][\w$]*/g));
const { scripts } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));

/** What of a quoted piece of a paper is not there; null where all is, or it tells of none of these. */
function missingIn(quoted) {
  const command = /^(?:[A-Z_]+=\S+ )*npm run ([\w-]+)/.exec(quoted);
  if (command) return command[1] in scripts ? null : `npm run ${command[1]}`;
  const setting = /^(TALLOW_[A-Z_]+)\b/.exec(quoted);
  if (setting) return words.has(setting[1]) ? null : setting[1];
  if (/^(core|server|web|demo|e2e|bench|scripts)\/[\w./<>*{},-]*$/.test(quoted)) {
    if (/[<>*{},]/.test(quoted)) return null;
    return existsSync(join(root, quoted)) || existsSync(join(root, `${quoted}.ts`)) ? null : quoted;
  }
  if (/^[\w./-]+\.(tsx?|mjs)$/.test(quoted))
    return files.some((path) => path === quoted || path.endsWith(`/${quoted}`)) ? null : quoted;
  // A name of the code: with a capital inside, so that plain words are not taken for one.
  const name = /^([A-Za-z_$][\w$]*)(?:\.[\w$]+)*(?:\(.*\))?$/.exec(quoted);
  if (name && /[a-z][A-Z]/.test(name[1])) return words.has(name[1]) ? null : name[1];
  return null;
}

/** Names of the code in a glossary, its third column after the word: plain words too are looked up there. */
function namesOf(paper) {
  return paper
    .split('\n')
    .filter((line) => line.startsWith('| ') && line.split('|').length === 7)
    .flatMap((line) => [...line.split('|')[4].matchAll(/`([A-Za-z]\w*)`/g)].map(([, name]) => name));
}

/** All that a paper tells of and that is not there. */
function untrueIn(path) {
  const paper = readFileSync(join(root, path), 'utf8');
  const found = [];
  for (const [, quoted] of paper.replace(/```[\s\S]*?```/g, '').matchAll(/`([^`\n]+)`/g)) {
    const missing = missingIn(quoted.trim());
    if (missing) found.push(missing);
  }
  found.push(...namesOf(paper).filter((name) => !words.has(name)));
  for (const [, target] of paper.matchAll(/\]\((?!https?:|#)([^)#\s]+)/g))
    if (!existsSync(join(root, dirname(path), target))) found.push(target);
  return found;
}

const inFixture = untrueIn(FIXTURE);
for (const wanted of FAULTS)
  if (!inFixture.includes(wanted)) {
    console.error(`The search through the papers is blind: it does not find ${wanted}`);
    process.exit(1);
  }
const papers = PAPERS.flatMap((path) =>
  path.endsWith('.md') ? [path] : files.filter((file) => file.startsWith(`${path}/`) && file.endsWith('.md')),
);
const untrue = papers.flatMap((path) => untrueIn(path).map((missing) => `${path}: ${missing}`));
for (const each of untrue) console.error(`Not there: ${each}`);
console.log(`${papers.length} papers, ${untrue.length} things they tell of that are not there`);
process.exit(untrue.length > 0 ? 1 : 0);
