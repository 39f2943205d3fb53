/** The exposure sheet as a page to print: a row for each frame, a column for each layer, holds as lines. */
import { shotOf, type ShotDocument } from '../document/index.ts';
import { secondsText } from '../timing/index.ts';
import { exposureSheet } from './exposure-sheet.ts';
import { escaped, tag } from './svg/markup.ts';

const STYLE = `
@page { size: A4 portrait; margin: 12mm }
* { box-sizing: border-box }
body { font: 9pt/1.25 ui-sans-serif, system-ui, sans-serif; color: #000; background: #fff; margin: 0 auto; max-width: 190mm }
h1 { font-size: 15pt; margin: 0 0 1mm }
p { margin: 0 0 4mm }
table { border-collapse: collapse; width: 100%; table-layout: fixed; font-variant-numeric: tabular-nums }
thead { display: table-header-group }
tr { break-inside: avoid }
th, td { border: 0.2mm solid #999; padding: 0.3mm 1mm; text-align: center; height: 4.6mm; overflow: hidden; white-space: nowrap; text-overflow: ellipsis }
th { font-weight: 600; background: #eee; overflow-wrap: anywhere; white-space: normal }
.f { width: 11mm; color: #444 }
.s td { border-top: 0.6mm solid #000 }
.h { color: #777 }
.n { background: repeating-linear-gradient(135deg, #fff 0 1mm, #e4e4e4 1mm 1.2mm) }
`;

/** What a cell says: the number where a drawing begins, a line while it is held, hatched where nothing is shown. */
function cell(number: string, before: string | undefined): string {
  if (number === '') return tag('td', { class: 'n' }, '');
  return number === before ? tag('td', { class: 'h' }, '│') : tag('td', {}, escaped(number));
}

/** @param from first frame, from 0. @param to one past the last. */
export function sheetPage(doc: ShotDocument, from: number, to: number): string {
  const { name, width, height, rate } = shotOf(doc);
  const { head, rows } = exposureSheet(doc, from, to);
  const heads = head.map((each, i) => tag('th', { class: i === 0 ? 'f' : null }, escaped(each))).join('');
  const body = rows.map((row, i) => {
    const cells = row.slice(1).map((number, k) => cell(number, rows[i - 1]?.[k + 1]));
    // A second begins with a thicker line.
    const begins = (from + i) % rate === 0;
    return tag('tr', { class: begins ? 's' : null }, tag('td', { class: 'f' }, row[0]) + cells.join(''));
  });
  const facts = `${width}×${height} · ${rate} fps · frames ${from + 1} to ${to} · ${secondsText(to - from, rate)}`;
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>${escaped(name)}, exposure sheet</title>
<style>${STYLE}</style>
</head>
<body>
<h1>${escaped(name)}</h1>
<p>${escaped(facts)}</p>
<table>
<thead>${tag('tr', {}, heads)}</thead>
<tbody>
${body.join('\n')}
</tbody>
</table>
</body>
</html>
`;
}
