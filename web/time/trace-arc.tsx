/** The arc of a followed point with its ticks; a tick that is dragged becomes the target for drawing it anew. */
import type { Trace } from '@tallow/core/document';
import { putTracePoint, traceTicks } from '@tallow/core/edit';
import { apply } from '@tallow/core/geometry';
import { drag } from '../shot/drag.ts';
import type { Current } from '../selection/current.ts';
import { goTo } from '../playback/playhead.ts';
import type { LayerSpace } from '../picture/layer-space.ts';
import { TickedArc } from './ticked-arc.tsx';

export function TraceArc({
  now,
  trace,
  sight,
  frame,
}: {
  now: Current;
  trace: Trace;
  sight: LayerSpace;
  frame: number;
}) {
  const ticks = traceTicks(now.doc, trace);
  const here = ticks.findLast((tick) => tick.frame <= frame)?.frame ?? -1;
  return (
    <g data-trace={ticks.length}>
      <TickedArc
        matrix={sight.matrix}
        ticks={ticks}
        closed={now.element.time === 'cycle' && ticks.length > 2}
        here={here}
      />
      {ticks.map(({ slot, x, y, aim, frame: at }) => {
        const spot = apply(sight.matrix, { x, y });
        return (
          <g key={slot}>
            {aim ? (
              <circle
                cx={spot.x}
                cy={spot.y}
                r={8}
                fill="none"
                stroke="#ffc25c"
                strokeWidth={1.6}
                strokeDasharray="3 2"
              />
            ) : null}
            <circle
              cx={spot.x}
              cy={spot.y}
              r={11}
              fill="transparent"
              className="pointer-events-auto cursor-move"
              data-trace-tick={at}
              onDoubleClick={() => {
                goTo(at);
              }}
              onPointerDown={(event) => {
                drag(event, {
                  placeOf: sight.placeOf,
                  name: 'target of a point',
                  change: (doc, to) => putTracePoint(doc, trace.layerId, trace.id, slot, to, true),
                });
              }}
            >
              <title>{`frame ${at + 1}${aim ? ', target' : ''}`}</title>
            </circle>
          </g>
        );
      })}
    </g>
  );
}
