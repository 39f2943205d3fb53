/** A thin line of how much each drawing covers, along the rim or under the pictures: there while the smear tool is active. */
import type { Current } from '../selection/current.ts';
import { useVolume } from '../smears/volume.ts';
import { xOf, type Band } from './band.ts';
import { angleOf, pointAt, WHEEL, type Dial } from './dial.ts';

/** How high the line goes over the place where nothing is covered, CSS px. */
const HEIGHT = 20;

/** Areas of the active layer's drawings as shares of the largest, with the frames they show on. */
function useShares(now: Current): { from: number; to: number; share: number }[] {
  const { layerId, drawings } = useVolume();
  if (layerId === null || layerId !== now.active?.layer.id || drawings.length < 2) return [];
  const max = Math.max(1, ...drawings.map(({ area }) => area));
  return drawings.map(({ frame, hold, area }) => ({ from: frame, to: frame + hold, share: area / max }));
}

interface Spot {
  readonly x: number;
  readonly y: number;
}

function Thin({ through }: { through: readonly Spot[] }) {
  if (through.length === 0) return null;
  return (
    <path
      d={`M${through.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}`}
      fill="none"
      stroke="#8fd0ff"
      strokeWidth={1.2}
      strokeOpacity={0.85}
      pointerEvents="none"
      data-testid="volume-line"
    />
  );
}

/** Just within a drawing's frames, so that one step stands beside the next. */
const endsOf = ({ from, to }: { from: number; to: number }): number[] => [from + 0.1, to - 0.1];

export function VolumeRim({ now, dial }: { now: Current; dial: Dial }) {
  const shares = useShares(now).filter(({ from }) => from >= dial.from && from < dial.from + dial.length);
  const through = shares.flatMap((each) =>
    endsOf(each).map((at) => pointAt(angleOf(dial, at), WHEEL.rimInner + 2 + HEIGHT * each.share)),
  );
  return <Thin through={through} />;
}

export function VolumeBand({ now, band, base }: { now: Current; band: Band; base: number }) {
  const through = useShares(now).flatMap((each) =>
    endsOf(each).map((at) => ({ x: xOf(band, at), y: base - HEIGHT * each.share })),
  );
  return <Thin through={through} />;
}
