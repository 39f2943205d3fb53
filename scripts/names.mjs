/**
 * Finds comparisons with the name of a tool, a brush, a look, a starter or a format outside its own room. What depends on
 * which one it is belongs into its entry in the list, where whoever adds one is asked for it.
 */
import { readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';
import { root } from './system.mjs';

/** Each list: the type of its names, and the rooms that may tell them apart. */
const LISTS = [
  { of: 'look', file: 'core/looks/index.ts', type: 'LookKind', rooms: ['core/looks/'] },
  { of: 'starter', file: 'core/document/kinds/starter.ts', type: 'Effect', rooms: ['core/starters/'] },
  {
    of: 'export format',
    file: 'core/formats/exports/index.ts',
    type: 'ExportFormatName',
    rooms: ['core/formats/exports/', 'server/exports/formats/'],
  },
  { of: 'brush', file: 'web/hand/brushes.ts', type: 'BrushName', rooms: ['web/hand/brushes.ts'] },
  { of: 'tip', file: 'core/document/mark-types.ts', type: 'BrushKind', rooms: ['core/brush/'] },
];
/** Tools have no type of their names: those of their folders are looked for where a tool's name is read. */
const TOOL_ROOM = 'web/tools/';
/** A file with one of each fault: a search that does not find them is blind. */
const FIXTURE = 'scripts/fixtures/names/compared.ts';

const config = JSON.parse(readFileSync(join(root, 'tsconfig.base.json'), 'utf8')).compilerOptions;
const { options } = ts.convertCompilerOptionsFromJson(
  { ...config, composite: false, noEmit: true, types: [], lib: ['ESNext', 'DOM', 'DOM.Iterable', 'WebWorker'] },
  root,
);
const entries = ['core', 'server', 'web', 'demo'].flatMap((room) =>
  ts.sys.readDirectory(
    join(root, room),
    ['.ts', '.tsx'],
    ['**/node_modules', '**/*.test.ts', 'server/test'],
    undefined,
  ),
);
const program = ts.createProgram([...entries, join(root, FIXTURE)], options);
const checker = program.getTypeChecker();

/** The texts a type is made of, or null where it is not made of texts alone. */
function textsOf(type) {
  const parts = (type.isUnion() ? type.types : [type]).filter(
    (t) => !(t.flags & (ts.TypeFlags.Undefined | ts.TypeFlags.Null)),
  );
  return parts.length > 0 && parts.every((t) => t.isStringLiteral()) ? parts.map((t) => t.value) : null;
}

const lists = LISTS.map((list) => {
  const source = program.getSourceFile(join(root, list.file));
  const symbol =
    source && checker.getExportsOfModule(checker.getSymbolAtLocation(source)).find(({ name }) => name === list.type);
  const names = symbol && textsOf(checker.getDeclaredTypeOfSymbol(symbol));
  if (!names) throw new Error(`${list.file} has no type ${list.type} of names`);
  return { ...list, names: new Set(names) };
});

function found() {
  const faults = [];
  for (const source of program.getSourceFiles()) {
    const file = relative(root, source.fileName);
    if (file.startsWith('..') || file.includes('node_modules')) continue;
    const told = (node, of, name) => {
      const { line } = source.getLineAndCharacterOfPosition(node.getStart());
      faults.push({ file, text: `${file}:${line + 1} compares with the ${of} “${name}”` });
    };
    const compared = (node, literal, other) => {
      const tool =
        ts.isPropertyAccessExpression(other) &&
        other.name.text === 'name' &&
        /\btool\b/.test(other.expression.getText());
      if (tool && !file.startsWith(TOOL_ROOM)) told(node, 'tool', literal.text);
      const texts = textsOf(checker.getTypeAtLocation(other));
      const list =
        texts && lists.find(({ names }) => names.has(literal.text) && texts.every((text) => names.has(text)));
      if (list && !list.rooms.some((room) => file.startsWith(room))) told(node, list.of, literal.text);
    };
    const visit = (node) => {
      if (
        ts.isBinaryExpression(node) &&
        [ts.SyntaxKind.EqualsEqualsEqualsToken, ts.SyntaxKind.ExclamationEqualsEqualsToken].includes(
          node.operatorToken.kind,
        )
      ) {
        if (ts.isStringLiteral(node.right)) compared(node, node.right, node.left);
        else if (ts.isStringLiteral(node.left)) compared(node, node.left, node.right);
      }
      if (ts.isCaseClause(node) && ts.isStringLiteral(node.expression))
        compared(node, node.expression, node.parent.parent.expression);
      ts.forEachChild(node, visit);
    };
    visit(source);
  }
  return faults;
}

const all = found();
const inFixture = all.filter(({ file }) => file === FIXTURE).length;
const faults = all.filter(({ file }) => file !== FIXTURE);
if (inFixture !== 4) {
  console.error(`The search for names is blind: it finds ${inFixture} of 4 in ${FIXTURE}`);
  process.exit(1);
}
for (const { text } of faults) console.error(text);
console.log(`${faults.length} comparisons with names outside their rooms`);
process.exit(faults.length > 0 ? 1 : 0);
