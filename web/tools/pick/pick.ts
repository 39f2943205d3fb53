/** What is picked up: marks of one or of several drawings of the active layer, and what has been done to them since. */
import { find, randomId, type Drawing, type Id, type Mark } from '@tallow/core/document';
import { changeMarks, type MarkSets } from '@tallow/core/edit';
import { EMPTY_BOX, apply, union, type Box, type Matrix, type Point } from '@tallow/core/geometry';
import { matrixAbout, placesOf, shareOf, shares, STILL, transformed, type Transform } from '@tallow/core/marks';
import { isLocked } from '@tallow/core/timing';
import { create } from 'zustand';
import { current, shownNow } from '../../selection/current.ts';
import { selection } from '../../selection/selection.ts';
import { viewed } from '../../view/viewed.ts';
import { edit, reEdit, say, useDocument } from '../../shot/document.ts';
import { drawingsInHand, loadedInHand } from '../../selection/in-hand.ts';
import { withDrawings } from '../../saving/drawings.ts';

/** How a new pick meets the one before. */
export type Picking = 'new' | 'add' | 'take';

interface PickState {
  readonly sets: MarkSets;
  /** Marks as they were picked up: what is done to them is worked out from these, so that nothing adds up. */
  readonly base: Readonly<Record<Id, Mark>>;
  /** Marks as they were left: others in their place mean that somebody changed them. */
  readonly left: Readonly<Record<Id, Mark>>;
  readonly transform: Transform;
  /** The box of what was picked up in the drawing that is shown, element space; its middle is the pivot. */
  readonly box: Box;
  /** A change to several drawings fades towards the first and the last. */
  readonly fades: boolean;
  readonly by: 'lasso' | 'box';
  readonly picking: Picking;
  /** A lasso cuts the strokes it crosses. */
  readonly cuts: boolean;
  /** The lasso or box under the pen, element space. */
  readonly draft: readonly Point[];
  /** Cells across and down of the grid that bends, or null. */
  readonly bend: number | null;
}

const NOTHING = { sets: {}, base: {}, left: {}, transform: STILL, box: EMPTY_BOX, bend: null } as const;

export const usePick = create<PickState>(() => ({
  ...NOTHING,
  fades: false,
  by: 'lasso',
  picking: 'new',
  cuts: false,
  draft: [],
}));
export const pick = usePick.getState;
export const setPick = usePick.setState;

const marksNow = (sets: MarkSets): Record<Id, Mark> => {
  const { doc } = useDocument.getState();
  const marks: Record<Id, Mark> = {};
  if (doc)
    for (const [drawingId, ids] of Object.entries(sets))
      for (const id of ids) {
        const mark = find(doc, 'drawing', drawingId)?.marks[id];
        if (mark) marks[id] = mark;
      }
  return marks;
};

function boxOf(marks: readonly Mark[]): Box {
  let box = EMPTY_BOX;
  for (const mark of marks)
    for (const { x, y } of placesOf(mark)) box = union(box, { left: x, top: y, right: x, bottom: y });
  return box;
}

/** The drawing whose marks carry the handles: the one shown if it has any of them, else the first that has. */
function leading(sets: MarkSets): Id | undefined {
  const now = current();
  const shown = now ? shownNow(now, selection().frame)?.drawingId : undefined;
  return shown && sets[shown]?.length ? shown : Object.keys(sets).find((id) => sets[id]!.length > 0);
}

/** Takes marks in hand as they are now. */
export function pickUp(sets: MarkSets): void {
  const full = Object.fromEntries(Object.entries(sets).filter(([, ids]) => ids.length > 0));
  const base = marksNow(full);
  const lead = leading(full);
  const own = lead ? (full[lead] ?? []).flatMap((id) => base[id] ?? []) : [];
  setPick({ ...NOTHING, sets: full, base, left: base, box: boxOf(own) });
}

export const pickedCount = (sets: MarkSets = pick().sets): number =>
  Object.values(sets).reduce((sum, ids) => sum + ids.length, 0);

export const letGo = (): void => {
  setPick(NOTHING);
};

/** Picks up what a rule finds in each drawing in hand, beside or without what is picked up already. */
export function pickBy(find_: (drawing: Drawing) => readonly Id[], how: Picking = pick().picking): void {
  withDrawings(drawingsInHand(), () => {
    const before = pick().sets;
    const sets = Object.fromEntries(
      loadedInHand().map((drawing) => {
        const had = before[drawing.id] ?? [];
        const found = find_(drawing);
        const ids =
          how === 'new'
            ? found
            : how === 'add'
              ? [...had, ...found.filter((id) => !had.includes(id))]
              : had.filter((id) => !found.includes(id));
        return [drawing.id, ids];
      }),
    );
    pickUp(sets);
  });
}

/** Follows what others or undo did: marks that are gone are no longer picked up, changed ones are taken as they are. */
export function followDocument(): void {
  const { sets, left } = pick();
  if (changing || pickedCount(sets) === 0) return;
  const now = marksNow(sets);
  const ids = Object.keys(left);
  if (ids.every((id) => now[id] === left[id])) return;
  pickUp(Object.fromEntries(Object.entries(sets).map(([drawing, list]) => [drawing, list.filter((id) => now[id])])));
}

/** Follows the playhead and the active layer: what lies in drawings that are not in hand any more is let go. */
export function followDesk(): void {
  const { sets } = pick();
  const inHand = drawingsInHand();
  const ids = Object.keys(sets);
  if (ids.length > 0) pickUp(Object.fromEntries(ids.flatMap((id) => (inHand.includes(id) ? [[id, sets[id]!]] : []))));
}

/** How much of a change each drawing takes. */
export function sharesNow(sets: MarkSets = pick().sets): Record<Id, number> {
  const ids = drawingsInHand().filter((id) => sets[id]);
  const each = shares(ids.length, pick().fades);
  return Object.fromEntries(ids.map((id, i) => [id, each[i]!]));
}

export const pivotOf = ({ left, top, right, bottom }: Box): Point => ({ x: (left + right) / 2, y: (top + bottom) / 2 });

/** The matrix of what is done to marks of the leading drawing. */
export const matrixNow = (transform: Transform = pick().transform): Matrix =>
  matrixAbout(pivotOf(pick().box), transform);

/** Why marks of the active layer cannot be changed, said to the user, or null. */
export function whyNotChange(): string | null {
  const active = current()?.active;
  return active && isLocked(active) ? 'This layer is locked. Unlock it to change what is on it.' : null;
}

/** Says why marks cannot be changed, if they cannot. */
export function isChangeable(): boolean {
  const trouble = whyNotChange();
  if (trouble) say(trouble);
  return trouble === null;
}

/** Whether the document changes by what is done to the marks in hand. */
let changing = false;

/** Changes the marks in hand, each worked out from how it was picked up. */
export function changePicked(name: string, change: (base: Mark, drawingId: Id) => Mark, gesture?: string): void {
  if (!isChangeable()) return;
  const { sets, base } = pick();
  const all = (doc: Parameters<typeof changeMarks>[0]) =>
    changeMarks(doc, sets, (mark, drawingId) => (base[mark.id] ? change(base[mark.id]!, drawingId) : mark));
  changing = true;
  if (gesture) reEdit(name, all, gesture);
  else edit(name, all);
  changing = false;
  setPick({ left: marksNow(sets) });
}

/** Moves, scales, turns or skews what is picked up, all of it counted from when it was picked up. */
export function transformPicked(name: string, transform: Transform, gesture?: string): void {
  const pivot = pivotOf(pick().box);
  const share = sharesNow();
  const matrices = new Map(
    Object.keys(pick().sets).map((id) => [id, matrixAbout(pivot, shareOf(transform, share[id] ?? 1))]),
  );
  if (whyNotChange() === null) setPick({ transform });
  changePicked(name, (mark, drawingId) => transformed(mark, matrices.get(drawingId)!), gesture);
}

/** Nudges what is picked up by px of the screen, whichever way the picture is turned. */
export function nudgePicked(right: number, down: number): void {
  const { view } = viewed();
  const [cos, sin] = [Math.cos(-view.angle), Math.sin(-view.angle)];
  const flip = view.mirrored ? -1 : 1;
  // One px of the picture, in the direction of the screen.
  const x = flip * (right * cos - down * sin);
  const y = right * sin + down * cos;
  const { transform } = pick();
  transformPicked('nudge', { ...transform, x: transform.x + x, y: transform.y + y });
}

/** Turns what is picked up over, left to right or top to bottom, in the picture's directions. */
export function mirrorPicked(across: boolean): void {
  const { transform } = pick();
  transformPicked(
    'mirror',
    across ? { ...transform, scaleX: -transform.scaleX } : { ...transform, scaleY: -transform.scaleY },
  );
}

/** What is picked up as it is now in the drawing it leads from, for the clip and for other layers. */
export const pickedMarks = (): Mark[] => {
  const { sets } = pick();
  const now = marksNow(sets);
  const { doc } = useDocument.getState();
  return Object.entries(sets).flatMap(([drawingId, ids]) => {
    const drawing = doc && find(doc, 'drawing', drawingId);
    return drawing ? drawing.order.filter((id) => ids.includes(id)).map((id) => now[id]!) : [];
  });
};

/** Where a place of the picked-up box is now. */
export const placedNow = (point: Point): Point => apply(matrixNow(), point);

export const gestureName = (): string => `pick-${randomId()}`;
