/** The keyboard: finds the action of a key by its physical place, and keeps track of held keys. */
import { ACTIONS, act, HELD, type Action, type ActionName, type Key } from './actions.ts';
import { desk, setDesk } from './desk.ts';

const NAMES: Readonly<Record<string, string>> = {
  Space: 'Space',
  Equal: '+',
  Minus: '−',
  BracketLeft: '[',
  BracketRight: ']',
  ArrowLeft: '←',
  ArrowRight: '→',
  Delete: 'Del',
  Slash: '/',
};

/** A key as it is written on it. */
export function keyText({ code, shift, ctrl, alt }: Key): string {
  if (code === 'Slash' && shift) return '?';
  const name = NAMES[code] ?? code.replace(/^(Key|Digit)/, '');
  return [ctrl && 'Ctrl', alt && 'Alt', shift && 'Shift', name].filter(Boolean).join('+');
}

/** A button's tooltip: what it does, and by which key. */
export function titleOf(name: ActionName): string {
  const action: Action = ACTIONS[name];
  const key = action.keys[0];
  return key ? `${action.label} · ${keyText(key)}` : action.label;
}

const matches = (event: KeyboardEvent, { code, shift = false, ctrl = false, alt = false }: Key): boolean =>
  event.code === code && event.shiftKey === shift && (event.ctrlKey || event.metaKey) === ctrl && event.altKey === alt;

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target instanceof HTMLTextAreaElement ||
    target instanceof HTMLSelectElement ||
    (target instanceof HTMLInputElement && target.type !== 'range' && target.type !== 'checkbox'));

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
    target.closest('button,a,summary,[role=button]') !== null &&
    tabbing
  );
}

/** Listens to keys while the desk is open. */
export function attachKeys(): () => void {
  const down = (event: KeyboardEvent): void => {
    if (event.code === 'Tab') tabbing = true;
    if (event.defaultPrevented || isTaken(event)) return;
    const held = HELD.find(
      (h) => h.code === event.code && !event.ctrlKey && !event.metaKey && !event.shiftKey && !event.altKey,
    );
    if (held) {
      if (desk().holding !== held.holding) setDesk({ holding: held.holding });
      event.preventDefault();
      return;
    }
    const name = (Object.keys(ACTIONS) as ActionName[]).find((each) =>
      ACTIONS[each].keys.some((key) => matches(event, key)),
    );
    if (!name) return;
    event.preventDefault();
    act(name);
  };
  // A button clicked last would take Space for itself; at the desk it plays, unless one goes by Tab.
  const early = (event: KeyboardEvent): void => {
    if (event.code !== 'Space' || isTaken(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    if (!event.repeat) act('play');
  };
  const up = (event: KeyboardEvent): void => {
    if (HELD.some((h) => h.code === event.code)) setDesk({ holding: null });
  };
  const release = (): void => {
    setDesk({ holding: null });
  };
  const pointed = (): void => {
    tabbing = false;
  };
  addEventListener('pointerdown', pointed, { capture: true });
  addEventListener('keydown', early, { capture: true });
  addEventListener('keydown', down);
  addEventListener('keyup', up);
  addEventListener('blur', release);
  return () => {
    removeEventListener('pointerdown', pointed, { capture: true });
    removeEventListener('keydown', early, { capture: true });
    removeEventListener('keydown', down);
    removeEventListener('keyup', up);
    removeEventListener('blur', release);
  };
}
