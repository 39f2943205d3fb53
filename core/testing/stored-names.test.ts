/**
 * The names under which bodies are stored. A name that goes or changes makes stored shots unreadable: it comes only with a version
 * of the body and its migration, and this list then says the new one. New names are added to it.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { encodeEntity } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { everyKind } from './every-kind.ts';

const STORED: unknown = JSON.parse(readFileSync(join(import.meta.dirname, 'stored-names.json'), 'utf8'));

/** Ids and numbers that stand as names say nothing of the body's form. */
const isName = (key: string): boolean => /^[a-zA-Z]\w*$/.test(key) && !/^[0-9a-f]{8}/.test(key);

function namesIn(value: unknown, at: string, found: Set<string>): void {
  if (Array.isArray(value)) for (const each of value) namesIn(each, `${at}[]`, found);
  else if (value !== null && typeof value === 'object')
    for (const [key, inside] of Object.entries(value)) {
      const path = isName(key) ? `${at}.${key}` : `${at}.*`;
      found.add(path);
      namesIn(inside, path, found);
    }
}

test('bodies are stored under the names they always were', () => {
  const found = new Set<string>();
  for (const entity of Object.values(everyKind(seededIds(1)).entities))
    namesIn(encodeEntity(entity), entity.kind, found);
  expect([...found].sort()).toEqual(STORED);
});
