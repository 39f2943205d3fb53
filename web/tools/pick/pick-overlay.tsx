/** What is picked up, over the picture: its lines, its box with handles, the lasso, and the grid that bends. */
import { apply, multiply } from '@tallow/core/geometry';
import { fractionOf } from '@tallow/core/marks';
import { useEffect, useRef } from 'react';
import { useSelection } from '../../selection/selection.ts';
import { useDocument } from '../../shot/document.ts';
import { followDesk, followDocument, matrixNow, selectedCount, fractionsNow, usePick } from './pick.ts';
import { tracedPath, useLayerSpace } from '../../picture/layer-space.ts';
import { BendGrid } from './bend-grid.tsx';
import { PickBox } from './pick-box.tsx';

const FLAME = '#ffc25c';
/** Marks whose lines are traced; of more the box is enough. */
const TRACED = 150;

export function PickOverlay() {
  const svg = useRef<SVGSVGElement>(null);
  const sight = useLayerSpace(svg);
  const { sets, base, draft, transform, bend, spaces } = usePick();
  const frame = useSelection((s) => s.frame);
  const layerId = useSelection((s) => s.layerId);
  useEffect(followDesk, [frame, layerId]);
  useEffect(
    () =>
      useDocument.subscribe((now, before) => {
        if (now.serial !== before.serial) followDocument();
      }),
    [],
  );
  if (!sight) return null;
  const count = selectedCount(sets);
  const share = fractionsNow(sets);
  return (
    <svg
      ref={svg}
      className="pointer-events-none absolute inset-0 size-full"
      data-testid="pick-overlay"
      data-count={count}
    >
      {count > 0 && count <= TRACED && bend === null
        ? Object.entries(sets).flatMap(([drawing, ids]) =>
            ids.map((id) => {
              const mark = base[id];
              const placed = multiply(sight.matrix, matrixNow(fractionOf(transform, share[drawing] ?? 1)));
              const space = spaces[drawing];
              const moved = space ? multiply(placed, space) : placed;
              return mark ? (
                <path
                  key={id}
                  d={tracedPath(mark, moved)}
                  fill="none"
                  stroke={FLAME}
                  strokeWidth={1}
                  strokeOpacity={0.9}
                />
              ) : null;
            }),
          )
        : null}
      {count === 0 ? null : bend === null ? <PickBox {...sight} /> : <BendGrid key={bend} cells={bend} {...sight} />}
      {draft.length > 1 ? (
        <path
          d={`M${draft
            .map((p) => apply(sight.matrix, p))
            .map((p) => `${p.x} ${p.y}`)
            .join('L')}Z`}
          fill={FLAME}
          fillOpacity={0.08}
          stroke={FLAME}
          strokeDasharray="4 3"
        />
      ) : null}
    </svg>
  );
}
