/** Dragging a bar of the tall strip: its start, its ends, what it shows first, one more of it; across to another lane. */
import { isFixed } from '@tallow/core/assembly';
import { copyPlacement, movePlacement, setPlacements, trimEnd, trimStart } from '@tallow/core/edit';
import { find, randomId, type Id, type ShotDocument } from '@tallow/core/document';
import { slipped } from '../tools/place/actions.ts';
import { selectUses, placing } from '../tools/place/placing.ts';
import { endGesture, reEdit, takeBack } from '../shot/document.ts';
import type { Bar, BarPart } from './lane.ts';

export type BarHow = BarPart | 'slip' | 'copy';

const NAMES: Readonly<Record<BarHow, string>> = {
  body: 'start',
  start: 'trim the start',
  end: 'trim the end',
  slip: 'slip',
  copy: 'one more',
};

export interface BarDrag {
  /** @param by frames along. @param planeId the plane of the lane under the pen. */
  readonly move: (by: number, planeId: Id | null) => void;
  readonly up: () => void;
  readonly drop: () => void;
}

/** Begins dragging; a bar that is not picked is picked first. @param at a frame as it snaps. */
export function dragBar(bar: Bar, how: BarHow, at: (frame: number) => number): BarDrag {
  const { id } = bar.placement;
  const gesture = `bar-${randomId()}`;
  if (!placing().selected.includes(id)) selectUses([id]);
  const ids = placing().selected;
  const copies = how === 'copy' ? ids.map(() => randomId()) : [];
  const toLane = (doc: ShotDocument, moved: readonly Id[], planeId: Id | null): ShotDocument =>
    planeId === null
      ? doc
      : moved.reduce((next, each) => (stays(next, planeId, each) ? next : movePlacement(next, each, { planeId })), doc);
  const move = (by: number, planeId: Id | null): void => {
    reEdit(
      NAMES[how],
      (doc) => {
        if (how !== 'copy' && isFixed(doc, bar.placement)) return doc;
        if (how === 'start') return trimStart(doc, id, at(bar.from + by));
        if (how === 'end') return trimEnd(doc, id, at(bar.to + by));
        if (how === 'slip') {
          const placement = find(doc, 'placement', id);
          return placement ? setPlacements(doc, [id], slipped(placement, doc, -by)) : doc;
        }
        const shift = at(bar.from + by) - bar.from;
        const made = ids.reduce((next, each, i) => {
          if (how === 'copy') return copyPlacement(next, each, {}, () => copies[i]!).doc;
          return next;
        }, doc);
        const moved = how === 'copy' ? copies : ids;
        const shifted = moved.reduce((next, each) => {
          const placement = find(next, 'placement', each);
          return placement && !isFixed(next, placement)
            ? setPlacements(next, [each], { start: placement.start + shift })
            : next;
        }, made);
        return toLane(shifted, moved, planeId);
      },
      gesture,
    );
  };
  return {
    move,
    up: () => {
      endGesture();
      if (copies.length > 0) selectUses(copies);
    },
    drop: () => {
      takeBack(gesture);
    },
  };
}

/** Whether a use is on the plane already, or is not to be moved. */
function stays(doc: ShotDocument, planeId: Id, placementId: Id): boolean {
  const placement = find(doc, 'placement', placementId);
  const isThere = find(doc, 'plane', planeId)?.placements.includes(placementId) ?? false;
  return isThere || !placement || isFixed(doc, placement);
}
