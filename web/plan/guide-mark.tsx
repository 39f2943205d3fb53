/** A guide over the picture: a level, plumb or free line across it, or a grid towards a vanishing point. */
import type { Guide } from '@tallow/core/document';
import { setGuide } from '@tallow/core/edit';
import { apply, IDENTITY, type Matrix, type Point } from '@tallow/core/geometry';
import { selectPlanned, usePlan } from './plan.ts';
import { drag } from '../shot/drag.ts';
import type { Sight } from './sight.ts';

const GUIDE = '#9db0a0';
/** Far enough to leave any picture, px of the shot. */
const FAR = 20_000;
/** Lines that run to the vanishing point, and those across, of a grid. */
const RAYS = 12;
const ROWS = 8;

/** Ends of the lines a guide is made of, in its own space. */
function linesOf({ form, x, y, toX, toY }: Guide): [Point, Point][] {
  if (form === 'level')
    return [
      [
        { x: x - FAR, y },
        { x: x + FAR, y },
      ],
    ];
  if (form === 'plumb')
    return [
      [
        { x, y: y - FAR },
        { x, y: y + FAR },
      ],
    ];
  if (form === 'line') {
    const long = Math.hypot(toX - x, toY - y) || 1;
    const [dx, dy] = [((toX - x) / long) * FAR, ((toY - y) / long) * FAR];
    return [
      [
        { x: x - dx, y: y - dy },
        { x: x + dx, y: y + dy },
      ],
    ];
  }
  // A floor in one-point perspective: rows of equal depth stand at 1/n of the way down from the horizon.
  const width = Math.max(20, Math.abs(toX - x));
  const depth = toY - y || 1;
  const rays = Array.from({ length: 2 * RAYS + 1 }, (_, i): [Point, Point] => {
    const across = (i - RAYS) * width;
    return [
      { x, y },
      { x: x + across * 40, y: y + depth * 40 },
    ];
  });
  const rows = Array.from({ length: ROWS }, (_, i): [Point, Point] => {
    const level = y + depth * (4 / (i + 1));
    return [
      { x: x - FAR, y: level },
      { x: x + FAR, y: level },
    ];
  });
  return [
    ...rays,
    ...rows,
    [
      { x: x - FAR, y },
      { x: x + FAR, y },
    ],
  ];
}

export function GuideMark({
  guide,
  sight,
  area,
}: {
  guide: Guide;
  sight: Sight;
  area: { width: number; height: number };
}) {
  const chosen = usePlan((s) => s.hand?.kind === 'guide' && s.hand.id === guide.id);
  const matrix: Matrix = guide.elementId ? sight.matrix : sight.shot;
  const way = guide.elementId ? IDENTITY : sight.home;
  const placeOf = (event: { clientX: number; clientY: number }): Point => apply(way, sight.placeOf(event));
  const move = (event: React.PointerEvent, end: 'both' | 'to'): void => {
    selectPlanned({ kind: 'guide', id: guide.id });
    if (guide.locked) {
      event.stopPropagation();
      return;
    }
    drag(event, {
      placeOf,
      name: 'guide',
      change: (doc, p, from) => {
        const [dx, dy] = [p.x - from.x, p.y - from.y];
        const to = { toX: guide.toX + dx, toY: guide.toY + dy };
        return setGuide(doc, guide.id, end === 'to' ? to : { x: guide.x + dx, y: guide.y + dy, ...to });
      },
    });
  };
  const handles = chosen && sight.live && !guide.locked;
  const [a, b] = [apply(matrix, guide), apply(matrix, { x: guide.toX, y: guide.toY })];
  const label = apply(matrix, guide);
  return (
    <g data-guide={guide.name} opacity={chosen ? 1 : 0.75}>
      {linesOf(guide).map(([from, to], i) => {
        const [p, q] = [apply(matrix, from), apply(matrix, to)];
        return (
          <g key={i}>
            <line
              x1={p.x}
              y1={p.y}
              x2={q.x}
              y2={q.y}
              stroke={GUIDE}
              strokeWidth={chosen ? 1.6 : 1}
              strokeOpacity={guide.form === 'grid' ? 0.45 : 0.85}
              strokeDasharray={guide.locked ? undefined : '8 5'}
            />
            {sight.live && (guide.form !== 'grid' || i === linesOf(guide).length - 1) ? (
              <line
                x1={p.x}
                y1={p.y}
                x2={q.x}
                y2={q.y}
                stroke="transparent"
                strokeWidth={16}
                pointerEvents="stroke"
                className={guide.locked ? '' : 'cursor-move'}
                onPointerDown={(event) => {
                  move(event, 'both');
                }}
              />
            ) : null}
          </g>
        );
      })}
      <text
        x={Math.min(area.width - 60, Math.max(8, label.x + 8))}
        y={Math.min(area.height - 8, Math.max(14, label.y - 6))}
        className="text-[11px]"
        fill={GUIDE}
      >
        {guide.name}
      </text>
      {handles && (guide.form === 'line' || guide.form === 'grid') ? (
        <>
          <circle cx={a.x} cy={a.y} r={5} fill="#1a1613" stroke={GUIDE} strokeWidth={2} />
          <circle
            cx={b.x}
            cy={b.y}
            r={7}
            fill={GUIDE}
            pointerEvents="all"
            className="cursor-move"
            onPointerDown={(event) => {
              move(event, 'to');
            }}
          />
        </>
      ) : null}
    </g>
  );
}
