/** The settings that stand in the column in place of the layers. */
import { LayerLooksPanel } from '../looks/layer-looks-panel.tsx';
import { PalettePanel } from '../palette/palette-panel.tsx';
import type { PanelName } from '../screen/screen.ts';
import { ShelfPanel } from '../shelf/shelf-panel.tsx';
import { BetweenPanel } from '../time/between-panel.tsx';
import { CyclePanel } from '../time/cycle-panel.tsx';
import { PiecePanel } from '../tools/point/piece-panel.tsx';
import { TimingPanel } from '../time/timing-panel.tsx';
import { ValuesPanel } from '../time/values-panel.tsx';
import { VariantsPanel } from '../time/variants-panel.tsx';
import { TonePanel } from '../tone/tone-panel.tsx';

const SHOWN: Readonly<Record<PanelName, () => React.ReactNode>> = {
  timing: TimingPanel,
  between: BetweenPanel,
  cycle: CyclePanel,
  variants: VariantsPanel,
  values: ValuesPanel,
  piece: PiecePanel,
  palette: PalettePanel,
  looks: LayerLooksPanel,
  tone: TonePanel,
  shelf: ShelfPanel,
};

export function ColumnPanel({ panel }: { panel: PanelName }) {
  const Shown = SHOWN[panel];
  return <Shown />;
}
