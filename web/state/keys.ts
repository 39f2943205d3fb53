/** The keyboard: finds the action of a key by its physical place, and keeps track of held keys. */
import type { Action, Key } from './action.ts';
import { ACTIONS, act, type ActionName } from './actions.ts';
import { actionOf, keysOf } from './bindings.ts';
import { desk } from './desk.ts';
import { nudgePicked, pickedCount } from './pick.ts';
import { hasMarkClip } from './pick-actions.ts';
import { removeGrips } from './reshape.ts';

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
export function keyText({ code, shift, ctrl, alt }: Key): string {
  if (code === 'Slash' && shift) return '?';
  const name = NAMES[code] ?? code.replace(/^(Key|Digit)/, '');
  return [ctrl && 'Ctrl', alt && 'Alt', shift && 'Shift', name].filter(Boolean).join('+');
}

/** A button's tooltip: what it does, and by which key. */
export function titleOf(name: ActionName, label: string = ACTIONS[name].label): string {
  const key = keysOf(name)[0];
  return key ? `${label} · ${keyText(key)}` : label;
}

const MODIFIERS = /^(Shift|Control|Alt|Meta|OS)/;

/** The key of an event, or null for a modifier alone. */
export const keyOf = (event: KeyboardEvent): Key | null =>
  MODIFIERS.test(event.code) || event.code === ''
    ? null
    : { code: event.code, shift: event.shiftKey, ctrl: event.ctrlKey || event.metaKey, alt: event.altKey };

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target instanceof HTMLTextAreaElement ||
    target instanceof HTMLSelectElement ||
    (target instanceof HTMLInputElement && !['range', 'checkbox', 'radio'].includes(target.type)));

/** Whether the user goes from control to control by keys: only then does Space press the focused button. */
let tabbing = false;

/** Whether an element makes something of this key itself: menus, dialogs, sliders and pressed buttons. */
function isTaken(event: KeyboardEvent): boolean {
  const { target } = event;
  if (isTyping(target)) return true;
  if (!(target instanceof HTMLElement)) return false;
  if (target.closest('[role=menu],[role=dialog],[role=listbox]')) return true;
  if (event.code.startsWith('Arrow')) return target.closest('[role=slider],input[type=range],[data-arrows]') !== null;
  return (
    (event.code === 'Space' || event.code === 'Enter') &&
    target.closest('button,a,summary,[role=button],input[type=checkbox],input[type=radio]') !== null &&
    tabbing
  );
}

/** Arrows in screen directions. */
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const picksUp = (): boolean => desk().hand === 'pick' && !desk().planning;

/** Arrows nudge what is picked up: 1 px, with Shift 10. */
function nudged(event: KeyboardEvent): boolean {
  const arrow = ARROWS[event.code];
  if (!arrow || !picksUp() || pickedCount() === 0 || event.ctrlKey || event.altKey) return false;
  event.preventDefault();
  const far = event.shiftKey ? 10 : 1;
  nudgePicked(arrow[0] * far, arrow[1] * far);
  return true;
}

/** What keys for drawings do to marks while marks are in hand. */
const ON_MARKS: Readonly<Partial<Record<ActionName, ActionName>>> = {
  remove: 'deleteMarks',
  copyDrawings: 'copyMarks',
  cutDrawings: 'cutMarks',
  pickAll: 'allMarks',
  pickNone: 'letGo',
};

function onMarks(name: ActionName | undefined): ActionName | undefined {
  if (!name || !picksUp()) return name;
  if (name === 'paste') return hasMarkClip() ? 'pasteMarks' : name;
  return pickedCount() > 0 || name === 'pickAll' ? (ON_MARKS[name] ?? name) : name;
}

/** Listens to keys while the desk is open. */
export function attachKeys(): () => void {
  /** Actions whose keys are held down now, by physical key. */
  const held = new Map<string, Action>();
  const down = (event: KeyboardEvent): void => {
    if (event.code === 'Tab') tabbing = true;
    if (event.defaultPrevented || isTaken(event)) return;
    const key = keyOf(event);
    if (nudged(event)) return;
    const name = key && onMarks(actionOf(key));
    if (!name) return;
    // With nothing copied here, what the clipboard holds may be a picture: the browser is left to paste it.
    if (name === 'paste' && !desk().clip) return;
    event.preventDefault();
    if (name === 'remove' && desk().hand === 'reshape') {
      removeGrips();
      return;
    }
    const action: Action = ACTIONS[name];
    if (action.release) {
      if (held.has(event.code)) return;
      held.set(event.code, action);
    }
    act(name);
  };
  // A button clicked last would take Space for itself; at the desk it plays, unless one goes by Tab.
  const early = (event: KeyboardEvent): void => {
    if (event.code !== 'Space' || isTaken(event)) return;
    const key = keyOf(event);
    const name = key && actionOf(key);
    if (!name) return;
    event.preventDefault();
    event.stopPropagation();
    if (!event.repeat) act(name);
  };
  const up = (event: KeyboardEvent): void => {
    held.get(event.code)?.release?.();
    held.delete(event.code);
  };
  const release = (): void => {
    for (const action of held.values()) action.release?.();
    held.clear();
  };
  const pointed = (): void => {
    tabbing = false;
  };
  const unfull = (): void => {
    if (!document.fullscreenElement && desk().full) act('full');
  };
  addEventListener('pointerdown', pointed, { capture: true });
  addEventListener('keydown', early, { capture: true });
  addEventListener('keydown', down);
  addEventListener('keyup', up);
  addEventListener('blur', release);
  document.addEventListener('fullscreenchange', unfull);
  return () => {
    release();
    removeEventListener('pointerdown', pointed, { capture: true });
    removeEventListener('keydown', early, { capture: true });
    removeEventListener('keydown', down);
    removeEventListener('keyup', up);
    removeEventListener('blur', release);
    document.removeEventListener('fullscreenchange', unfull);
  };
}
