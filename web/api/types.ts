/** What the server answers. */
import type { ElementTime, Id } from '@tallow/core/document';
import type { ExportSettings } from '@tallow/core/formats';
import type { ShelfClip, ShelfKind } from '@tallow/core/shelf';

export interface Production {
  readonly id: Id;
  readonly name: string;
}

export interface ShotSummary {
  readonly id: Id;
  readonly productionId: Id;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly rate: number;
  readonly length: number;
  readonly background: string | null;
  readonly revision: number;
  readonly updatedAt: string;
  readonly loop: { readonly revision: number; readonly flashes: boolean } | null;
}

/** An archive on its way out or in. */
export interface ArchiveInfo {
  readonly id: Id;
  readonly state: 'waiting' | 'running' | 'done' | 'stopped' | 'failed';
  readonly total: number;
  readonly done: number;
  readonly fileName: string;
  /** What came in. */
  readonly shots: readonly {
    readonly id: Id;
    readonly name: string;
    readonly renewed: boolean;
    readonly onShelf: boolean;
  }[];
  readonly trouble: string | null;
}

/** A revision of a shot that has a name. */
export interface Version {
  readonly id: Id;
  readonly shotId: Id;
  readonly revision: number;
  readonly name: string;
  readonly made: 'hand' | 'export' | 'restore';
  readonly createdAt: string;
  /** Drawings that have changed since. */
  readonly changed: number;
}

/** An effect on the shelf: the small shot it is kept in, and what the shelf says of it. */
export interface ShelfItem extends ShotSummary {
  readonly kind: ShelfKind;
  readonly tags: readonly string[];
  readonly note: string;
  readonly time: ElementTime;
  readonly colours: readonly string[];
  readonly shipped: boolean;
}

/** All that an effect is made of, as it is stored. */
export type ShelfParts = Omit<ShelfClip, 'entities'> & { readonly entities: readonly unknown[] };

export interface ShotStructure {
  readonly shot: ShotSummary;
  readonly production: string;
  readonly epoch: string;
  readonly revision: number;
  readonly entities: readonly unknown[];
  readonly drawings: readonly Id[];
}

export interface Change {
  readonly id: Id;
  readonly kind: string;
  readonly revision: number;
  readonly body: unknown;
}

/** One page of what has changed. */
export interface ChangesPage {
  /** Another one after the database was restored. */
  readonly epoch: string;
  readonly revision: number;
  readonly changes: readonly Change[];
  readonly next: string | null;
}

/** What a save is answered with. */
export interface Saved {
  readonly epoch: string;
  readonly revision: number;
  /** The revision before it: above its base, others have changed other things. */
  readonly before: number;
}

export interface ExportInfo {
  readonly id: Id;
  readonly state: 'waiting' | 'running' | 'done' | 'stopped' | 'failed';
  readonly settings: ExportSettings;
  readonly frames: number;
  readonly done: number;
  readonly fileName: string;
  readonly bytes: number | null;
  readonly trouble: string | null;
  readonly createdAt: string;
}
