/** What is assembled: the uses that are picked, and the element whose inside is open. */
import { keyOf, pathOf, standing, type Occurrence } from '@tallow/core/assembly';
import { find, findAll, shotOf, type Element, type Id, type Placement, type ShotDocument } from '@tallow/core/document';
import { invert, IDENTITY, mapBox, union, EMPTY_BOX, isEmpty, type Box, type Matrix } from '@tallow/core/geometry';
import { drawingBox, drawListOf } from '@tallow/core/render';
import { elementLength, placedInside } from '@tallow/core/timing';
import { create } from 'zustand';
import { setShowing } from '../../picture/showing.ts';
import { shotFrameNow } from '../../playback/shot-time.ts';
import { current } from '../../selection/current.ts';
import { setSelection } from '../../selection/selection.ts';
import { useDocument } from '../../shot/document.ts';
import { atOpening } from '../../shot/opening.ts';

interface Placing {
  /** Uses that are picked. */
  readonly selected: readonly Id[];
  /** The plane that is picked, where no use is. */
  readonly plane: Id | null;
  /** The light that is picked, where neither is. */
  readonly light: Id | null;
  /** The sound that is picked, where none of these is. */
  readonly sound: Id | null;
  /** The use whose inside is open, by its key; null for the planes of the shot. */
  readonly inside: string | null;
  /** Whether the corners of what is picked are moved one by one. */
  readonly corners: boolean;
  /** The scattering whose region is drawn next. */
  readonly lasso: Id | null;
  /** Whether things snap to guides, anchors and followed points. */
  readonly snaps: boolean;
}

/** What is picked where nothing is. */
const NOTHING = { selected: [], plane: null, light: null, sound: null, corners: false, lasso: null } as const;
const FRESH: Placing = { ...NOTHING, inside: null, snaps: true };
export const usePlacing = create<Placing>(() => FRESH);
export const placing = usePlacing.getState;
export const setPlacing = usePlacing.setState;

atOpening(() => {
  setPlacing(FRESH);
});

/** What is open: the shot, or an element whose inside is. */
export interface Level {
  readonly doc: ShotDocument;
  /** The placements around it, from the shot inwards; none for the shot. */
  readonly path: readonly Placement[];
  readonly holder: Element | null;
  /** Frames it has. */
  readonly length: number;
}

/** The level of a document that is open. */
export function levelOf(doc: ShotDocument, inside: string | null): Level {
  const path = inside ? pathOf(doc, inside) : null;
  const holder = find(doc, 'element', path?.at(-1)?.elementId) ?? null;
  return holder && path
    ? { doc, path, holder, length: elementLength(doc, holder) }
    : { doc, path: [], holder: null, length: shotOf(doc).length };
}

export function levelNow(): Level | null {
  const { doc } = useDocument.getState();
  return doc && levelOf(doc, placing().inside);
}

/** The uses of a level with their elements, frontmost first. */
export const usesOn = ({ doc, holder }: Level): { placement: Placement; element: Element }[] =>
  holder
    ? placedInside(doc, holder)
    : findAll(doc, 'plane', shotOf(doc).planes).flatMap(({ placements }) =>
        findAll(doc, 'placement', placements).flatMap((placement) => {
          const element = find(doc, 'element', placement.elementId);
          return element ? [{ placement, element }] : [];
        }),
      );

/** The key of a use of a level. */
export const keyOn = ({ path }: Level, placementId: Id): string => keyOf([...path, { id: placementId }]);

/** The frame of a level on a frame of the shot. */
export const frameOn = ({ doc, path, holder }: Level, shotFrame: number): number =>
  holder ? (standing(doc, path, shotFrame)?.moment.frame ?? 0) : shotFrame;

/** From the space of a level to px of the shot. */
export const levelMatrix = ({ doc, path, holder }: Level, shotFrame: number): Matrix =>
  holder ? (standing(doc, path, shotFrame)?.matrix ?? IDENTITY) : IDENTITY;

/** A use of a level on a frame of the shot. */
export const standsAs = (level: Level, placement: Placement, shotFrame: number): Occurrence | null =>
  standing(level.doc, [...level.path, placement], shotFrame);

/** What a use covers on a frame, in its element's own space before it is bent; empty where it shows nothing. */
export function boxIn(level: Level, placement: Placement, shotFrame: number): Box {
  const use = standsAs(level, placement, shotFrame);
  if (!use) return EMPTY_BOX;
  const { doc } = level;
  const all = drawListOf(doc, shotFrame, { guides: false, place: use.key, flat: use.key, looks: 'none' });
  // What stands still beside it, a wall, says nothing about where the effect is.
  const moving = all.filter(
    ({ layerId }) => find(doc, 'runlist', find(doc, 'layer', layerId)?.runListId)?.period !== 1,
  );
  const shown = moving.length > 0 ? moving : all;
  const back = invert(use.bend ? flatMatrix(level, placement, shotFrame) : use.matrix);
  const box = shown.reduce((sum, { drawing, matrix }) => union(sum, mapBox(matrix, drawingBox(drawing))), EMPTY_BOX);
  return isEmpty(box) ? EMPTY_BOX : mapBox(back, box);
}

/** Element space to px of the shot, corners left out. */
export const flatMatrix = (level: Level, placement: Placement, shotFrame: number): Matrix =>
  standing(level.doc, [...level.path, placement], shotFrame, { flat: keyOn(level, placement.id) })?.matrix ?? IDENTITY;

/** Picks uses; the first of them is stood in, so that drawing goes on there. */
export function selectUses(selected: readonly Id[]): void {
  setPlacing({ ...NOTHING, selected });
  if (selected.length > 0) setShowing({ filming: false });
  const level = levelNow();
  const placement = level && find(level.doc, 'placement', selected[0]);
  if (!level || !placement) return;
  const place = keyOn(level, placement.id);
  const now = current();
  if (now?.place === place) return;
  setSelection({ elementId: placement.elementId, place, layerId: null, selectedRuns: null });
  const here = standsAs(level, placement, shotFrameNow());
  if (here) setSelection({ frame: here.moment.frame, turn: Math.max(0, here.moment.turn) });
}

/** Picks a plane, or none. */
export const selectPlane = (plane: Id | null): void => {
  setPlacing({ ...NOTHING, plane });
  if (plane) setShowing({ filming: false });
};

/** Picks a light, or none. */
export const selectLight = (light: Id | null): void => {
  setPlacing({ ...NOTHING, light });
  if (light) setShowing({ filming: false });
};

/** Picks a sound, or none. */
export const selectSound = (sound: Id | null): void => {
  setPlacing({ ...NOTHING, sound });
  if (sound) setShowing({ filming: false });
};

/** The uses that are picked and still there. */
export const selectedUses = ({ doc }: Level, selected: readonly Id[] = placing().selected): Placement[] =>
  findAll(doc, 'placement', selected);

/** Opens the inside of a use, or goes back out. */
export const openInside = (inside: string | null): void => {
  setPlacing({ ...NOTHING, inside });
};
