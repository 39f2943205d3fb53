/** What edits leave behind: drawings nothing shows any more, slots no run has. */
import { dropEntities, find, putEntities, type Id, type Layer, type ShotDocument } from '../document/index.ts';

/** Layers that share a run list. */
export const tiedTo = (doc: ShotDocument, runListId: Id): Layer[] =>
  Object.values(doc.entities).filter((e): e is Layer => e.kind === 'layer' && e.runListId === runListId);

/** Drawings that layers show or that kept variants hold. */
function shownDrawings(doc: ShotDocument): Set<Id> {
  const shown = new Set<Id>();
  for (const entity of Object.values(doc.entities)) {
    if (entity.kind === 'layer') for (const id of Object.values(entity.slots)) shown.add(id);
    if (entity.kind === 'variant')
      for (const { slots } of entity.held?.layers ?? []) for (const id of Object.values(slots)) shown.add(id);
  }
  return shown;
}

/** Drops those of some drawings that no layer shows and no variant keeps any more. */
export function dropUnshown(doc: ShotDocument, drawingIds: readonly Id[]): ShotDocument {
  const shown = shownDrawings(doc);
  return dropEntities(
    doc,
    drawingIds.filter((id) => !shown.has(id)),
  );
}

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
    const kept = new Set(list.runs.flatMap((run) => run.slot ?? []));
    const [poses, numbers] = [only(list.poses, kept), only(list.numbers, kept)];
    if (poses !== list.poses || numbers !== list.numbers) next = putEntities(next, { ...list, poses, numbers });
    for (const layer of tiedTo(next, listId)) {
      const slots = only(layer.slots, kept);
      if (slots === layer.slots) continue;
      gone.push(...Object.values(layer.slots));
      next = putEntities(next, { ...layer, slots });
    }
  }
  return gone.length > 0 ? dropUnshown(next, gone) : next;
}
