/** What an action is: something that can be done by a button and by a key. */

export interface Key {
  /** Physical key, as in `KeyboardEvent.code`. */
  readonly code: string;
  readonly shift?: boolean;
  readonly ctrl?: boolean;
  readonly alt?: boolean;
}

export const GROUPS = ['Time', 'Drawings', 'Onion skin', 'Layers', 'Picture', 'Tools', 'Marks', 'General'] as const;

export interface Action {
  readonly label: string;
  readonly group: (typeof GROUPS)[number];
  /** Keys before any of the user's own. */
  readonly keys: readonly Key[];
  readonly run: () => void;
  /** What letting go of the key does, for actions that last as long as it is held. */
  readonly release?: () => void;
  /** Why it cannot be done now, said to the user, or null. */
  readonly whyNot?: () => string | null;
}

export const key = (code: string, more: Omit<Key, 'code'> = {}): Key => ({ code, ...more });
export const shift = (code: string): Key => ({ code, shift: true });
export const ctrl = (code: string): Key => ({ code, ctrl: true });
export const alt = (code: string): Key => ({ code, alt: true });

type Rest = Pick<Action, 'run' | 'release' | 'whyNot'>;
/** Makes actions of a group. */
export const of =
  (group: Action['group']) =>
  (label: string, keys: readonly Key[], run: () => void, more: Omit<Rest, 'run'> = {}): Action => ({
    label,
    group,
    keys,
    run,
    ...more,
  });
