/** Menus: one look for all of them. */
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

export const MENU = 'z-40 min-w-44 rounded-[10px] border border-soot-700 bg-soot-800 p-1.5 shadow-2xl';
export const ITEM =
  'flex h-8 cursor-pointer items-center gap-2.5 rounded-md px-2 outline-none data-[highlighted]:bg-soot-700';

/** Something that is on or off. @param stays whether the menu stays open: it says how what follows is done. */
export function CheckItem({
  checked,
  onChange,
  stays = false,
  children,
}: {
  checked: boolean;
  onChange: (on: boolean) => void;
  stays?: boolean;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.CheckboxItem
      checked={checked}
      onCheckedChange={onChange}
      onSelect={(event) => {
        if (stays) event.preventDefault();
      }}
      className="flex h-8 cursor-pointer items-center justify-between gap-6 rounded-md px-2 outline-none data-[highlighted]:bg-soot-700"
    >
      {children}
      <span className={`size-2.5 rounded-full ${checked ? 'bg-flame' : 'bg-soot-950'}`} />
    </DropdownMenu.CheckboxItem>
  );
}

export const MenuLine = () => <DropdownMenu.Separator className="my-1.5 h-px bg-soot-700" />;

/** A menu within a menu. */
export function SubMenu({ label, children }: { label: string; children: ReactNode }) {
  return (
    <DropdownMenu.Sub>
      <DropdownMenu.SubTrigger className="flex h-8 cursor-pointer items-center justify-between rounded-md px-2 outline-none data-[highlighted]:bg-soot-700 data-[state=open]:bg-soot-700">
        {label}{' '}
        <span aria-hidden className="text-wax-500">
          ›
        </span>
      </DropdownMenu.SubTrigger>
      <DropdownMenu.Portal>
        <DropdownMenu.SubContent className={`${MENU} w-80`}>{children}</DropdownMenu.SubContent>
      </DropdownMenu.Portal>
    </DropdownMenu.Sub>
  );
}

interface MenuProps {
  label: string;
  trigger: ReactNode;
  className?: string;
  /** Of the list. */
  width?: string;
  align?: 'start' | 'end';
  /** Beside what stands above it, where that must be seen. */
  side?: 'bottom' | 'left';
  children: ReactNode;
  testId?: string;
}

/** A button that opens a list. What an item opens takes the focus itself. */
export function Menu({
  label,
  trigger,
  className = '',
  width = '',
  align = 'end',
  side = 'bottom',
  children,
  testId,
}: MenuProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger aria-label={label} title={label} data-testid={testId} className={`moves ${className}`}>
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align={align}
          side={side}
          sideOffset={6}
          collisionPadding={8}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
          }}
          className={`${MENU} ${width} max-h-[var(--radix-dropdown-menu-content-available-height)] overflow-y-auto`}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
