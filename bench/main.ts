/** Prints every row as a table and as JSON. The goals are no test: a row above its goal is a thing to look at. */
import 'reflect-metadata';
import { browserRows } from './browser-rows.ts';
import { coreRows } from './core-rows.ts';
import { serverRows } from './server-rows.ts';
import { betweenRows } from './between-rows.ts';
import { paintRows } from './paint-rows.ts';
import { starterRows } from './starter-rows.ts';

const rows = [
  ...(await browserRows()),
  ...(await coreRows()),
  ...(await starterRows()),
  ...betweenRows(),
  ...(await paintRows()),
  ...(await serverRows()),
];
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
