/** The menu of an element on the strip. */
import type { Id } from '@tallow/core/document';
import { deleteElement, raisePlacement, removePlacements } from '@tallow/core/edit';
import { placementsOf } from '@tallow/core/timing';
import {
  ArrowDown,
  ArrowRightFromLine,
  ArrowUp,
  Copy,
  CopyPlus,
  Ellipsis,
  Library,
  Pencil,
  Trash2,
} from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { memo } from 'react';
import { ActionItem } from '../actions/action-item.tsx';
import { LAYER_ACTIONS } from '../layers/actions.ts';
import { copyPart, duplicateElement } from '../layers/duplicate.ts';
import { ITEM, Menu } from '../parts/menu.tsx';
import { currentOf } from '../selection/current.ts';
import { startKeeping } from '../shelf/shelf.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { withDrawings } from '../saving/drawings.ts';

interface RowMenuProps {
  elementId: Id;
  place: string | null;
  name: string;
  first: boolean;
  last: boolean;
  only: boolean;
  onName: () => void;
  /** The frame it begins on is to be typed. */
  onStart: () => void;
}

/** What stands in the menu: worked out while it is open only. */
function Items({ elementId, place, first, last, only, onName, onStart }: RowMenuProps) {
  const row = useDocument((s) => currentOf(s.doc, { elementId, layerId: null, place }));
  if (!row) return null;
  const { element, placement } = row;
  const isMany = placementsOf(row.doc, element.id).length > 1;
  const remove = (): void => {
    if (isMany && placement) {
      edit('take a use away', (doc) => removePlacements(doc, [placement.id]));
      return;
    }
    if (only) {
      say('This is the only element. Add another before deleting it.');
      return;
    }
    withDrawings(
      row.layers.flatMap(({ layer }) => Object.values(layer.slots)),
      () => {
        edit('delete element', (doc) => deleteElement(doc, element.id));
        if (selection().elementId === element.id)
          setSelection({ elementId: null, layerId: null, frame: 0, turn: 0, selectedRuns: null });
      },
    );
  };
  return (
    <>
      <DropdownMenu.Item className={ITEM} onSelect={onStart}>
        <ArrowRightFromLine size={15} /> Begins on frame {(placement?.start ?? 0) + 1} of the shot …
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={onName}>
        <Pencil size={15} /> Rename
      </DropdownMenu.Item>
      {(
        [
          { by: -1, label: 'To the front', off: first, icon: <ArrowUp size={15} /> },
          { by: 1, label: 'To the back', off: last, icon: <ArrowDown size={15} /> },
        ] as const
      ).map(({ by, label, off, icon }) => (
        <DropdownMenu.Item
          key={label}
          className={`${ITEM} ${off ? 'text-wax-500' : ''}`}
          data-tip={off ? 'There is nothing farther that way.' : undefined}
          onSelect={() => {
            if (off) say('There is nothing farther that way.');
            else if (placement) edit('order of elements', (doc) => raisePlacement(doc, placement.id, by));
          }}
        >
          {icon} {label}
        </DropdownMenu.Item>
      ))}
      <DropdownMenu.Item
        className={ITEM}
        data-tip="With all its layers, drawings, fills and looks"
        onSelect={() => {
          duplicateElement(element.id);
        }}
      >
        <CopyPlus size={15} /> Duplicate
      </DropdownMenu.Item>
      <DropdownMenu.Item
        className={ITEM}
        data-tip="To be pasted here or in another shot"
        onSelect={() => {
          copyPart(element.id);
        }}
      >
        <Copy size={15} /> Copy
      </DropdownMenu.Item>
      <ActionItem action={LAYER_ACTIONS.pasteLayers} />
      <DropdownMenu.Item
        className={ITEM}
        data-tip="To be put into any shot"
        onSelect={() => {
          startKeeping(element.id);
        }}
      >
        <Library size={15} /> Keep on the shelf …
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={remove}>
        <Trash2 size={15} /> {isMany ? 'Take this use away' : 'Delete'}
      </DropdownMenu.Item>
    </>
  );
}

const TRIGGER = <Ellipsis size={14} />;

export const RowMenu = memo(function RowMenu(props: RowMenuProps) {
  return (
    <Menu
      label={`More about ${props.name}`}
      align="start"
      trigger={TRIGGER}
      className="grid size-6 shrink-0 place-items-center rounded text-wax-500 hover:bg-soot-800 hover:text-wax-100"
    >
      <Items {...props} />
    </Menu>
  );
});
