/** Keys in words: as they are written on them, and in tooltips. */
import type { Action, Shortcut } from './action.ts';
import { keysOf } from './bindings.ts';

const NAMES: Readonly<Record<string, string>> = {
  Equal: '+',
  Minus: '−',
  BracketLeft: '[',
  BracketRight: ']',
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  Delete: 'Del',
  Escape: 'Esc',
  Slash: '/',
  Backquote: '`',
  Comma: ',',
  Period: '.',
  Semicolon: ';',
  Quote: "'",
  Backslash: '\\',
};

/** A key as it is written on it. */
export function keyText({ code, shift, ctrl, alt }: Shortcut): string {
  if (code === 'Slash' && shift) return '?';
  const name = NAMES[code] ?? code.replace(/^(Key|Digit)/, '');
  return [ctrl && 'Ctrl', alt && 'Alt', shift && 'Shift', name].filter(Boolean).join('+');
}

/** A button's tooltip: what it does, and by which key. */
export function titleOf(action: Action, label: string = action.label): string {
  const key = keysOf(action)[0];
  return key ? `${label} · ${keyText(key)}` : label;
}

const MODIFIERS = /^(Shift|Control|Alt|Meta|OS)/;

/** The key of an event, or null for a modifier alone. */
export const shortcutOf = (event: KeyboardEvent): Shortcut | null =>
  MODIFIERS.test(event.code) || event.code === ''
    ? null
    : { code: event.code, shift: event.shiftKey, ctrl: event.ctrlKey || event.metaKey, alt: event.altKey };
