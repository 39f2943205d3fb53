/** The keyboard: finds the action of a key by its physical place, and keeps track of held keys. */
import { act, type Action } from '../actions/action.ts';
import { actionOf } from '../actions/bindings.ts';
import { shortcutOf } from '../actions/key-text.ts';
import { toolState } from '../hand/tool-state.ts';
import { showing } from '../picture/showing.ts';
import { onScreen } from '../screen/screen.ts';
import { toggleFull } from '../view/viewing.ts';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target instanceof HTMLTextAreaElement ||
    (target instanceof HTMLInputElement && !['range', 'checkbox', 'radio'].includes(target.type)));

/** Whether the user goes from control to control by keys: only then does Space press the focused button. */
let tabbing = false;

/** Whether an element makes something of this key itself: menus, dialogs, sliders and pressed buttons. */
function isTaken(event: KeyboardEvent): boolean {
  const { target } = event;
  if (isTyping(target)) return true;
  if (!(target instanceof HTMLElement)) return false;
  if (target.closest('[role=menu],[role=dialog],[role=listbox],[role=combobox]')) return true;
  if (/^(Arrow|Home$|End$)/.test(event.code))
    return target.closest('[role=slider],input[type=range],[data-arrows]') !== null;
  return (
    (event.code === 'Space' || event.code === 'Enter') &&
    target.closest('button,a,summary,[role=button],input[type=checkbox],input[type=radio]') !== null &&
    tabbing
  );
}

/** Listens to the keys of some actions while the desk is open; the active tool is asked first. */
export function attachKeys(actions: readonly Action[]): () => void {
  /** Actions whose keys are held down now, by physical key. */
  const down = new Map<string, Action>();
  const pressed = (event: KeyboardEvent): void => {
    if (event.code === 'Tab') tabbing = true;
    if (event.defaultPrevented || isTaken(event)) return;
    const key = shortcutOf(event);
    const preset = key ? actionOf(key, actions) : undefined;
    const { activeTool } = toolState();
    const taken = showing().planning ? undefined : activeTool?.onKey?.(event, preset);
    const action = taken === 'done' ? undefined : (taken ?? preset);
    if (taken !== 'done' && (!action || action.leavesKey?.())) return;
    event.preventDefault();
    if (!action) return;
    if (action.release) {
      if (down.has(event.code)) return;
      down.set(event.code, action);
    }
    act(action);
  };
  // A button clicked last would take Space for itself; at the desk it plays, unless one goes by Tab.
  const early = (event: KeyboardEvent): void => {
    if (event.code !== 'Space' || isTaken(event)) return;
    const key = shortcutOf(event);
    const action = key && actionOf(key, actions);
    if (!action) return;
    event.preventDefault();
    event.stopPropagation();
    if (!event.repeat) act(action);
  };
  const up = (event: KeyboardEvent): void => {
    down.get(event.code)?.release?.();
    down.delete(event.code);
  };
  const release = (): void => {
    for (const action of down.values()) action.release?.();
    down.clear();
  };
  const pointed = (): void => {
    tabbing = false;
  };
  const unfull = (): void => {
    if (!document.fullscreenElement && onScreen().full) toggleFull();
  };
  addEventListener('pointerdown', pointed, { capture: true });
  addEventListener('keydown', early, { capture: true });
  addEventListener('keydown', pressed);
  addEventListener('keyup', up);
  addEventListener('blur', release);
  document.addEventListener('fullscreenchange', unfull);
  return () => {
    release();
    removeEventListener('pointerdown', pointed, { capture: true });
    removeEventListener('keydown', early, { capture: true });
    removeEventListener('keydown', pressed);
    removeEventListener('keyup', up);
    removeEventListener('blur', release);
    document.removeEventListener('fullscreenchange', unfull);
  };
}
