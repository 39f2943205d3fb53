/** What is picked up: marks of one or of several drawings, of the active layer or of others too, and what has been done to them since. */
import { find, marksAmong, randomId, type Drawing, type Id, type Mark, type ShotDocument } from '@tallow/core/document';
import { changeMarks, movedAlong, type MarkSets } from '@tallow/core/edit';
import {
  EMPTY_BOX,
  IDENTITY,
  apply,
  invert,
  multiply,
  union,
  type Box,
  type Matrix,
  type Point,
} from '@tallow/core/geometry';
import {
  matrixAbout,
  placesOf,
  fractionOf,
  fractions,
  STILL,
  transformed,
  type TransformSpread,
  type Transform,
} from '@tallow/core/marks';
import { isLocked } from '@tallow/core/timing';
import { create } from 'zustand';
import { current } from '../../selection/current.ts';
import { viewed } from '../../view/viewed.ts';
import { edit, reEdit, say, useDocument } from '../../shot/document.ts';
import { withDrawings } from '../../saving/drawings.ts';
import { growthTicks } from './growth.ts';
import { loadedReached, reached, shownReached, type Reached } from './reach.ts';

/** How a new pick meets the one before. */
export type Picking = 'new' | 'add' | 'take';

interface PickState {
  readonly sets: MarkSets;
  /** Marks as they were picked up: what is done to them is worked out from these, so that nothing adds up. */
  readonly base: Readonly<Record<Id, Mark>>;
  /** Marks as they were left: others in their place mean that somebody changed them. */
  readonly left: Readonly<Record<Id, Mark>>;
  readonly transform: Transform;
  /** The box of what was picked up in the drawings that are shown, in the active layer's space. */
  readonly box: Box;
  /** What turning, scaling and mirroring go about, in the active layer's space; null is the middle of the box. */
  readonly pivot: Point | null;
  /** From the spaces of drawings on other layers to the active layer's; those that are put alike are left out. */
  readonly spaces: Readonly<Record<Id, Matrix>>;
  /** How a change is spread over several drawings. */
  readonly spread: TransformSpread;
  /** Whether what grows does so by the ticks of a path, not evenly. */
  readonly byTicks: boolean;
  readonly by: 'lasso' | 'box';
  readonly picking: Picking;
  /** A lasso cuts the strokes it crosses. */
  readonly cuts: boolean;
  /** The lasso or box under the pen, element space. */
  readonly draft: readonly Point[];
  /** Cells across and down of the grid that bends, or null. */
  readonly bend: number | null;
}

const NOTHING = {
  sets: {},
  base: {},
  left: {},
  transform: STILL,
  box: EMPTY_BOX,
  pivot: null,
  spaces: {},
  bend: null,
} as const;

export const usePick = create<PickState>(() => ({
  ...NOTHING,
  spread: 'same',
  byTicks: false,
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
  for (const [drawingId, ids] of Object.entries(sets)) {
    const drawing = doc && find(doc, 'drawing', drawingId);
    for (const id of ids) {
      const mark = drawing?.marks[id];
      if (mark) marks[id] = mark;
    }
  }
  return marks;
};

/** The box of marks of some drawings, in the active layer's space. */
function boxOf(
  drawings: readonly Id[],
  sets: MarkSets,
  base: Readonly<Record<Id, Mark>>,
  spaces: PickState['spaces'],
): Box {
  let box = EMPTY_BOX;
  for (const drawingId of drawings)
    for (const mark of (sets[drawingId] ?? []).flatMap((id) => base[id] ?? []))
      for (const place of placesOf(mark)) {
        const { x, y } = spaces[drawingId] ? apply(spaces[drawingId], place) : place;
        box = union(box, { left: x, top: y, right: x, bottom: y });
      }
  return box;
}

/** The drawings whose marks carry the handles: those shown if they have any of them, else the first that has. */
function leading(sets: MarkSets): Id[] {
  const shown = [...shownReached()].filter((id) => sets[id]?.length);
  return shown.length > 0 ? shown : Object.keys(sets).slice(0, 1);
}

/** Picks marks up as they are now. */
export function pickUp(sets: MarkSets): void {
  const full = Object.fromEntries(Object.entries(sets).filter(([, ids]) => ids.length > 0));
  const base = marksNow(full);
  const spaces = Object.fromEntries(
    reached().flatMap(({ drawingId, toActive }) =>
      full[drawingId] && toActive !== IDENTITY ? [[drawingId, toActive]] : [],
    ),
  );
  setPick({ ...NOTHING, sets: full, base, left: base, spaces, box: boxOf(leading(full), full, base, spaces) });
}

export const selectedCount = (sets: MarkSets = pick().sets): number =>
  Object.values(sets).reduce((sum, ids) => sum + ids.length, 0);

export const clearPick = (): void => {
  setPick(NOTHING);
};

/** Picks up what a rule finds in each drawing that is reached, beside or without what is picked up already. */
export function pickBy(
  find_: (drawing: Drawing, toActive: Reached['toActive']) => readonly Id[],
  how: Picking = pick().picking,
): void {
  const ids = reached().map(({ drawingId }) => drawingId);
  withDrawings(ids, () => {
    const before = pick().sets;
    const sets = Object.fromEntries(
      loadedReached().map(({ drawing, toActive }) => {
        const had = before[drawing.id] ?? [];
        const found = find_(drawing, toActive);
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
  if (changing || selectedCount(sets) === 0) return;
  const now = marksNow(sets);
  const ids = Object.keys(left);
  if (ids.every((id) => now[id] === left[id])) return;
  pickUp(Object.fromEntries(Object.entries(sets).map(([drawing, list]) => [drawing, list.filter((id) => now[id])])));
}

/** Follows the playhead and the active layer: what lies in drawings that are not reached any more is let go. */
export function followDesk(): void {
  const { sets } = pick();
  const within = new Set(reached().map(({ drawingId }) => drawingId));
  const ids = Object.keys(sets);
  if (ids.length > 0) pickUp(Object.fromEntries(ids.flatMap((id) => (within.has(id) ? [[id, sets[id]!]] : []))));
}

/** How much of a change each drawing takes. */
export function fractionsNow(sets: MarkSets = pick().sets): Record<Id, number> {
  const within = reached().filter(({ drawingId }) => sets[drawingId]);
  const order = [...new Set(within.map(({ index }) => index))].sort((a, b) => a - b);
  const { spread, byTicks } = pick();
  const each = fractions(order.length, spread, byTicks ? (growthTicks() ?? undefined) : undefined);
  return Object.fromEntries(within.map(({ drawingId, index }) => [drawingId, each[order.indexOf(index)]!]));
}

export const selectMiddle = ({ left, top, right, bottom }: Box): Point => ({
  x: (left + right) / 2,
  y: (top + bottom) / 2,
});

/** What is turned, scaled and mirrored about, where it lay when the marks were picked up. */
export const pivotNow = (): Point => pick().pivot ?? selectMiddle(pick().box);

/** What a matrix of the active layer's space does in the space of a drawing. */
function inSpaceOf(drawingId: Id, matrix: Matrix): Matrix {
  const space = pick().spaces[drawingId];
  return space ? multiply(invert(space), multiply(matrix, space)) : matrix;
}

/** The matrix of what is done to marks of the leading drawings. */
export const matrixNow = (transform: Transform = pick().transform): Matrix => matrixAbout(pivotNow(), transform);

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

/** Whether the document changes by what is done to the marks picked up. */
let changing = false;

/** Changes the marks picked up, each worked out from how it was picked up. */
export function changeSelected(name: string, change: (base: Mark, drawingId: Id) => Mark, gesture?: string): void {
  if (!isChangeable()) return;
  const { sets, base } = pick();
  const all = (doc: ShotDocument) => {
    const next = changeMarks(doc, sets, (mark, drawingId) =>
      base[mark.id] ? change(base[mark.id]!, drawingId) : mark,
    );
    return movedAlong(doc, next, new Set(Object.keys(sets)));
  };
  changing = true;
  if (gesture) reEdit(name, all, gesture);
  else edit(name, all);
  changing = false;
  setPick({ left: marksNow(sets) });
}

/** Moves, scales, turns or skews what is picked up, all of it counted from when it was picked up. */
export function transformSelected(name: string, transform: Transform, gesture?: string): void {
  const pivot = pivotNow();
  const share = fractionsNow();
  const matrices = new Map(
    Object.keys(pick().sets).map((id) => [
      id,
      inSpaceOf(id, matrixAbout(pivot, fractionOf(transform, share[id] ?? 1))),
    ]),
  );
  if (whyNotChange() === null) setPick({ transform });
  changeSelected(name, (mark, drawingId) => transformed(mark, matrices.get(drawingId)!), gesture);
}

/** Nudges what is picked up by px of the screen, whichever way the picture is turned. */
export function nudgeSelected(right: number, down: number): void {
  const { view } = viewed();
  const [cos, sin] = [Math.cos(-view.angle), Math.sin(-view.angle)];
  const flip = view.mirrored ? -1 : 1;
  // One px of the picture, in the direction of the screen.
  const x = flip * (right * cos - down * sin);
  const y = right * sin + down * cos;
  const { transform } = pick();
  transformSelected('nudge', { ...transform, x: transform.x + x, y: transform.y + y });
}

/** Turns what is picked up over, left to right or top to bottom, in the picture's directions. */
export function mirrorSelected(across: boolean): void {
  const { transform } = pick();
  transformSelected(
    'mirror',
    across ? { ...transform, scaleX: -transform.scaleX } : { ...transform, scaleY: -transform.scaleY },
  );
}

/** What is picked up as it is now in the drawing it leads from, for the clip and for other layers. */
export const selectedMarks = (): Mark[] => {
  const { doc } = useDocument.getState();
  return Object.entries(pick().sets).flatMap(([drawingId, ids]) => {
    const drawing = doc && find(doc, 'drawing', drawingId);
    return drawing ? marksAmong(drawing, ids) : [];
  });
};

export const gestureName = (): string => `pick-${randomId()}`;
