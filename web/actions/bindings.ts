/** Which keys do what: the actions' own, the user's in their place, mirrored for left-handers. Kept in this browser. */
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { Action, Shortcut } from './action.ts';
import { keptAs } from '../memory/memory.ts';

interface Bindings {
  /** Keys in place of an action's own, by its name. */
  readonly own: Readonly<Partial<Record<string, readonly Shortcut[]>>>;
  readonly leftHanded: boolean;
}

export const useBindings = create<Bindings>()(
  persist((): Bindings => ({ own: {}, leftHanded: false }), keptAs<Bindings>('tallow-keys', ['own', 'leftHanded'])),
);

const ROWS = [
  [
    'Backquote',
    'Digit1',
    'Digit2',
    'Digit3',
    'Digit4',
    'Digit5',
    'Digit6',
    'Digit7',
    'Digit8',
    'Digit9',
    'Digit0',
    'Minus',
    'Equal',
  ],
  ['KeyQ', 'KeyW', 'KeyE', 'KeyR', 'KeyT', 'KeyY', 'KeyU', 'KeyI', 'KeyO', 'KeyP', 'BracketLeft', 'BracketRight'],
  ['KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG', 'KeyH', 'KeyJ', 'KeyK', 'KeyL', 'Semicolon'],
  ['KeyZ', 'KeyX', 'KeyC', 'KeyV', 'KeyB', 'KeyN', 'KeyM', 'Comma', 'Period', 'Slash'],
] as const;

/** A key's place seen in a mirror. Commands with Ctrl stay where every program has them, and so does the key for help. */
export function mirrored(key: Shortcut): Shortcut {
  if (key.ctrl || (key.code === 'Slash' && key.shift)) return key;
  for (const row of ROWS) {
    const at = (row as readonly string[]).indexOf(key.code);
    if (at >= 0) return { ...key, code: row[row.length - 1 - at]! };
  }
  return key;
}

/** The keys of an action as they are now. */
export function keysOf(action: Action, { own, leftHanded }: Bindings = useBindings.getState()): readonly Shortcut[] {
  const given = leftHanded ? action.keys.map(mirrored) : action.keys;
  return own[action.name] ?? given;
}

export const sameKey = (a: Shortcut, b: Shortcut): boolean =>
  a.code === b.code && !a.shift === !b.shift && !a.ctrl === !b.ctrl && !a.alt === !b.alt;

/** The action of some that a key belongs to, if any. */
export const actionOf = (key: Shortcut, actions: readonly Action[]): Action | undefined =>
  actions.find((action) => keysOf(action).some((each) => sameKey(each, key)));

/** Gives an action a key in place of its first; whichever of all had that key loses it. Returns what lost it. */
export function bind(action: Action, key: Shortcut, all: readonly Action[]): Action | undefined {
  const had = actionOf(key, all);
  const own: Record<string, readonly Shortcut[] | undefined> = { ...useBindings.getState().own };
  if (had && had !== action) own[had.name] = keysOf(had).filter((each) => !sameKey(each, key));
  own[action.name] = [
    key,
    ...keysOf(action)
      .slice(1)
      .filter((each) => !sameKey(each, key)),
  ];
  useBindings.setState({ own });
  return had === action ? undefined : had;
}

/** Gives every action its own keys back. */
export const unbindAll = (): void => {
  useBindings.setState({ own: {} });
};
