/** Sending one save: whole if it is small, else in parts that nobody sees before the last word. */
import { encodeEntity, type Id } from '@tallow/core/document';
import { Refused, request } from '../api/client.ts';
import type { Saved } from '../api/types.ts';
import type { KeptBatch } from './browser-store.ts';

/** What one request holds at most: characters of JSON, and things. */
const MAX = { bytes: 8_000_000, things: 1000 } as const;

type Outcome =
  | { readonly kind: 'saved'; readonly saved: Saved }
  /** Others have changed the same things: take theirs in and make the save anew. */
  | { readonly kind: 'newer' }
  /** The database is another than before. */
  | { readonly kind: 'restored' }
  /** Something in it cannot be saved: which ids, as far as that was said. */
  | { readonly kind: 'refused'; readonly ids: readonly Id[]; readonly why: string };

interface Part {
  readonly puts: string[];
  readonly deletes: Id[];
}

/** Puts and deletes as JSON, as many in each part as it may hold; a thing larger than a part has one of its own. */
function* partsOf(batch: KeptBatch, sourceOf: (id: Id) => Id | undefined): Generator<Part> {
  const restored = new Set(batch.restored);
  let part: Part = { puts: [], deletes: [] };
  let bytes = 0;
  for (const { id, entity } of batch.bodies) {
    const copyOf = sourceOf(id);
    const put = entity && {
      id,
      kind: entity.kind,
      ...(copyOf ? { copyOf } : { body: encodeEntity(entity) }),
      ...(restored.has(id) ? { restore: true } : {}),
    };
    const text = put ? JSON.stringify(put) : '';
    const things = part.puts.length + part.deletes.length;
    if (things > 0 && (bytes + text.length > MAX.bytes || things >= MAX.things)) {
      yield part;
      part = { puts: [], deletes: [] };
      bytes = 0;
    }
    if (put) part.puts.push(text);
    else part.deletes.push(id);
    bytes += text.length;
  }
  yield part;
}

const jsonOf = ({ puts, deletes }: Part): string => `"puts":[${puts.join(',')}],"deletes":${JSON.stringify(deletes)}`;

async function sha256(text: string): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text));
  return Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** The ids that problem details name, as `puts.3.body` or `deletes.0`. */
function namedIn({ problem }: Refused, bodies: KeptBatch['bodies']): Id[] {
  const puts = bodies.filter(({ entity }) => entity !== null);
  const deletes = bodies.filter(({ entity }) => entity === null);
  const ids = (problem.errors ?? []).flatMap(({ field }): Id[] => {
    const found = /^(puts|deletes)\.(\d+)/.exec(field);
    const list = found?.[1] === 'puts' ? puts : deletes;
    return found ? ((list[Number(found[2])]?.id ?? []) as Id[]) : [];
  });
  return [...new Set(ids)];
}

/**
 * Sends a save. Repeated, it is harmless: the server knows its saveId, and parts are kept by their content.
 * @param sourceOf the acknowledged drawing that a new one is an untouched copy of. @throws Unreachable
 */
export async function sendBatch(
  shotId: Id,
  tab: Id,
  batch: KeptBatch,
  sourceOf: (id: Id) => Id | undefined,
): Promise<Outcome> {
  const { saveId, baseRevision, epoch, seq, held } = batch;
  const head = JSON.stringify({
    saveId,
    baseRevision,
    ...(epoch ? { epoch } : {}),
    ...(seq === null ? {} : { tab, seq }),
    ...(held.length > 0 ? { held } : {}),
  }).slice(0, -1);
  const hashes: string[] = [];
  let alone: Part | null = null;
  try {
    for (const part of partsOf(batch, sourceOf)) {
      if (!alone && hashes.length === 0) {
        alone = part;
        continue;
      }
      if (alone) hashes.push(await stage(shotId, saveId, 0, alone));
      alone = null;
      hashes.push(await stage(shotId, saveId, hashes.length, part));
    }
    const isLarge = alone !== null && jsonOf(alone).length > MAX.bytes;
    if (alone && isLarge) hashes.push(await stage(shotId, saveId, 0, alone));
    const rest =
      alone && !isLarge
        ? jsonOf(alone)
        : `${jsonOf({ puts: [], deletes: [] })},"parts":${hashes.length},"digest":"${await sha256(hashes.join(''))}"`;
    return { kind: 'saved', saved: await request<Saved>('POST', `/shots/${shotId}/saves`, `${head},${rest}}`) };
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    if (error.status === 409)
      return { kind: 'epoch' in error.problem && !('conflicts' in error.problem) ? 'restored' : 'newer' };
    return { kind: 'refused', ids: namedIn(error, batch.bodies), why: error.message };
  }
}

async function stage(shotId: Id, saveId: Id, n: number, part: Part): Promise<string> {
  const text = `{${jsonOf(part)}}`;
  const hash = await sha256(text);
  await request('PUT', `/shots/${shotId}/saves/${saveId}/parts/${n}?sha256=${hash}`, text).catch((error: unknown) => {
    // Fields are counted within the part here; which thing it is, halving finds.
    throw error instanceof Refused ? new Refused(error.status, { title: error.message }) : error;
  });
  return hash;
}
