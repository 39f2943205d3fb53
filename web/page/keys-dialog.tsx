/** The page of keys, made from the bindings themselves; each can be bound anew. */
import { useEffect, useState } from 'react';
import { Button } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { GROUPS, type Action, type Shortcut } from '../actions/action.ts';
import { ACTIONS } from './all-actions.ts';
import { bind, keysOf, unbindAll, useBindings } from '../actions/bindings.ts';
import { setScreen, useScreen } from '../screen/screen.ts';
import { keyText, shortcutOf } from '../actions/key-text.ts';

/** Takes the next key for an action; Escape leaves it as it was. */
function useBinding(onLost: (text: string | null) => void) {
  const [waiting, setWaiting] = useState<Action | null>(null);
  useEffect(() => {
    if (!waiting) return undefined;
    const take = (event: KeyboardEvent): void => {
      const key = shortcutOf(event);
      if (!key) return;
      event.preventDefault();
      event.stopPropagation();
      setWaiting(null);
      if (event.code === 'Escape' || event.code === 'Tab') return;
      const lost = bind(waiting, key, ACTIONS);
      onLost(lost ? `“${lost.label}” had ${keyText(key)} and has lost it.` : null);
    };
    addEventListener('keydown', take, { capture: true });
    return () => {
      removeEventListener('keydown', take, { capture: true });
    };
  }, [waiting, onLost]);
  return { waiting, setWaiting };
}

const textOf = (waits: boolean, keys: readonly Shortcut[]): string =>
  waits ? '…' : keys.length > 0 ? keys.map(keyText).join(' ') : 'none';

export function KeysDialog() {
  const open = useScreen((s) => s.keysShown);
  const bindings = useBindings();
  const [lost, setLost] = useState<string | null>(null);
  const { waiting, setWaiting } = useBinding(setLost);
  const changed = Object.keys(bindings.own).length > 0;
  return (
    <Dialog
      title="Keys"
      open={open}
      onOpenChange={(keysShown) => {
        setScreen({ keysShown });
        setWaiting(null);
        setLost(null);
      }}
      wide
    >
      <div className="mb-4 flex items-center gap-4 text-[13px]">
        <label className="flex h-8 items-center gap-2" data-tip="Column on the left, keys under the right hand">
          <input
            type="checkbox"
            className="accent-flame"
            checked={bindings.leftHanded}
            onChange={(event) => {
              useBindings.setState({ leftHanded: event.target.checked });
            }}
          />
          I draw with the left hand
        </label>
        <span className="min-w-0 flex-1 text-wax-500" role="status">
          {waiting
            ? 'Press the new key, or Esc.'
            : (lost ?? 'Click a key to change it. Keys go by their place, not by the letter printed on them.')}
        </span>
        <Button
          className="!h-8 text-[13px]"
          whyNot={changed ? null : 'All keys are as they were.'}
          onClick={() => {
            unbindAll();
            setLost(null);
          }}
        >
          All as they were
        </Button>
      </div>
      <div className="columns-3 gap-7 text-[13px]">
        {GROUPS.map((group) => (
          <section key={group} className="mb-4">
            <h3 className="font-name mb-1 break-after-avoid text-sm text-wax-300">{group}</h3>
            <ul>
              {ACTIONS.filter((action) => action.group === group).map((action) => {
                const { name, label } = action;
                const keys = keysOf(action, bindings);
                return (
                  <li key={name} className="flex break-inside-avoid items-start justify-between gap-2">
                    <span className="py-1 leading-4">{label}</span>
                    <button
                      type="button"
                      data-testid={`key-${name}`}
                      aria-label={`${textOf(waiting === action, keys)}: key for ${label}`}
                      className={`moves shrink-0 rounded-md px-1.5 py-1 text-right font-mono text-xs leading-4 hover:bg-soot-800 ${waiting === action ? 'bg-flame-deep text-flame' : name in bindings.own ? 'text-wax-100' : 'text-flame'}`}
                      onClick={() => {
                        setWaiting(action);
                      }}
                    >
                      {textOf(waiting === action, keys)}
                    </button>
                  </li>
                );
              })}
            </ul>
          </section>
        ))}
      </div>
    </Dialog>
  );
}
