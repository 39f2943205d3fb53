/** What edits leave behind: drawings nothing shows any more, slots no run has. */
import { slotsInOrder } from '../timing/index.ts';
import { find, putEntities, type Id, type Layer, type ShotDocument, entitiesOf } from '../document/index.ts';
import { dropUnkept } from './remove.ts';

/** Layers that share a run list. */
export const tiedTo = (doc: ShotDocument, runListId: Id): Layer[] =>
  entitiesOf(doc, 'layer').filter((e) => e.runListId === runListId);

const only = <T>(record: Readonly<Record<Id, T>>, kept: ReadonlySet<Id>): Readonly<Record<Id, T>> => {
  const entries = Object.entries(record);
  const left = entries.filter(([slot]) => kept.has(slot));
  return left.length === entries.length ? record : Object.fromEntries(left);
};

/** Takes slots that no run of a list shows any more from all layers tied to it, and the drawings with them. */
export function swept(doc: ShotDocument, listIds: readonly Id[]): ShotDocument {
  let next = doc;
  const gone: Id[] = [];
  for (const listId of listIds) {
    const list = find(next, 'runlist', listId);
    if (!list) continue;
    const kept = new Set(slotsInOrder(list).map(({ slot }) => slot));
    const [poses, numbers] = [only(list.poses, kept), only(list.numbers, kept)];
    if (poses !== list.poses || numbers !== list.numbers) next = putEntities(next, { ...list, poses, numbers });
    for (const layer of tiedTo(next, listId)) {
      const slots = only(layer.slots, kept);
      if (slots === layer.slots) continue;
      gone.push(...Object.values(layer.slots));
      next = putEntities(next, { ...layer, slots });
    }
  }
  return gone.length > 0 ? dropUnkept(next, gone) : next;
}
