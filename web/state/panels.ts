/** Which settings of time stand in the column in place of the layers. */
import { desk, setDesk, type TimePanel } from './desk.ts';
import { setReferences } from './references.ts';

/** Opens settings of time; what else stood there goes, and the pen draws again. */
export function showPanel(panel: TimePanel | null): void {
  setReferences({ shown: false });
  // A piece is only drawn right round while that is seen to be so.
  const followed = panel !== 'piece' && desk().piece !== null ? { piece: null, goesOn: false } : {};
  setDesk({ panel, brushShown: false, hand: 'draw', ...followed });
}

export const togglePanel = (panel: TimePanel): void => {
  showPanel(desk().panel === panel ? null : panel);
};
