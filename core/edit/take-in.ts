/**
 * Putting together what this page has and what others saved. All of it is worked out aside, from plain data to plain
 * data: whoever calls commits the whole result or, should it throw, nothing.
 */
import { mergeEntity, same, type Drawing, type Entity, type Id, type ShotDocument } from '../document/index.ts';
import { keepBoth, rescueDrawing } from './keep-both.ts';

/** What this page knows of the server. */
export interface Acknowledged {
  readonly revision: number;
  /** The bodies the server last told or accepted, as far as they are loaded. */
  readonly bodies: ReadonlyMap<Id, Entity>;
  /** What has been deleted there; putting it again says so. */
  readonly gone: ReadonlySet<Id>;
}

/** An entity as somebody else left it: null for deleted. */
export interface Theirs {
  readonly id: Id;
  readonly entity: Entity | null;
}

/** The latest body of one entity that is not acknowledged: null stands for deleted, a null base for new. */
export interface Pending {
  readonly id: Id;
  readonly entity: Entity | null;
  /** The acknowledged body it was made from. */
  readonly base: Entity | null;
}

export interface TakenIn {
  /** The document with both sides merged. */
  readonly doc: ShotDocument;
  /** Ids that were told of, or whose body in the document is another now. */
  readonly ids: readonly Id[];
  readonly acknowledged: Acknowledged;
  /** Adds what is kept twice or brought back, where both changed one thing. */
  readonly keep: ((doc: ShotDocument) => ShotDocument) | null;
  /** What to tell the user of it. */
  readonly notices: readonly string[];
}

/** Drawings that were deleted there and drawn on here. */
function rescued(doc: ShotDocument, gone: ReadonlySet<Id>): ShotDocument {
  const lost = [...gone].flatMap((id): Drawing[] => {
    const entity = doc.entities[id];
    return entity?.kind === 'drawing' && entity.order.length > 0 ? [entity] : [];
  });
  return lost.reduce(rescueDrawing, doc);
}

/** Adds to a document what could not be merged, once: ids of copies hang on what is copied. */
function keeping(
  clashing: readonly { mine: Entity; fields: readonly string[] }[],
  gone: ReadonlySet<Id>,
  merged: ShotDocument,
): Pick<TakenIn, 'keep' | 'notices'> {
  const keep = (doc: ShotDocument) =>
    rescued(
      clashing.reduce((now, { mine, fields }) => keepBoth(now, mine, fields).doc, doc),
      gone,
    );
  const notices = clashing.map(({ mine, fields }) => keepBoth(merged, mine, fields).notice);
  return { keep: keep(merged) === merged ? null : keep, notices };
}

/** Takes in what others changed, merging it with what is not saved here. @param revision up to which it was told. */
export function takeIn(doc: ShotDocument, known: Acknowledged, changes: readonly Theirs[], revision: number): TakenIn {
  const bodies = new Map(known.bodies);
  const gone = new Set(known.gone);
  const entities = { ...doc.entities };
  const ids: Id[] = [];
  const clashing: { mine: Entity; fields: readonly string[] }[] = [];
  for (const { id, entity } of changes) {
    const base = bodies.get(id);
    const mine = doc.entities[id];
    // A body that is the same in content is the same: what this page saved itself comes back so, and undo goes by identity.
    const theirs = [base, mine].find((each) => each && entity && same(each, entity)) ?? entity;
    if (theirs) {
      bodies.set(id, theirs);
      gone.delete(id);
    } else {
      bodies.delete(id);
      gone.add(id);
    }
    if (mine === base) {
      if (theirs) entities[id] = theirs;
      else Reflect.deleteProperty(entities, id);
    } else if (mine && theirs && mine !== theirs) {
      const { merged, clashes } = mergeEntity(base, mine, theirs);
      // What comes out as theirs is theirs: then there is nothing left to save.
      entities[id] = same(merged, theirs) ? theirs : merged;
      if (clashes.length > 0) clashing.push({ mine, fields: clashes });
    }
    ids.push(id);
  }
  const merged = ids.some((id) => entities[id] !== doc.entities[id]) ? { ...doc, entities } : doc;
  return {
    doc: merged,
    ids,
    acknowledged: { revision: Math.max(known.revision, revision), bodies, gone },
    ...keeping(clashing, gone, merged),
  };
}

/**
 * Puts what was left unsaved elsewhere (by a closed tab, in a file) into the document, merged with what is there.
 * Doing it again adds nothing. Needs the drawings it names loaded.
 */
export function adoptPending(doc: ShotDocument, known: Acknowledged, pending: readonly Pending[]): TakenIn {
  const gone = new Set(known.gone);
  const entities = { ...doc.entities };
  const ids: Id[] = [];
  const clashing: { mine: Entity; fields: readonly string[] }[] = [];
  for (const { id, entity, base } of pending) {
    const here = doc.entities[id];
    if (!entity) {
      // Deleted there: gone here too, unless somebody has changed it since.
      if (here && base && same(here, base)) Reflect.deleteProperty(entities, id);
    } else if (!here) {
      entities[id] = entity;
      // What was deleted elsewhere meanwhile has to be brought back in so many words.
      if (base && !known.bodies.has(id)) gone.add(id);
    } else if (!same(here, entity)) {
      const { merged, clashes } = mergeEntity(base ?? undefined, entity, here);
      if (!same(merged, here)) entities[id] = merged;
      if (clashes.length > 0) clashing.push({ mine: entity, fields: clashes });
    }
    if (entities[id] !== here) ids.push(id);
  }
  const merged = ids.length > 0 ? { ...doc, entities } : doc;
  return {
    doc: merged,
    ids,
    acknowledged: { ...known, gone },
    ...keeping(clashing, gone, merged),
  };
}
