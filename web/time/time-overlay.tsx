/** What belongs to time over the picture: pairs of marks, the seam, the way back, what comes next, arcs with their ticks. */
import type { Matrix } from '@tallow/core/geometry';
import { useRef } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useSight } from '../pick/pick-overlay.tsx';
import { useCurrent, type Current } from '../state/current.ts';
import { useDesk } from '../state/desk.ts';
import { coloursOf } from '../state/onion.ts';
import { pieceTicks } from '../state/pieces.ts';
import { Ahead, LeadBack, Seam } from './lead-marks.tsx';
import { PairDots } from './pair-dots.tsx';
import { TickedArc } from './ticked-arc.tsx';
import { TraceArc } from './trace-arc.tsx';

function Piece({ now, name, matrix, frame }: { now: Current; name: string; matrix: Matrix; frame: number }) {
  const ticks = pieceTicks(now, name);
  const here = ticks.findLast((tick) => tick.frame <= frame)?.frame ?? -1;
  return <TickedArc matrix={matrix} ticks={ticks} closed={now.element.time === 'cycle'} here={here} />;
}

export function TimeOverlay() {
  const svg = useRef<SVGSVGElement>(null);
  const sight = useSight(svg);
  const now = useCurrent();
  const { panel, piece, leadsBack, ahead, onion } = useDesk(
    useShallow(({ panel: p, piece: name, leadsBack: back, ahead: on, onion: o }) => ({
      panel: p,
      piece: name,
      leadsBack: back,
      ahead: on,
      onion: o,
    })),
  );
  // While it plays or flips nothing of this is seen, so nothing moves with the playhead then.
  const frame = useDesk((s) => (s.playing || s.flipping ? null : s.frame));
  if (!sight || !now?.active || frame === null) return null;
  const traces = now.element.traces.filter(({ layerId }) => layerId === now.active!.layer.id);
  const shows =
    panel === 'between' ||
    panel === 'cycle' ||
    leadsBack ||
    ahead ||
    piece !== null ||
    (panel === 'piece' && traces.length > 0);
  if (!shows) return <svg ref={svg} className="hidden" />;
  const colours = coloursOf(now, onion);
  return (
    <svg ref={svg} className="pointer-events-none absolute inset-0 size-full" data-testid="time-overlay">
      {panel === 'cycle' ? <Seam now={now} matrix={sight.matrix} colours={colours} /> : null}
      {leadsBack && panel !== 'cycle' ? (
        <LeadBack now={now} matrix={sight.matrix} frame={frame} colour={colours.after} />
      ) : null}
      {ahead ? <Ahead now={now} matrix={sight.matrix} frame={frame} /> : null}
      {piece === null ? null : <Piece now={now} name={piece} matrix={sight.matrix} frame={frame} />}
      {panel === 'piece'
        ? traces.map((trace) => <TraceArc key={trace.id} now={now} trace={trace} sight={sight} frame={frame} />)
        : null}
      {panel === 'between' ? <PairDots now={now} matrix={sight.matrix} colours={colours} /> : null}
    </svg>
  );
}
