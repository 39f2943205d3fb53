/** What else can be done with a folder. */
import type { Folder } from '@tallow/core/document';
import { dissolveFolder } from '@tallow/core/edit';
import { Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { ActionItem } from '../actions/action-item.tsx';
import { setLooks } from '../looks/look-panel.ts';
import { ITEM, Menu, MenuLine } from '../parts/menu.tsx';
import { showPanel } from '../screen/panels.ts';
import type { PanelName } from '../screen/screen.ts';
import { current } from '../selection/current.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, say } from '../shot/document.ts';
import { setOverTime } from '../time/over-time.ts';
import { LAYER_ACTIONS } from './actions.ts';
import { copyPart, duplicateFolder } from './duplicate.ts';

/** Opens settings of a folder: those of the one the active layer lies in. */
function settingsOf(folder: Folder, panel: PanelName): void {
  const [first] = folder.layers;
  if (!first) {
    say('The folder is empty. Drag a layer into it first.');
    return;
  }
  if (current()?.active?.folder?.id !== folder.id) setSelection({ layerId: first, selectedRuns: null });
  setLooks({ of: 'folder', open: null });
  setOverTime({ of: 'folder' });
  showPanel(panel);
}

export function FolderMenu({ folder }: { folder: Folder }) {
  return (
    <Menu
      label={`More for ${folder.name}`}
      testId="folder-more"
      beside
      className="grid size-8 shrink-0 place-items-center rounded-md text-wax-500 hover:bg-soot-800 hover:text-wax-100"
      trigger={<Ellipsis size={15} />}
    >
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          settingsOf(folder, 'looks');
        }}
      >
        Looks of the folder: glow, blur …
      </DropdownMenu.Item>
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          settingsOf(folder, 'values');
        }}
      >
        Opacity and place over time
      </DropdownMenu.Item>
      <MenuLine />
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          duplicateFolder(folder.id);
        }}
      >
        Duplicate with what lies in it
      </DropdownMenu.Item>
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          copyPart(folder.id);
        }}
      >
        Copy with what lies in it
      </DropdownMenu.Item>
      <ActionItem action={LAYER_ACTIONS.pasteLayers} />
      <MenuLine />
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          edit('take folder apart', (doc) => dissolveFolder(doc, folder.id));
        }}
      >
        Take it apart: its layers stay
      </DropdownMenu.Item>
    </Menu>
  );
}
