/**
 * Keys of values and phases keep to their drawings through an edit of time. Values of a layer go with its own run list;
 * those of a folder, of the element and of lights that shine from it, and the phases, go with a list that fills the folder's or the element's whole time.
 */
import {
  find,
  keysIn,
  putEntities,
  withValues,
  type Element,
  type Entity,
  type Folder,
  type Key,
  type RunList,
  type ShotDocument,
  type Value,
} from '../document/index.ts';
import { lightsOfElement } from '../assembly/index.ts';
import { followingPhases } from '../plan/index.ts';
import { elementLength, follower, timedLayers, totalLength, type Follower } from '../timing/index.ts';

/** A value with its keys at other frames; where two meet, the one that `stays` says of holds. */
export function rekeyed(
  value: Value,
  moved: (frame: number) => number | null,
  stays?: (frame: number) => boolean,
): Value {
  const keys = keysIn(value);
  if (keys.length === 0) return value;
  if (keys.every(({ frame }) => moved(frame) === frame)) return value;
  const byFrame = new Map<number, Key>();
  const first = stays ? [...keys.filter((key) => stays(key.frame)), ...keys.filter((key) => !stays(key.frame))] : keys;
  for (const key of first) {
    const frame = moved(key.frame);
    if (frame !== null && !byFrame.has(frame)) byFrame.set(frame, { ...key, frame });
  }
  const left = [...byFrame.values()].sort((a, b) => a.frame - b.frame);
  return left.length > 0 ? { keys: left } : { constant: keys[0]!.value };
}

const moves = <E extends Entity>(entity: E, { at, keeps }: Follower): E => {
  let changed = false;
  const next = withValues(entity, (value) => {
    const moved = rekeyed(value, at, keeps);
    changed ||= moved !== value;
    return moved;
  });
  return changed ? next : entity;
};

interface Changed {
  readonly list: RunList;
  readonly follow: Follower;
}

/** The longest of some lists, if it was changed. */
function leadOf(lists: readonly RunList[], changed: ReadonlyMap<string, Changed>): Changed | undefined {
  const longest = Math.max(0, ...lists.map((list) => (list.period === null ? totalLength(list) : 0)));
  const lead = lists.find((list) => list.period === null && totalLength(list) === longest && changed.has(list.id));
  return longest > 0 ? changed.get(lead?.id ?? '') : undefined;
}

/** The run lists of an element that an edit changed, each with how frames go with it. */
function changedLists(before: ShotDocument, after: ShotDocument, element: Element): ReadonlyMap<string, Changed> {
  const timed = timedLayers(before, element);
  const [turn, turnAfter] = [elementLength(before, element), elementLength(after, element)];
  const changed = new Map<string, Changed>();
  for (const { list } of timed) {
    const now = find(after, 'runlist', list.id);
    // A still layer, and a repeat of its own, go on showing what they show on frames of the element.
    if (!now || now === list || list.period !== null || now.period !== null || list.runs.length === 0) continue;
    changed.set(list.id, { list, follow: follower(list, now, turn, turnAfter) });
  }
  return changed;
}

/** Only values of layers follow: for one layer that is moved against the others. */
export function keptLayerTimes(before: ShotDocument, after: ShotDocument, element: Element): ShotDocument {
  const changed = changedLists(before, after, element);
  const made = timedLayers(before, element).flatMap(({ layer, list }) => {
    const [own, now] = [changed.get(list.id), find(after, 'layer', layer.id)];
    return own && now ? moves(now, own.follow) : [];
  });
  return made.length > 0 ? putEntities(after, ...made) : after;
}

/**
 * What an edit of an element's time ends with.
 * @param before the document before it. @param after with its run lists changed, values and phases still on their frames.
 */
export function keptTimes(before: ShotDocument, after: ShotDocument, element: Element): ShotDocument {
  const timed = timedLayers(before, element);
  const changed = changedLists(before, after, element);
  if (changed.size === 0) return after;
  const made: Entity[] = [];
  const put = <E extends Entity>(old: E | undefined, next: E | undefined): void => {
    if (next && next !== old) made.push(next);
  };
  const folders = new Set(timed.flatMap(({ folder }): Folder[] => (folder ? [folder] : [])));
  for (const folder of folders) {
    const lead = leadOf(
      timed.filter((each) => each.folder === folder).map(({ list }) => list),
      changed,
    );
    const now = find(after, 'folder', folder.id);
    if (lead && now) put(now, moves(now, lead.follow));
  }
  const lead = leadOf(
    timed.map(({ list }) => list),
    changed,
  );
  const now = find(after, 'element', element.id);
  if (lead && now) {
    const moved = moves(now, lead.follow);
    const phases = followingPhases(moved.phases, lead.follow, totalLength(lead.list));
    put(now, phases === moved.phases ? moved : { ...moved, phases });
    for (const light of lightsOfElement(after, element.id)) put(light, moves(light, lead.follow));
  }
  const kept = keptLayerTimes(before, after, element);
  return made.length > 0 ? putEntities(kept, ...made) : kept;
}
