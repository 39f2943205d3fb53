/** What the painter is told of a ghost. */
import type { Id } from '@tallow/core/document';

export interface Ghost {
  readonly drawingId: Id;
  readonly colour: string;
  readonly broken: boolean;
  /** 0 to 1. */
  readonly strength: number;
  /** How filled drawings are shown. */
  readonly look: 'outline' | 'full';
}
