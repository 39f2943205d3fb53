/** Which settings of time stand in the column in place of the layers. */
import { desk, setDesk, type TimePanel } from './desk.ts';
import { setReferences } from './references.ts';

/** Opens settings of time; what else stood there goes, and the pen draws again. */
export function showPanel(panel: TimePanel | null): void {
  setReferences({ shown: false });
  setDesk({ panel, brushShown: false, hand: 'draw' });
}

export const togglePanel = (panel: TimePanel): void => {
  showPanel(desk().panel === panel ? null : panel);
};
