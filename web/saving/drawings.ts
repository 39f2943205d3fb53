/** Waiting for drawings that are still being fetched. */
import type { Id } from '@tallow/core/document';
import { say, useDocument } from '../shot/document.ts';
import { openSaver } from './open-shot.ts';

/** Drawings that are still being fetched. */
const stillMissing = (ids: readonly Id[]): Id[] => {
  const { missing } = useDocument.getState();
  return ids.filter((id) => missing.has(id));
};

/** Comes when drawings are here. @throws if the server can not be reached. */
export async function loaded(ids: readonly Id[]): Promise<void> {
  const wanted = stillMissing(ids);
  if (wanted.length > 0) await openSaver()?.load(wanted);
}

/** Waits for drawings that are still being fetched, then does something with them. */
export function withDrawings(ids: readonly Id[], then: () => void): void {
  if (stillMissing(ids).length === 0) {
    then();
    return;
  }
  void loaded(ids).then(then, () => {
    say('A drawing is not loaded yet and the server cannot be reached. Try again when it can.');
  });
}
