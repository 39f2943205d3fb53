/** How a format is written: what is given, and what is answered. */
import type { AssetId, ShotDocument } from '@tallow/core/document';
import type { ExportSettings } from '@tallow/core/formats';
import type { AssetPicture } from '@tallow/core/render';
import type { Tell } from '../../queue/telling.ts';
import type { FrameDocuments } from '../../render/frame-documents.ts';

export interface Writing {
  /** The shot without its drawings. */
  readonly outline: ShotDocument;
  /** The shot with what a frame shows. */
  readonly documents: FrameDocuments;
  readonly settings: ExportSettings;
  /** Frames to be rendered, over all sequences. */
  readonly frames: number;
  /** Where the file goes. */
  readonly path: string;
  readonly tell: Tell;
  readonly assets: AssetPicture;
  /** The bytes of a recording as it is kept, or null where it is not there. */
  readonly recording: (asset: AssetId) => Promise<Buffer | null>;
}

/** Answers whether the file was finished. */
export type Writer = (writing: Writing) => Promise<boolean>;
