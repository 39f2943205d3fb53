/** What is to be known of a format in which a shot is taken away. What writes it stands in the server, under the same name. */

/** Formats that serve the same end, in the order in which they are offered, as they are called. */
export const EXPORT_FAMILIES = {
  frames: 'Frames',
  film: 'Film',
  loop: 'Loop',
  page: 'On one page',
} as const;
export type ExportFamily = keyof typeof EXPORT_FAMILIES;

/**
 * What a picture says of how much is seen through it: colours as they are with the alpha beside them, colours times alpha,
 * or the alpha alone as a picture in white on black.
 */
export const ALPHA_KINDS = ['straight', 'premultiplied', 'matte'] as const;
export type AlphaKind = (typeof ALPHA_KINDS)[number];

export interface ExportFormat {
  readonly family: ExportFamily;
  /** As it is offered, within its family. */
  readonly label: string;
  /** What it is for, in one short sentence. */
  readonly says: string;
  /** Ending of the file that is fetched. */
  readonly ending: string;
  /** Ending of each frame's file where frames are files, one sequence for each part; null where all is one file. */
  readonly frames: string | null;
  /** Whether a file holds the whole picture always: then it is neither parted nor cut. */
  readonly whole: boolean;
  /** How it can tell what is seen through, the usual way first; none where it cannot. */
  readonly alphas: readonly AlphaKind[];
  /** Whether its colours are light, which adds up; else as they are shown, in sRGB. */
  readonly linear: boolean;
  /** Whether the shot's sounds are in it. */
  readonly sound: boolean;
  /** It can be delivered at another rate than the shot's. */
  readonly rates?: true;
  /** It holds no picture: size, ground, layers and what part of the picture is taken mean nothing to it. */
  readonly words?: true;
  /** What the button says. */
  readonly doing: (frames: number, sequences: number) => string;
  /** What comes of so many frames at a rate, and what of them is lost, in words. */
  readonly tells?: (frames: number, rate: number) => { readonly comes: string; readonly lost: string | null };
}

/** What the button says where frames are files. */
export const doingFrames = (frames: number, sequences: number): string =>
  `Export ${sequences === 1 ? '' : `${sequences} × `}${frames} frames`;
