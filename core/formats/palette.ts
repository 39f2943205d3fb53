/** Palettes as text: one colour a line, or CSS custom properties. Either is read. */
import { SWATCH_ROLES, textProblem, type Swatch, type SwatchRole } from '../document/index.ts';

type PaletteEntry = Pick<Swatch, 'name' | 'role' | 'colour'>;

/** A line for each: `#rrggbb  role  name`. */
export const paletteText = (entries: readonly PaletteEntry[]): string =>
  entries.map(({ colour, role, name }) => `${colour}  ${role}  ${name}\n`).join('');

const propertyName = (name: string): string =>
  name
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, '-')
    .replaceAll(/^-|-$/g, '') || 'swatch';

/** Custom properties of `:root`; the role and the full name stand beside each as a comment. */
export function paletteCss(entries: readonly PaletteEntry[]): string {
  const taken = new Map<string, number>();
  const lines = entries.map(({ name, role, colour }) => {
    const base = propertyName(name);
    const count = (taken.get(base) ?? 0) + 1;
    taken.set(base, count);
    return `  --${count === 1 ? base : `${base}-${count}`}: ${colour}; /* ${role}: ${name.replaceAll('*/', '* /')} */\n`;
  });
  return `:root {\n${lines.join('')}}\n`;
}

/** Swatches in one file at most. */
const MAX = 500;

const full = (hex: string): string => (hex.length === 4 ? `#${hex.slice(1).replace(/./g, '$&$&')}` : hex).toLowerCase();

const isRole = (word: string): word is SwatchRole => (SWATCH_ROLES as readonly string[]).includes(word);

/** A line with one custom property, taken apart in one go: expressions that look back can take for ever on a hostile one. */
function propertyOf(line: string): { name: string; value: string; comment: string } | null {
  const colon = line.indexOf(':');
  const name = line.slice(2, Math.max(2, colon)).trim();
  if (colon < 0 || !/^[\p{L}\p{N}_-]+$/u.test(name)) return null;
  const rest = line.slice(colon + 1);
  const open = rest.indexOf('/*');
  const close = rest.lastIndexOf('*/');
  if (open >= 0 && close < open + 2) return null;
  const [before, after] = open < 0 ? [rest, ''] : [rest.slice(0, open), rest.slice(close + 2)];
  const value = before.trim();
  if (after.trim() !== '') return null;
  return {
    name,
    value: (value.endsWith(';') ? value.slice(0, -1) : value).trim(),
    comment: open < 0 ? '' : rest.slice(open + 2, close).trim(),
  };
}

/** Reads a palette as text or CSS, or says what is wrong and on which line. Nothing of a file with a fault is taken. */
export function readPalette(text: string): { ok: PaletteEntry[] } | { problem: string } {
  const entries: PaletteEntry[] = [];
  const lines = text.split(/\r?\n/);
  const isCss = lines.some((line) => line.trimStart().startsWith('--') && line.includes(':'));
  for (const [i, raw] of lines.entries()) {
    const line = raw.trim();
    const at = `Line ${i + 1}`;
    if (isCss) {
      if (!line.startsWith('--')) continue;
      const found = propertyOf(line);
      if (!found) return { problem: `${at}: a property is “--name: #rrggbb;”.` };
      const { name, value, comment } = found;
      if (!/^#([0-9a-f]{3}|[0-9a-f]{6})$/i.test(value))
        return { problem: `${at}: “${value}” is no colour like #e4551b.` };
      const colon = comment.indexOf(':');
      const word = comment.slice(0, Math.max(0, colon)).trim().toLowerCase();
      const named = (isRole(word) ? comment.slice(colon + 1) : comment).trim();
      entries.push({ name: named || name, role: isRole(word) ? word : 'body', colour: full(value) });
    } else {
      if (line === '' || line.startsWith('//') || line.startsWith(';')) continue;
      const found = /^(#(?:[0-9a-f]{3}|[0-9a-f]{6}))(?=\s|$)(.*)$/i.exec(line);
      if (!found) return { problem: `${at} must begin with a colour like #e4551b.` };
      const words = found[2]!.trim();
      const [word = '', ...rest] = words.split(/\s+/);
      const named = isRole(word.toLowerCase()) ? rest.join(' ') : words;
      const role = isRole(word.toLowerCase()) ? (word.toLowerCase() as SwatchRole) : 'body';
      entries.push({ name: named || found[1]!, role, colour: full(found[1]!) });
    }
    const problem = textProblem(entries.at(-1)!.name, 'The name');
    if (problem) return { problem: `${at}: ${problem}` };
    if (entries.length > MAX) return { problem: `The file has more than ${MAX} colours.` };
  }
  return entries.length > 0 ? { ok: entries } : { problem: 'There is no colour in this file.' };
}
