/** Documents whose every value is another one that may stand there, for contracts over what can be stored at all. */
import { encodeEntity, readEntity, type Entity, type ShotDocument } from '../document/index.ts';

/** Texts of the user, by the name of their field; all other texts are ids or choices. */
const TEXTS = ['name', 'note', 'text', 'label'];
const LETTERS = ['a', 'Ü', '火', '𝔉', '"', "'", '\\', '<', '&', '\u202e', '\u0301', ' '];

type Tree = unknown;

/** All paths to single values of a tree; columns of numbers are one. */
function leavesOf(tree: Tree, path: readonly string[] = []): (readonly string[])[] {
  if (typeof tree !== 'object' || tree === null || ArrayBuffer.isView(tree)) return [path];
  return Object.entries(tree).flatMap(([key, each]) => leavesOf(each, [...path, key]));
}

const at = (tree: Tree, path: readonly string[]): Tree =>
  path.reduce((now, key) => (now as Readonly<Record<string, Tree>>)[key], tree);

/** The tree with another value at a path. */
function put(tree: Tree, [key, ...rest]: readonly string[], value: Tree): Tree {
  if (key === undefined) return value;
  const changed = put((tree as Readonly<Record<string, Tree>>)[key], rest, value);
  if (Array.isArray(tree)) return tree.map((each: Tree, i) => (String(i) === key ? changed : each));
  return { ...(tree as object), [key]: changed };
}

/** Another value of the same kind; the same where it names something. */
function other(value: Tree, key: string, random: () => number): Tree {
  const near = (n: number) => n * (0.5 + random()) + random() - 0.5;
  if (value instanceof Float32Array) return value.map(near);
  if (typeof value === 'number') return random() < 0.5 ? Math.round(near(value)) : near(value);
  if (typeof value === 'boolean') return random() < 0.5;
  if (typeof value === 'string' && TEXTS.includes(key))
    return Array.from({ length: 1 + Math.floor(random() * 30) }, () => LETTERS[Math.floor(random() * LETTERS.length)])
      .join('')
      .trim();
  return value;
}

function fuzzedEntity(entity: Entity, random: () => number): Entity {
  let now = entity;
  for (const path of leavesOf(entity)) {
    const tried = put(now, path, other(at(now, path), path.at(-1) ?? '', random)) as Entity;
    const read = readEntity(JSON.parse(JSON.stringify(encodeEntity(tried))));
    if ('ok' in read) now = read.ok;
  }
  return now;
}

/** The document with each value changed to one that its kind allows. @param random 0 to 1. */
export const fuzzed = (doc: ShotDocument, random: () => number): ShotDocument => ({
  ...doc,
  entities: Object.fromEntries(Object.entries(doc.entities).map(([id, each]) => [id, fuzzedEntity(each, random)])),
});
