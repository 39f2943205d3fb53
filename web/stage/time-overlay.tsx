/** What belongs to time over the picture: pairs of marks, the seam, the way back, what comes next, arcs with their ticks. */
import { pieceTicks } from '@tallow/core/between';
import type { Matrix } from '@tallow/core/geometry';
import { drawingsInOrder } from '@tallow/core/timing';
import { useRef } from 'react';
import { useLayerSpace } from '../picture/layer-space.ts';
import { useCurrent, type Current } from '../selection/current.ts';

import { onionColours } from '../picture/onion.ts';
import { AheadMarks, LeadBack, SeamMark } from '../time/lead-marks.tsx';
import { PairDots } from '../time/pair-dots.tsx';
import { TickedArc } from '../time/ticked-arc.tsx';
import { TraceArc } from '../time/trace-arc.tsx';
import { useShowing } from '../picture/showing.ts';
import { useScreen } from '../screen/screen.ts';
import { usePlayback } from '../playback/playback.ts';
import { useSelection } from '../selection/selection.ts';

function Piece({ now, name, matrix, frame }: { now: Current; name: string; matrix: Matrix; frame: number }) {
  const ticks = pieceTicks(drawingsInOrder(now.doc, now.active, now.length), name);
  const here = ticks.findLast((tick) => tick.frame <= frame)?.frame ?? -1;
  return <TickedArc matrix={matrix} ticks={ticks} closed={now.element.time === 'cycle'} here={here} />;
}

export function TimeOverlay() {
  const svg = useRef<SVGSVGElement>(null);
  const sight = useLayerSpace(svg);
  const now = useCurrent();
  const panel = useScreen((s) => s.panel);
  const piece = useSelection((s) => s.piece);
  const leadsBack = useShowing((s) => s.leadsBack);
  const ahead = useShowing((s) => s.ahead);
  const onion = useShowing((s) => s.onion);
  // While it plays or flips nothing of this is seen, so nothing moves with the playhead then.
  const moves = usePlayback((s) => s.playing || s.flipping);
  const frame = useSelection((s) => (moves ? null : s.frame));
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
  const colours = onionColours(now, onion);
  return (
    <svg ref={svg} className="pointer-events-none absolute inset-0 size-full" data-testid="time-overlay">
      {panel === 'cycle' ? <SeamMark now={now} matrix={sight.matrix} colours={colours} /> : null}
      {leadsBack && panel !== 'cycle' ? (
        <LeadBack now={now} matrix={sight.matrix} frame={frame} colour={colours.after} />
      ) : null}
      {ahead ? <AheadMarks now={now} matrix={sight.matrix} frame={frame} /> : null}
      {piece === null ? null : <Piece now={now} name={piece} matrix={sight.matrix} frame={frame} />}
      {panel === 'piece'
        ? traces.map((trace) => <TraceArc key={trace.id} now={now} trace={trace} sight={sight} frame={frame} />)
        : null}
      {panel === 'between' ? <PairDots now={now} matrix={sight.matrix} colours={colours} /> : null}
    </svg>
  );
}
