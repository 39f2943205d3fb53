/** What an action is: something that can be done by a button, a menu and a key. Each room has a list of its own. */
import { say } from '../shot/document.ts';

/** A key of the keyboard by its place, with what is held beside it. */
export interface Shortcut {
  /** Physical key, as in `KeyboardEvent.code`. */
  readonly code: string;
  readonly shift?: boolean;
  readonly ctrl?: boolean;
  readonly alt?: boolean;
}

export const GROUPS = [
  'Time',
  'Drawings',
  'Onion skin',
  'Layers',
  'Picture',
  'Tools',
  'Marks',
  'Assemble',
  'General',
] as const;

export interface Action {
  /** What the user's own keys are kept under. */
  readonly name: string;
  readonly label: string;
  readonly group: (typeof GROUPS)[number];
  /** Keys before any of the user's own. */
  readonly keys: readonly Shortcut[];
  readonly run: () => void;
  /** What letting go of the key does, for actions that last as long as it is held. */
  readonly release?: () => void;
  /** Why it cannot be done now, said to the user, or null. */
  readonly whyNot?: () => string | null;
  /** Whether its key is left to the browser now. */
  readonly leavesKey?: () => boolean;
}

export const key = (code: string, more: Omit<Shortcut, 'code'> = {}): Shortcut => ({ code, ...more });
export const shift = (code: string): Shortcut => ({ code, shift: true });
export const ctrl = (code: string): Shortcut => ({ code, ctrl: true });
export const alt = (code: string): Shortcut => ({ code, alt: true });

/** An action that is not in a list yet. */
type Nameless = Omit<Action, 'name'>;
type Rest = Pick<Action, 'run' | 'release' | 'whyNot' | 'leavesKey'>;
/** Makes actions of a group. */
export const of =
  (group: Action['group']) =>
  (label: string, keys: readonly Shortcut[], run: () => void, more: Omit<Rest, 'run'> = {}): Nameless => ({
    label,
    group,
    keys,
    run,
    ...more,
  });

/** A list of actions, each by its name. */
export const named = <N extends string>(list: Readonly<Record<N, Nameless>>): Readonly<Record<N, Action>> =>
  Object.fromEntries(Object.entries<Nameless>(list).map(([name, action]) => [name, { ...action, name }])) as Record<
    N,
    Action
  >;

/** Does an action, or says why it cannot be done. */
export function act(action: Action): void {
  const trouble = action.whyNot?.() ?? null;
  if (trouble) say(trouble);
  else action.run();
}
