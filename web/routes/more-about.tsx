/** The menu of a card or a production. */
import { Ellipsis } from 'lucide-react';
import type { ReactNode } from 'react';
import { Menu } from '../parts/menu.tsx';

export function MoreAbout({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Menu
      label={label}
      trigger={<Ellipsis size={17} />}
      className="grid size-8 shrink-0 place-items-center rounded-lg text-wax-500 hover:bg-soot-800 hover:text-wax-100"
    >
      {children}
    </Menu>
  );
}
