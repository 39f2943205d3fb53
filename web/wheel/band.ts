/** The unrolled wheel's geometry: frames from left to right, layers as rows. Lengths are CSS px. */

export const BAND = {
  width: 344,
  ruler: 26,
  pictures: 46,
  active: 28,
  row: 10,
  gap: 3,
  scroll: 22,
} as const;

/** The narrowest a frame is: what a pen still hits. */
const MIN = 10;
const MAX = 26;

export interface Band {
  readonly length: number;
  readonly perFrame: number;
  /** Frame at the left edge. */
  readonly from: number;
}

/** How wide a frame is, so that all fit or each can be hit. */
export const frameWidth = (length: number): number => Math.min(MAX, Math.max(MIN, BAND.width / length));

/** Frames that fit at once. */
export const framesSeen = (length: number): number => Math.min(length, BAND.width / frameWidth(length));

/** The band so scrolled that a frame is seen with its neighbours, moved no more than needed. */
export function bandShowing(length: number, from: number, frame: number): Band {
  const seen = framesSeen(length);
  const last = length - seen;
  const margin = Math.min(3, seen / 4);
  let left = Math.min(Math.max(0, from), last);
  if (frame < left + margin) left = frame - margin;
  if (frame + 1 > left + seen - margin) left = frame + 1 + margin - seen;
  return { length, perFrame: frameWidth(length), from: Math.min(Math.max(0, left), last) };
}

/** The band turned on by a page where a frame has left it, so that the frame stands near its left edge. */
export function bandTurned(length: number, from: number, frame: number): Band {
  const seen = framesSeen(length);
  const isSeen = frame >= from && frame + 1 <= from + seen;
  const left = isSeen ? from : frame - Math.min(3, seen / 4);
  return { length, perFrame: frameWidth(length), from: Math.min(Math.max(0, left), length - seen) };
}

export const xOf = ({ from, perFrame }: Band, frame: number): number => (frame - from) * perFrame;

/** The place on the element's time at a distance from the left edge, in frames. */
export const timeAtX = ({ from, perFrame, length }: Band, x: number): number =>
  Math.min(length - 1e-9, Math.max(0, from + x / perFrame));

export interface BandRow {
  readonly top: number;
  readonly height: number;
}

/** Rows from the top down for groups of layers, the active one thick enough for a pen. @param active index of its group. */
export function rowsFor(count: number, active: number): BandRow[] {
  let top: number = BAND.ruler + BAND.pictures + 6;
  return Array.from({ length: count }, (_, i) => {
    const height = i === active ? BAND.active : BAND.row;
    const row = { top, height };
    top += height + BAND.gap;
    return row;
  });
}

/** How many layers beside the active one have a row of their own within a height, CSS px; what lies beyond is bundled above and below. */
export function apartWithin(height: number): number {
  const left = height - BAND.ruler - BAND.pictures - 10 - (BAND.active + BAND.gap);
  // Two rows for the bundles.
  return Math.max(0, Math.floor(left / (BAND.row + BAND.gap)) - 2);
}

/** Tells what of an element's time is seen of the band: the rest is not drawn, however long the element is. */
export const isIn =
  (band: Band) =>
  ({ from, to }: { readonly from: number; readonly to: number }): boolean =>
    to > band.from - 1 && from < band.from + BAND.width / band.perFrame + 1;
