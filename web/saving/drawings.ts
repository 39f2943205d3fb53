/** Waiting for drawings that are still being fetched, or lie aside. */
import { findAll, type Drawing, type Id } from '@tallow/core/document';
import { asides } from '../shot/aside.ts';
import { say, useDocument } from '../shot/document.ts';
import { openSaver } from './open-shot.ts';

/** Drawings that are still being fetched. */
const stillMissing = (ids: readonly Id[]): Id[] => {
  const { missing } = useDocument.getState();
  return ids.filter((id) => missing.has(id));
};

const lyingAside = (ids: readonly Id[]): Drawing[] => {
  const { doc } = useDocument.getState();
  return doc ? findAll(doc, 'drawing', ids).filter((drawing) => asides.isAside(drawing)) : [];
};

/** Whether drawings have been fetched and are at hand. */
export const areHere = (ids: readonly Id[]): boolean => stillMissing(ids).length === 0 && lyingAside(ids).length === 0;

/** Comes when drawings are here. @throws if the server can not be reached. */
export async function loaded(ids: readonly Id[]): Promise<void> {
  const wanted = stillMissing(ids);
  if (wanted.length > 0) await openSaver()?.load(wanted);
  await asides.toHand(lyingAside(ids));
}

/** Waits for drawings that are still being fetched or lie aside, then does something with them. */
export function withDrawings(ids: readonly Id[], then: () => void): void {
  if (areHere(ids)) {
    then();
    return;
  }
  void loaded(ids).then(then, () => {
    say('A drawing is not loaded yet and the server cannot be reached. Try again when it can.');
  });
}
