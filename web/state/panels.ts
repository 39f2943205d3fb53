/** Which settings stand in the column in place of the layers. */
import { desk, setDesk, type PanelName } from './desk.ts';
import { setReferences } from './references.ts';

/** Opens settings; what else stood there goes, and the pen draws again. */
export function showPanel(panel: PanelName | null): void {
  setReferences({ shown: false });
  // A piece is only drawn right round while that is seen to be so.
  const followed = panel !== 'piece' && desk().piece !== null ? { piece: null, goesOn: false } : {};
  setDesk({ panel, brushShown: false, hand: 'draw', ...followed });
}

export const togglePanel = (panel: PanelName): void => {
  showPanel(desk().panel === panel ? null : panel);
};
