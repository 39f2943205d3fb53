/** Lays derived content again when what it hangs on has changed, as part of the step that changed it. */
import { behindStale, staleOf, type DerivedEntity, type DerivedKind, type Stale } from '@tallow/core/derived';
import type { Id, ShotDocument } from '@tallow/core/document';
import { areHere, loaded } from '../saving/drawings.ts';
import { current } from '../selection/current.ts';
import { editAlong, onChange, say } from '../shot/document.ts';

/** How a kind of derived content is laid again: what is computed from the document, and the edit that lays it. */
interface LaidAgain<E extends DerivedEntity> {
  /** As it is called in messages. */
  readonly name: string;
  /** @returns null when it can not be computed now, or was stopped. */
  readonly lay: (
    doc: ShotDocument,
    entity: E,
    parts: readonly string[],
  ) => Promise<((latest: ShotDocument) => ShotDocument) | null>;
}

/** For each kind that is laid again by itself. */
export type Followers = { readonly [K in DerivedKind]?: LaidAgain<Extract<DerivedEntity, { kind: K }>> };

/** ms without a change after which it is looked. */
const WAIT_MS = 150;

const NOT_HERE =
  'a drawing is not loaded yet and the server cannot be reached. It is tried again with the next change.';

/** Tells one state of what something hangs on from another: each is tried once. */
const stateOf = ({ entity, sources }: Stale): string =>
  [entity.id, ...sources.map(({ part, now }) => `${part}=${now}`)].join(' ');

/** Follows the user's edits until it is stopped. Undo and redo bring what was laid themselves. */
export function followEdits(followers: Followers): () => void {
  const changed = new Set<Id>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  let following = false;
  let stopped = false;

  const layAgain = async (doc: ShotDocument, { entity, sources }: Stale): Promise<void> => {
    const follower = followers[entity.kind] as LaidAgain<DerivedEntity> | undefined;
    if (!follower) return;
    try {
      const laid = await follower.lay(
        doc,
        entity,
        sources.map(({ part }) => part),
      );
      if (laid && !stopped) editAlong(new Set(sources.flatMap(({ hangsOn }) => hangsOn)), laid);
    } catch (error) {
      say(`The ${follower.name} could not be laid again: ${error instanceof Error ? error.message : String(error)}`);
    }
  };

  const follow = async (): Promise<void> => {
    if (following) return;
    following = true;
    const tried = new Set<string>();
    const waitedFor = new Set<string>();
    for (let now = current(); now && !stopped; now = current()) {
      const next = staleOf(now.doc, now.element.id, 'by itself', changed).find((each) => !tried.has(stateOf(each)));
      if (!next) break;
      // What is not loaded yet looks as if it were not there: it is fetched first, and looked at anew.
      if (!waitedFor.has(stateOf(next))) {
        waitedFor.add(stateOf(next));
        const behind = behindStale(now.doc, next);
        if (!areHere(behind)) {
          try {
            await loaded(behind);
          } catch {
            say(`The ${followers[next.entity.kind]?.name ?? 'rest'} could not be laid again: ${NOT_HERE}`);
            break;
          }
          continue;
        }
      }
      tried.add(stateOf(next));
      await layAgain(now.doc, next);
    }
    changed.clear();
    following = false;
  };

  const stopListening = onChange((ids, by) => {
    if (by !== 'edit') return;
    for (const id of ids) changed.add(id);
    clearTimeout(timer);
    timer = setTimeout(() => void follow(), WAIT_MS);
  });
  return () => {
    stopped = true;
    clearTimeout(timer);
    stopListening();
  };
}
