/** Which settings stand in the column in place of the layers. */
import { setToolState, takeTool } from '../hand/tool-state.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { onScreen, setScreen, type PanelName } from './screen.ts';
import { setReferences } from '../references/references.ts';

/** Opens settings; what else stood there goes, and the pen draws again. */
export function showPanel(panel: PanelName | null): void {
  setReferences({ shown: false });
  // A piece is only drawn right round while that is seen to be so.
  if (panel !== 'piece' && selection().piece !== null) {
    setSelection({ piece: null });
    setToolState({ goesOn: false });
  }
  takeTool(null);
  setToolState({ brushShown: false });
  setScreen({ panel });
}

export const togglePanel = (panel: PanelName): void => {
  showPanel(onScreen().panel === panel ? null : panel);
};
