/** Prints rows as a table and as JSON: all of them, or the groups named (`npm run bench -- brush paint`). The goals are no test: a row above its goal is a thing to look at. */
import 'reflect-metadata';
import { archiveRows } from './archive-rows.ts';
import { assembledPageRows, lightPageRows } from './assembled-page-rows.ts';
import { assemblyRows } from './assembly-rows.ts';
import { brushRows } from './brush-rows.ts';
import type { Row } from './measure.ts';
import { browserRows } from './browser-rows.ts';
import { coreRows } from './core-rows.ts';
import { formatRows } from './format-rows.ts';
import { growthRows } from './growth-rows.ts';
import { memoryRows } from './memory-rows.ts';
import { outsideRows } from './outside-rows.ts';
import { serverRows } from './server-rows.ts';
import { betweenRows } from './between-rows.ts';
import { paintRows } from './paint-rows.ts';
import { smearRows } from './smear-rows.ts';
import { soakRows } from './soak-rows.ts';
import { soundRows } from './sound-rows.ts';
import { starterRows } from './starter-rows.ts';

const GROUPS: Readonly<Record<string, () => readonly Row[] | Promise<readonly Row[]>>> = {
  browser: browserRows,
  core: coreRows,
  brush: brushRows,
  starters: starterRows,
  between: betweenRows,
  smears: smearRows,
  paint: paintRows,
  assembly: assemblyRows,
  assembled: assembledPageRows,
  light: lightPageRows,
  sound: soundRows,
  formats: formatRows,
  server: serverRows,
  growth: growthRows,
  memory: memoryRows,
  outside: outsideRows,
};
/** Those that take many minutes or gigabytes, and so only when they are asked for. */
const LONG: typeof GROUPS = { archive: archiveRows, soak: soakRows };
const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !(name in GROUPS) && !(name in LONG));
if (unknown.length > 0) {
  console.error(
    `There are no rows called ${unknown.join(', ')}. There are: ${Object.keys({ ...GROUPS, ...LONG }).join(', ')}.`,
  );
  process.exit(2);
}
const rows: Row[] = [];
for (const [name, measured] of Object.entries({ ...GROUPS, ...LONG }))
  if (asked.length === 0 ? name in GROUPS : asked.includes(name)) rows.push(...(await measured()));
const cells = rows.map((row) => [
  row.what,
  row.against,
  `${row.ratio.toFixed(2)}x`,
  `at most ${row.goal}x`,
  row.measured,
]);
const head = ['what', 'measured against', 'ratio', 'goal', 'medians'];
const widths = head.map((title, i) => Math.max(title.length, ...cells.map((row) => row[i]!.length)));
for (const line of [head, widths.map((w) => '-'.repeat(w)), ...cells])
  console.log(`| ${line.map((cell, i) => cell.padEnd(widths[i]!)).join(' | ')} |`);
console.log(JSON.stringify(rows));
process.exit(0);
