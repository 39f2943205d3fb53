/** An item of a menu that does an action. */
import { DropdownMenu } from 'radix-ui';
import { act, type Action } from './action.ts';
import { keysOf } from './bindings.ts';
import { keyText } from './key-text.ts';

/** An item for an action, with its key; where it cannot be done now it says why. */
export function ActionItem({ action, label }: { action: Action; label?: string }) {
  const whyNot = action.whyNot?.() ?? null;
  const key = keysOf(action)[0];
  return (
    <DropdownMenu.Item
      className={`flex h-8 cursor-pointer items-center justify-between gap-6 rounded-md px-2 outline-none data-[highlighted]:bg-soot-700 ${whyNot ? 'text-wax-500' : ''}`}
      data-tip={whyNot ?? undefined}
      onSelect={() => {
        act(action);
      }}
    >
      {label ?? action.label}
      <span className="font-mono text-xs text-wax-500">{key ? keyText(key) : ''}</span>
    </DropdownMenu.Item>
  );
}
