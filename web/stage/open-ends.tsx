/** While cleaning up: rings round ends of lines that meet nothing, where a fill would run out. */
import { find } from '@tallow/core/document';
import { roughFor } from '@tallow/core/edit';
import { apply, multiply } from '@tallow/core/geometry';
import { openEnds } from '@tallow/core/marks';
import { useMemo } from 'react';
import { usePlayback } from '../playback/playback.ts';
import { layerMatrix, shownNow, useCurrent } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useFill } from '../fills/fill.ts';
import { shotSize } from '../view/viewing.ts';
import { useViewed } from '../view/viewed.ts';
import { viewMatrix } from '../view/view.ts';

export function OpenEnds() {
  const now = useCurrent();
  const frame = useSelection((s) => s.frame);
  const playing = usePlayback((s) => s.playing);
  const gap = useFill((s) => s.gap);
  const view = useViewed((s) => s.view);
  const area = useViewed((s) => s.area);
  const active = now?.active;
  const rough = now && active ? roughFor(now.doc, active.layer.id) : null;
  // Only on a line that is drawn over a rough: elsewhere ends are left open on purpose.
  const cleaning = rough !== null && active !== undefined && rough.list.id === active.list.id;
  const drawing = now && cleaning ? find(now.doc, 'drawing', shownNow(now, frame)?.drawingId) : undefined;
  const ends = useMemo(() => (drawing ? openEnds(drawing, gap) : []), [drawing, gap]);
  if (!now || playing || ends.length === 0) return null;
  const matrix = multiply(viewMatrix(view, shotSize(), area), layerMatrix(now, frame));
  return (
    <svg className="pointer-events-none absolute inset-0 size-full" data-testid="open-ends" data-count={ends.length}>
      {ends.map((end) => {
        const { x, y } = apply(matrix, end);
        return (
          <g key={`${end.x},${end.y}`} fill="none">
            <circle cx={x} cy={y} r={6} stroke="#100c0a" strokeWidth={3} strokeOpacity={0.6} />
            <circle cx={x} cy={y} r={6} stroke="#e6b450" strokeWidth={1.5} />
          </g>
        );
      })}
    </svg>
  );
}
