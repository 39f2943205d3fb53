/** Shots changed by edits of the core, beside any page. */
import { expect } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { encodeEntity, readEntity, touchedBetween, type Entity, type ShotDocument } from '../core/document/index.ts';
import { address, stored } from './desk.ts';

/** A shot as the server has it, changed by edits of the core, and saved again. */
export async function changed(shotId: string, change: (doc: ShotDocument) => ShotDocument): Promise<ShotDocument> {
  const { entities, revision } = await stored(address(), shotId);
  const bodies = entities.map((body): Entity => {
    const read = readEntity(body);
    if (!('ok' in read)) throw new Error('The server keeps something that cannot be read');
    return read.ok;
  });
  const before: ShotDocument = { shotId, entities: Object.fromEntries(bodies.map((e) => [e.id, e])) };
  const after = change(before);
  const puts = Object.keys(touchedBetween(before, after)).map((id) => {
    const entity = after.entities[id]!;
    return { id, kind: entity.kind, body: encodeEntity(entity) };
  });
  const response = await fetch(`${address()}/api/shots/${shotId}/saves`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ saveId: randomUUID(), baseRevision: revision, puts, deletes: [] }),
  });
  expect(response.status, await response.clone().text()).toBe(200);
  return after;
}
