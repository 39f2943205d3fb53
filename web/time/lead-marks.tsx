/** Drawings as lines over the picture: those around the seam, the one a cycle leads back to, and what would come next. */
import { marksInOrder } from '@tallow/core/document';
import { extrapolated, waysBack } from '@tallow/core/between';
import type { Drawing, Mark } from '@tallow/core/document';
import { apply, type Matrix } from '@tallow/core/geometry';
import { useMemo } from 'react';
import { tracedPath } from '../picture/layer-space.ts';
import type { Current } from '../selection/current.ts';
import { drawingsInOrder } from '@tallow/core/timing';

/** Marks of a drawing that are traced at most; more would only be a tangle. */
const MAX = 160;

function Traced({
  marks,
  matrix,
  colour,
  opacity,
  dash,
}: {
  marks: readonly Mark[];
  matrix: Matrix;
  colour: string;
  opacity: number;
  dash?: string;
}) {
  const d = marks
    .slice(0, MAX)
    .map((mark) => tracedPath(mark, matrix))
    .join('');
  return (
    <g opacity={opacity}>
      <path d={d} fill="none" stroke="#100c0a" strokeWidth={3.4} strokeOpacity={0.65} />
      <path d={d} fill="none" stroke={colour} strokeWidth={1.6} strokeDasharray={dash} />
    </g>
  );
}

/** Where each piece goes from one drawing to another, with the way in px. */
function Ways({ from, to, matrix, colour }: { from: Drawing; to: Drawing; matrix: Matrix; colour: string }) {
  const ways = useMemo(() => waysBack(from, to), [from, to]);
  return ways.slice(0, 40).map(({ markId, from: a, to: b, distance }) => {
    const start = apply(matrix, a);
    if (!b)
      return (
        <g key={markId} data-lost>
          <circle cx={start.x} cy={start.y} r={9} fill="none" stroke="#e6b450" strokeWidth={1.6} />
          <text
            x={start.x + 12}
            y={start.y + 4}
            className="fill-warn text-xs"
            stroke="#100c0a"
            strokeWidth={3}
            paintOrder="stroke"
          >
            no way back: let it leave or shrink away
          </text>
        </g>
      );
    const end = apply(matrix, b);
    return (
      <g key={markId} data-way={Math.round(distance)}>
        <line x1={start.x} y1={start.y} x2={end.x} y2={end.y} stroke="#100c0a" strokeWidth={4} strokeOpacity={0.6} />
        <line x1={start.x} y1={start.y} x2={end.x} y2={end.y} stroke={colour} strokeWidth={1.6} />
        <circle cx={end.x} cy={end.y} r={3.5} fill={colour} stroke="#100c0a" />
        {distance >= 1 ? (
          <text
            x={end.x + 7}
            y={end.y - 5}
            className="font-mono text-[11px]"
            fill="#f4ecdf"
            stroke="#100c0a"
            strokeWidth={3}
            paintOrder="stroke"
          >
            {Math.round(distance)} px
          </text>
        ) : null}
      </g>
    );
  });
}

/** The last two drawings, the first two, and the steps between them. */
export function SeamMark({
  now,
  matrix,
  colours,
}: {
  now: Current;
  matrix: Matrix;
  colours: { before: string; after: string };
}) {
  const all = drawingsInOrder(now.doc, now.active, now.length).map(({ drawing }) => drawing);
  if (all.length < 3) return null;
  const [last, first] = [all.at(-1)!, all[0]!];
  return (
    <g pointerEvents="none" data-testid="seam-marks">
      <Traced marks={marksInOrder(all.at(-2)!)} matrix={matrix} colour={colours.before} opacity={0.4} />
      <Traced marks={marksInOrder(all[1]!)} matrix={matrix} colour={colours.after} opacity={0.4} dash="6 4" />
      <Traced marks={marksInOrder(last)} matrix={matrix} colour={colours.before} opacity={1} />
      <Traced marks={marksInOrder(first)} matrix={matrix} colour={colours.after} opacity={1} dash="6 4" />
      <Ways from={last} to={first} matrix={matrix} colour="#f4ecdf" />
    </g>
  );
}

/** The part of a cycle after which the first drawing is the target. */
const LAST_PART = 0.6;

/** The first drawing as the target under the pen, and how far each piece still has to go. */
export function LeadBack({
  now,
  matrix,
  frame,
  colour,
}: {
  now: Current;
  matrix: Matrix;
  frame: number;
  colour: string;
}) {
  const all = drawingsInOrder(now.doc, now.active, now.length);
  const first = all[0]?.drawing;
  const here = all.findLast((each) => each.frame <= frame)?.drawing;
  if (!first || !here || here === first || now.element.time !== 'cycle' || frame < LAST_PART * now.length) return null;
  return (
    <g pointerEvents="none" data-testid="lead-back">
      <Traced marks={marksInOrder(first)} matrix={matrix} colour={colour} opacity={0.9} dash="6 4" />
      {here.order.length > 0 ? <Ways from={here} to={first} matrix={matrix} colour={colour} /> : null}
    </g>
  );
}

/** Where pieces would be on this drawing, going on as they did in the two before. */
export function AheadMarks({ now, matrix, frame }: { now: Current; matrix: Matrix; frame: number }) {
  const all = drawingsInOrder(now.doc, now.active, now.length);
  const at = all.findLastIndex((each) => each.frame <= frame);
  const wraps = now.element.time === 'cycle' && all.length > 3;
  const back = (by: number) => all[wraps ? (at - by + all.length) % all.length : at - by]?.drawing;
  const [last, before] = [back(1), back(2)];
  const marks = useMemo(() => (before && last ? extrapolated(before, last) : []), [before, last]);
  if (at < 0 || marks.length === 0) return null;
  return (
    <g pointerEvents="none" data-testid="ahead">
      <Traced marks={marks} matrix={matrix} colour="#f4ecdf" opacity={0.55} dash="2 4" />
    </g>
  );
}
