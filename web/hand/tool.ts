/** What a tool is: something the pen does in place of drawing. Each has a folder of its own in `tools/`. */
import type { Matrix } from '@tallow/core/geometry';
import type { ComponentType } from 'react';
import type { Action } from '../actions/action.ts';
import type { PenDoing, PenSample } from './pen-doing.ts';

/** The sign of a tool. */
export type TakingIcon = ComponentType<{ readonly size?: number | string }>;

export interface Tool {
  readonly name: string;
  /**
   * Begins where the pen lands.
   * @param inward CSS px of the canvas to the space it works in.
   * @returns null where it does nothing there.
   */
  readonly begin: (inward: Matrix, first: PenSample) => PenDoing | null;
  /** Whether it works in the space of the active layer, of its element, or of the shot. */
  readonly space: 'layer' | 'element' | 'shot';
  /** The ghosts it is seen with: those of the onion skin, none, or the drawings worked on together as well. */
  readonly ghosts: 'usual' | 'none' | 'together';
  /** Whether its settings stand in the column in place of the layers. */
  readonly hasPanel: boolean;
  /** What makes it active and puts it down again, where there is a key or button for that. */
  readonly taking: Action | null;
  /** Its button in the tray. */
  readonly Icon?: TakingIcon;
  /** What goes when it is put down. */
  readonly putDown?: () => void;
  /**
   * What a key does while it is active.
   * @param usual what the key does without it. @returns another action in its place, or 'done' where nothing is left to do.
   */
  readonly onKey?: (event: KeyboardEvent, preset: Action | undefined) => Action | 'done' | undefined;
}
