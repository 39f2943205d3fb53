/** What is to be known of a format in which a shot is taken away. What writes it stands in the server, under the same name. */
export interface ExportFormat {
  /** As it is offered. */
  readonly label: string;
  /** Ending of the file that is fetched. */
  readonly ending: string;
  /** Ending of each frame's file where frames are files, one sequence for each part; null where all is one file. */
  readonly frames: string | null;
  /** What the button says. */
  readonly doing: (frames: number, sequences: number) => string;
  /** What comes of so many frames at a rate, and what of them is lost, in words. */
  readonly tells?: (frames: number, rate: number) => { readonly comes: string; readonly lost: string | null };
}
