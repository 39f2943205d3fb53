/** A dot for each mark of the two drawings in-betweens lie between, with a line to what it becomes: clicked to tie two. */
import { marksInOrder } from '@tallow/core/document';
import { bodyOf } from '@tallow/core/between';
import type { Id, Mark } from '@tallow/core/document';
import { apply, type Matrix } from '@tallow/core/geometry';
import { tracedPath } from '../picture/layer-space.ts';
import { betweenWork, crossesSeam } from '@tallow/core/edit';
import { betweenNow, pairsOf, setBetween, tie, tiesNow, useBetween } from './between.ts';
import type { Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';

export function PairDots({
  now,
  matrix,
  colours,
}: {
  now: Current;
  matrix: Matrix;
  colours: { before: string; after: string };
}) {
  const tying = useBetween((s) => s.tying);
  const own = useBetween((s) => s.ties);
  useSelection((s) => s.frame);
  const what = betweenNow();
  const { laid, gap } = what;
  const plan = laid ?? gap;
  const ties = laid ? tiesNow(what) : own;
  const work =
    plan &&
    betweenWork(
      now.doc,
      { layerId: plan.layerId, from: plan.from, to: plan.to, shares: [], way: 'straight', pathId: null, ties },
      laid ? crossesSeam(now.doc, laid) : (gap?.seam ?? false),
    );
  const pairings = work ? pairsOf(work) : [];
  if (!work) return null;
  const { from, to } = work;
  const tied = new Set(ties.flatMap((each) => [each.from, each.to]));
  const spotOf = (mark: Mark) => apply(matrix, bodyOf(mark).middle);
  const click = (side: 'from' | 'to', id: Id, also: boolean) => {
    if (!tying) setBetween({ tying: { side, id } });
    else if (tying.id === id) tie(side === 'from' ? id : null, side === 'to' ? id : null);
    else if (tying.side === side) setBetween({ tying: { side, id } });
    else tie(side === 'from' ? id : tying.id, side === 'to' ? id : tying.id, also);
  };
  const dot = (side: 'from' | 'to', mark: Mark) => {
    const { x, y } = spotOf(mark);
    const chosen = tying?.id === mark.id;
    return (
      <circle
        key={mark.id}
        cx={x}
        cy={y}
        r={chosen ? 8 : 6}
        fill={side === 'from' ? colours.before : colours.after}
        stroke={chosen ? '#f4ecdf' : tied.has(mark.id) ? '#ffc25c' : '#100c0a'}
        strokeWidth={chosen || tied.has(mark.id) ? 3 : 1.5}
        className="pointer-events-auto cursor-pointer"
        data-dot={side}
        onPointerDown={(event) => {
          event.stopPropagation();
          click(side, mark.id, event.shiftKey || useBetween.getState().several);
        }}
      />
    );
  };
  const marks = (drawing: typeof from) => marksInOrder(drawing).filter(({ kind }) => kind !== 'rub');
  const d = (drawing: typeof from) =>
    marks(drawing)
      .slice(0, 160)
      .map((mark) => tracedPath(mark, matrix))
      .join('');
  return (
    <g data-testid="pair-dots" data-pairs={pairings.length}>
      <path d={d(from)} fill="none" stroke={colours.before} strokeOpacity={0.7} strokeWidth={1.2} />
      <path d={d(to)} fill="none" stroke={colours.after} strokeOpacity={0.7} strokeWidth={1.2} strokeDasharray="5 3" />
      {pairings.flatMap(({ from: a, to: b }) =>
        a.flatMap((p) =>
          b.map((q) => {
            const [s, t] = [spotOf(from.marks[p]!), spotOf(to.marks[q]!)];
            return (
              <line
                key={`${p}${q}`}
                x1={s.x}
                y1={s.y}
                x2={t.x}
                y2={t.y}
                stroke="#f4ecdf"
                strokeWidth={1.4}
                strokeOpacity={0.8}
              />
            );
          }),
        ),
      )}
      {marks(from).map((mark) => dot('from', mark))}
      {marks(to).map((mark) => dot('to', mark))}
    </g>
  );
}
