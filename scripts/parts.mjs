/**
 * Holds the page to its own parts: no list of the browser's (`web/parts/select.tsx` stands for it), no `title` on what is drawn,
 * which neither pen nor finger can open (`data-tip` and `web/parts/tip-layer.tsx` stand for it), and pointers are captured in one
 * file (`web/parts/dragging.ts`).
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';
import { root } from './system.mjs';

/** A small room with one of each: a search that does not find them is blind. */
const FIXTURE = 'scripts/fixtures/parts';
const FAULTS = [
  `${FIXTURE}/one.tsx:4: <select>`,
  `${FIXTURE}/one.tsx:3: title of <button>`,
  `${FIXTURE}/one.tsx:6: captures a pointer`,
];
/** Where pointers are captured. */
const CAPTURES = 'web/parts/dragging.ts';

/** What the browser draws: its own elements, and those of libraries that become one. */
const isDrawn = (tag) => /^[a-z]/.test(tag) || tag.includes('.') || tag === 'Link' || tag === 'NavLink';

function faultsOf(path) {
  const source = ts.createSourceFile(path, readFileSync(join(root, path), 'utf8'), ts.ScriptTarget.Latest, true);
  const found = [];
  const visit = (node) => {
    if (ts.isPropertyAccessExpression(node) && node.name.text === 'setPointerCapture' && path !== CAPTURES)
      found.push(`${path}:${source.getLineAndCharacterOfPosition(node.getStart(source)).line + 1}: captures a pointer`);
    if (ts.isJsxOpeningElement(node) || ts.isJsxSelfClosingElement(node)) {
      const tag = node.tagName.getText(source);
      const at = `${path}:${source.getLineAndCharacterOfPosition(node.getStart(source)).line + 1}`;
      if (tag === 'select') found.push(`${at}: <select>`);
      const isTitled = node.attributes.properties.some(
        (each) => ts.isJsxAttribute(each) && each.name.getText(source) === 'title',
      );
      if (isDrawn(tag) && isTitled) found.push(`${at}: title of <${tag}>`);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

const faultsIn = (room) =>
  readdirSync(join(root, room), { recursive: true, withFileTypes: true })
    .filter((each) => each.isFile() && /\.tsx?$/.test(each.name))
    .map((each) => relative(root, join(each.parentPath, each.name)))
    .flatMap(faultsOf);

const inFixture = faultsIn(FIXTURE);
for (const wanted of FAULTS)
  if (!inFixture.includes(wanted)) {
    console.error(`The search for parts is blind: it does not find ${wanted}`);
    process.exit(1);
  }
const faults = faultsIn('web');
for (const each of faults) console.error(`Not one of the page's own parts: ${each}`);
console.log(`${faults.length} lists and titles of the browser's own, pointers captured elsewhere`);
process.exit(faults.length > 0 ? 1 : 0);
