/** Menus: one look for all of them. */
import { DropdownMenu } from 'radix-ui';
import { useRef, useState, type ReactNode } from 'react';

const MENU = 'z-60 min-w-44 rounded-[10px] border border-soot-700 bg-soot-800 p-1.5 shadow-2xl';
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

/** Ends a list of ticks, which stays open while they are set. */
export const DoneItem = () => (
  <DropdownMenu.Item className={`${ITEM} mt-1 justify-center bg-soot-700 text-wax-100`}>Done</DropdownMenu.Item>
);

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

/** Between a button and its menu, CSS px. */
const GAP = 6;

interface MenuProps {
  label: string;
  trigger: ReactNode;
  className?: string;
  /** Of the list. */
  width?: string;
  align?: 'start' | 'end';
  /** Beside the column its button stands in, so that nothing of that is covered. */
  beside?: boolean;
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
  beside = false,
  children,
  testId,
}: MenuProps) {
  const button = useRef<HTMLButtonElement>(null);
  const [at, setAt] = useState<{ side: 'bottom' | 'left' | 'right'; offset: number }>({ side: 'bottom', offset: GAP });
  const place = (open: boolean): void => {
    const column = beside && open ? button.current?.closest('aside') : null;
    if (!column || !button.current) return;
    const [own, all] = [button.current.getBoundingClientRect(), column.getBoundingClientRect()];
    // The column stands at the left for who draws with the left hand.
    const isRight = all.left > innerWidth / 2;
    setAt(
      isRight
        ? { side: 'left', offset: own.left - all.left + GAP }
        : { side: 'right', offset: all.right - own.right + GAP },
    );
  };
  return (
    <DropdownMenu.Root onOpenChange={place}>
      <DropdownMenu.Trigger
        ref={button}
        aria-label={label}
        data-tip={label}
        data-testid={testId}
        className={`moves ${className}`}
      >
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align={align}
          side={at.side}
          sideOffset={at.offset}
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
