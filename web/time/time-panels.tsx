/** The settings of time that stand in the column in place of the layers. */
import type { TimePanel } from '../state/desk.ts';
import { BetweenPanel } from './between-panel.tsx';
import { CyclePanel } from './cycle-panel.tsx';
import { PiecePanel } from './piece-panel.tsx';
import { TimingPanel } from './timing-panel.tsx';
import { ValuesPanel } from './values-panel.tsx';
import { VariantsPanel } from './variants-panel.tsx';

const PANELS: Readonly<Record<TimePanel, () => React.ReactNode>> = {
  timing: TimingPanel,
  between: BetweenPanel,
  cycle: CyclePanel,
  variants: VariantsPanel,
  values: ValuesPanel,
  piece: PiecePanel,
};

export function TimePanels({ panel }: { panel: TimePanel }) {
  const Shown = PANELS[panel];
  return <Shown />;
}
