/** The menu that adds a look to a list. */
import type { LookKind } from '@tallow/core/document';
import { LOOKS } from '@tallow/core/looks';
import { Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { ITEM, Menu } from '../parts/menu.tsx';

export function AddLook({ kinds, onAdd }: { kinds: readonly LookKind[]; onAdd: (kind: LookKind) => void }) {
  return (
    <Menu
      label="Add a look"
      className="flex h-8 items-center gap-1 rounded-lg bg-soot-800 px-2.5 text-[13px] text-wax-300 hover:text-wax-100"
      trigger={
        <>
          <Plus size={14} /> Look
        </>
      }
    >
      {kinds.map((kind) => (
        <DropdownMenu.Item
          key={kind}
          className={ITEM}
          onSelect={() => {
            onAdd(kind);
          }}
        >
          {LOOKS[kind].name}
          <span className="ml-auto pl-4 text-xs text-wax-500">{LOOKS[kind].does}</span>
        </DropdownMenu.Item>
      ))}
    </Menu>
  );
}
