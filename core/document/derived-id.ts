/** Ids that hang on what they are for, so that doing the same thing twice makes one thing. */
import type { Id } from './id.ts';

const SEEDS = [0x811c9dc5, 0x2f0b4c27, 0x9e3779b9, 0x5bd1e995] as const;

function hashText(hash: number, text: string): number {
  let h = hash;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193) ^ (h >>> 13);
  return h;
}

function hashValue(hash: number, value: unknown): number {
  if (typeof value !== 'object' || value === null) return hashText(hash, `${typeof value} ${String(value)}`);
  if (value instanceof Float32Array) {
    let h = hashText(hash, `floats ${value.length}`);
    for (const word of new Uint32Array(value.buffer, value.byteOffset, value.length))
      h = Math.imul(h ^ word, 0x01000193) ^ (h >>> 13);
    return h;
  }
  if (Array.isArray(value))
    return value.reduce<number>((h, each) => hashValue(h, each), hashText(hash, `list ${value.length}`));
  const record = value as Readonly<Record<string, unknown>>;
  return Object.keys(record)
    .sort()
    .reduce((h, key) => hashValue(hashText(h, `key ${key}`), record[key]), hashText(hash, 'record'));
}

/**
 * An id made from another id and some plain data (typed arrays count by their bits, keys in any order).
 * Equal arguments give equal ids; it has the form of a UUID of version 8 (RFC 9562, section 5.8).
 */
export function derivedId(from: Id, content: unknown): Id {
  const hex = SEEDS.map((seed) => (hashValue(hashText(seed, from), content) >>> 0).toString(16).padStart(8, '0')).join(
    '',
  );
  const variant = ((parseInt(hex[16]!, 16) & 3) | 8).toString(16);
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-${variant}${hex.slice(17, 20)}-${hex.slice(20)}`;
}
