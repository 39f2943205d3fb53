/** What a shot's menu and a production's have in common. */
import { Archive, Pencil, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { ITEM } from '../parts/menu.tsx';

export function RenameItem({ onRename }: { onRename: () => void }) {
  return (
    <DropdownMenu.Item className={ITEM} onSelect={onRename}>
      <Pencil size={15} /> Rename
    </DropdownMenu.Item>
  );
}

export function ArchiveAndDelete({ onArchive, onDelete }: { onArchive: () => void; onDelete: () => void }) {
  return (
    <>
      <DropdownMenu.Item className={ITEM} onSelect={onArchive}>
        <Archive size={15} /> Archive
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={onDelete}>
        <Trash2 size={15} /> Delete
      </DropdownMenu.Item>
    </>
  );
}
