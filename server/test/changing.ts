/** A shot on a test server, changed as a page does it: by saves of what differs. */
import { encodeEntity, newShotDocument, randomId, type Id, type ShotDocument } from '@tallow/core/document';
import { shotServices } from '../shots/services.ts';
import type { Harness } from './harness.ts';

export interface ChangingShot {
  readonly id: Id;
  change(edit: (now: ShotDocument) => ShotDocument): Promise<void>;
}

export const documentOn = async ({ database }: Harness, id: Id): Promise<ShotDocument> =>
  (await shotServices(database).shots.document(id)).doc;

/** @param doc what it is at first; a new shot if left out. */
export async function changingShot(
  server: Harness,
  production: Id,
  name: string,
  doc = newShotDocument(
    randomId(),
    { name, width: 64, height: 36, rate: 24, length: 8, background: '#203040' },
    randomId,
  ),
): Promise<ChangingShot> {
  await shotServices(server.database).shots.insert(doc, production);
  const id = doc.shotId;
  return {
    id,
    async change(edit) {
      const now = await documentOn(server, id);
      const next = edit(now);
      const puts = Object.values(next.entities)
        .filter((each) => now.entities[each.id] !== each)
        .map((each) => ({ id: each.id, kind: each.kind, body: encodeEntity(each) }));
      const deletes = Object.keys(now.entities).filter((each) => !(each in next.entities));
      const { revision } = ((await server.send('GET', `/shots/${id}`)).json as { shot: { revision: number } }).shot;
      const saved = await server.send('POST', `/shots/${id}/saves`, {
        saveId: randomId(),
        baseRevision: revision,
        puts,
        deletes,
      });
      expect(saved.status).toBe(200);
    },
  };
}
