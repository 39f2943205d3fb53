/** How long it takes from a lifted pen until this browser has the stroke on disk, against a bare write of the same. */
import type { Drawing } from '@tallow/core/document';
import { openDB } from 'idb';
import { browserStore, type Kept } from '../../web/saving/browser-store.ts';
import { Outbox } from '../../web/saving/outbox.ts';
import { newId, wandering } from '../documents.ts';
import { sideBySide } from '../measure.ts';

const ROUNDS = 31;
const STROKES = 40;

/** A drawing of forty strokes as it is kept after one more. */
function keptDrawing(seq: number): Kept {
  const swatch = newId();
  const marks = Array.from({ length: STROKES }, () => wandering(swatch, 120));
  const entity: Drawing = {
    kind: 'drawing',
    id: newId(),
    marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
    order: marks.map((mark) => mark.id),
  };
  return { id: entity.id, entity, base: entity, seq };
}

export async function storeRow(): Promise<[number, number]> {
  await browserStore.tried();
  let seq = 0;
  let kept = keptDrawing(0);
  const outbox = new Outbox(
    newId(),
    newId(),
    { pendingOf: () => kept, dirty: () => [kept.id], batch: () => null, seq: () => seq },
    () => undefined,
  );
  const bare = await openDB('bare', 1, {
    upgrade(db) {
      db.createObjectStore('pending');
    },
  });
  const lifted = async (): Promise<void> => {
    seq += 1;
    kept = { ...kept, seq };
    outbox.touch([kept.id]);
    await outbox.whenHeld(seq, 5000);
  };
  const written = async (): Promise<void> => {
    const tx = bare.transaction('pending', 'readwrite', { durability: 'strict' });
    await Promise.all([tx.store.put(kept, ['shot', 'tab', kept.id]), tx.done]);
  };
  return sideBySide(ROUNDS, lifted, written);
}
