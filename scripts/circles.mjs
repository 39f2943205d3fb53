/**
 * Finds circles of imports among files and among folders, types included, and imports that point outwards. Those that
 * stood when this began are listed in circles.json; that list may only shrink.
 */
import { cruise } from 'dependency-cruiser';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './system.mjs';

const ROOMS = ['core', 'server', 'web', 'demo', 'bench', 'e2e'];
/** A small tree with one of each fault: a search that does not find them is blind. */
const FIXTURE = 'scripts/fixtures/circle';
const FAULTS = [
  `file: ${FIXTURE}/one.ts -> ${FIXTURE}/two.ts`,
  `folder: ${FIXTURE}/other -> ${FIXTURE}/room`,
  `outwards: ${FIXTURE}/other/c.ts -> ${FIXTURE}/room/a.ts`,
];
/** What each workspace must not import: dependencies point inwards, to core. */
const OUTWARDS = {
  '^core/': '^(server|web|demo|bench|e2e)/',
  '^demo/': '^(server|web|bench|e2e)/',
  '^server/': '^(web|bench|e2e)/',
  '^web/': '^(server|demo|bench|e2e)/',
  [`^${FIXTURE}/other/`]: `^${FIXTURE}/room/`,
};
const rules = [
  { name: 'file', severity: 'error', from: {}, to: { circular: true } },
  { name: 'folder', scope: 'folder', severity: 'error', from: {}, to: { circular: true } },
  ...Object.entries(OUTWARDS).map(([from, to]) => ({
    name: 'outwards',
    severity: 'error',
    from: { path: from },
    to: { path: to },
  })),
];

/** All that is against the rules in some folders, each as one line. */
async function found(folders) {
  const { output } = await cruise(folders, {
    baseDir: root,
    validate: true,
    metrics: true,
    ruleSet: { forbidden: rules },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    // Tests may look at anything.
    exclude: { path: ['node_modules', '[.](test|spec)[.]tsx?$', ...(folders[0] === FIXTURE ? [] : [FIXTURE])] },
  });
  return output.summary.violations.map(({ rule, from, to }) => `${rule.name}: ${from} -> ${to}`);
}

const inFixture = await found([FIXTURE]);
for (const wanted of FAULTS)
  if (!inFixture.includes(wanted)) {
    console.error(`The search for circles is blind: it does not find ${wanted}`);
    process.exit(1);
  }
const known = new Set(JSON.parse(readFileSync(join(root, 'scripts', 'circles.json'), 'utf8')));
const now = new Set(await found(ROOMS));
const fresh = [...now].filter((each) => !known.has(each));
const gone = [...known].filter((each) => !now.has(each));
for (const each of fresh) console.error(`new: ${each}`);
for (const each of gone) console.error(`gone, so take it out of circles.json: ${each}`);
console.log(`${now.size} circles and outward imports, ${known.size} known`);
process.exit(fresh.length + gone.length > 0 ? 1 : 0);
