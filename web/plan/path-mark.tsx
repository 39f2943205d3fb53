/** A path over the picture: its dotted line, a tick and a stand-in for each drawing, and handles when it is selected. */
import type { Path, Ring } from '@tallow/core/document';
import { setPath } from '@tallow/core/edit';
import { apply, scaleOf, type Matrix } from '@tallow/core/geometry';
import {
  flatTicks,
  moveNode,
  moveWay,
  nodePoints,
  placeTick,
  spacingFacts,
  stampRing,
  stampsOf,
  ticksOf,
  wayOf,
  type Stamp,
} from '@tallow/core/plan';
import { useMemo } from 'react';
import { useSelection } from '../selection/selection.ts';
import { setPlanning, selectPlanned, usePlan } from './plan.ts';
import { drag } from '../shot/drag.ts';
import { pointsText, ROSE, type Sight } from './sight.ts';

const SLOW = '#8fb8e8';

/** A ring as an SVG path in the picture's area. */
function ringText(ring: Ring, matrix: Matrix): string {
  const count = ring.length / 6;
  const at = (i: number, k: number): string => {
    const p = apply(matrix, { x: ring[i * 6 + k]!, y: ring[i * 6 + k + 1]! });
    return `${p.x.toFixed(1)} ${p.y.toFixed(1)}`;
  };
  let text = `M${at(0, 0)}`;
  for (let i = 0; i < count; i++) {
    const next = (i + 1) % count;
    text += `C${at(i, 4)} ${at(next, 2)} ${at(next, 0)}`;
  }
  return `${text}Z`;
}

/** A path's way, ticks, stamps and facts, worked out once per path. */
export function usePathFacts(path: Path) {
  return useMemo(() => {
    const way = wayOf(path);
    const ticks = ticksOf(path);
    const stamps = stampsOf(path, way, ticks);
    const facts = spacingFacts(
      ticks,
      way.length,
      stamps.map((s) => s.size * s.stretch),
    );
    return { way, ticks, stamps, facts };
  }, [path]);
}

/** The tick that shows on a frame of the element. */
export const tickAt = (path: Pick<Path, 'from' | 'hold' | 'ticks'>, frame: number): number | null => {
  const index = Math.floor((frame - path.from) / path.hold);
  return index >= 0 && index < path.ticks ? index : null;
};

export function PathMark({ path, sight, faint }: { path: Path; sight: Sight; faint: boolean }) {
  const { way, ticks, stamps, facts } = usePathFacts(path);
  const chosen = usePlan((s) => s.hand?.kind === 'path' && s.hand.id === path.id);
  const spacing = usePlan((s) => s.spacing);
  const rowTick = usePlan((s) => s.rowTick);
  const node = usePlan((s) => s.node);
  const frame = useSelection((s) => s.frame);
  const { matrix, live } = sight;
  const at = (chosen ? rowTick : null) ?? tickAt(path, frame);
  const scale = scaleOf(matrix);
  const numbered = new Set([0, ticks.length - 1, facts.largestAt, facts.largestAt + 1, ...(at === null ? [] : [at])]);
  const flat = useMemo(() => {
    const shares = flatTicks(path);
    return stampsOf({ ...path, placed: {} }, way, shares);
  }, [path, way]);
  const dragNode = (event: React.PointerEvent, index: number): void => {
    setPlanning({ node: index });
    const from = nodePoints(path.nodes)[index]!;
    drag(event, {
      placeOf: sight.placeOf,
      name: 'reshape path',
      change: (doc, p, start) =>
        setPath(doc, path.id, {
          nodes: moveNode(path.nodes, index, { x: from.x + p.x - start.x, y: from.y + p.y - start.y }),
        }),
    });
  };
  const stampPath = (stamp: Stamp): string => ringText(stampRing(path.standIn, stamp), matrix);
  return (
    <g data-path={path.name} opacity={chosen || faint ? 1 : 0.7}>
      <polyline
        points={pointsText(way.points, matrix)}
        fill="none"
        stroke={ROSE}
        strokeWidth={chosen ? 2.2 : 1.6}
        strokeDasharray="1 6"
        strokeLinecap="round"
      />
      {live ? (
        <polyline
          points={pointsText(way.points, matrix)}
          fill="none"
          stroke="transparent"
          strokeWidth={18}
          pointerEvents="stroke"
          className={path.locked ? '' : 'cursor-move'}
          data-testid="path-line"
          onPointerDown={(event) => {
            selectPlanned({ kind: 'path', id: path.id });
            if (path.locked) {
              event.stopPropagation();
              return;
            }
            drag(event, {
              placeOf: sight.placeOf,
              name: 'move path',
              change: (doc, p, from) =>
                setPath(doc, path.id, { nodes: moveWay(path.nodes, p.x - from.x, p.y - from.y) }),
            });
          }}
        />
      ) : null}
      {chosen && spacing !== 'eased'
        ? flat.map((stamp) => (
            <path
              key={`flat-${stamp.index}`}
              d={stampPath(stamp)}
              fill="none"
              stroke="#a89987"
              strokeOpacity={0.5}
              strokeDasharray="2 3"
            />
          ))
        : null}
      {chosen && spacing !== 'flat'
        ? stamps.map((stamp) => (
            <path
              key={stamp.index}
              d={stampPath(stamp)}
              fill={stamp.index === at ? '#ffb04a' : '#e7a06022'}
              fillOpacity={stamp.index === at ? 0.9 * stamp.opacity : stamp.opacity}
              stroke={stamp.index === at ? '#7a3a10' : '#d99a5c'}
              strokeOpacity={0.45 + 0.55 * stamp.opacity}
              strokeWidth={stamp.index === at ? 2 : 1.2}
            />
          ))
        : null}
      {ticks.map((share, index) => {
        const spot = way.at(share);
        const p = apply(matrix, spot);
        const ahead = apply(matrix, { x: spot.x + spot.dx, y: spot.y + spot.dy });
        const long = Math.hypot(ahead.x - p.x, ahead.y - p.y) || 1;
        const [nx, ny] = [-(ahead.y - p.y) / long, (ahead.x - p.x) / long];
        const half = chosen ? 8 : 4;
        const put = String(index) in path.placed;
        return (
          <g key={index} data-tick={index} data-share={share.toFixed(4)}>
            <line
              x1={p.x - nx * half}
              y1={p.y - ny * half}
              x2={p.x + nx * half}
              y2={p.y + ny * half}
              stroke={put ? '#ffc25c' : faint ? ROSE : '#f4ecdf'}
              strokeWidth={index === at ? 3 : 1.8}
            />
            {chosen && numbered.has(index) ? (
              <text
                x={p.x + nx * 26}
                y={p.y + ny * 26 + 4}
                textAnchor="middle"
                className="fill-wax-100 font-mono text-[11px]"
              >
                {index + 1}
              </text>
            ) : null}
            {chosen && live && !path.locked && spacing !== 'flat' ? (
              <line
                x1={p.x - nx * 12}
                y1={p.y - ny * 12}
                x2={p.x + nx * 12}
                y2={p.y + ny * 12}
                stroke="transparent"
                strokeWidth={14}
                strokeLinecap="round"
                pointerEvents="stroke"
                className="cursor-grab"
                onPointerDown={(event) => {
                  drag(event, {
                    placeOf: sight.placeOf,
                    name: 'move tick',
                    change: (doc, point) =>
                      setPath(doc, path.id, { placed: placeTick(path, index, way.nearest(point)) }),
                  });
                }}
              />
            ) : null}
          </g>
        );
      })}
      {chosen
        ? path.slows.map((slow) => {
            const p = apply(matrix, way.at(slow.at));
            const r = Math.max(12, slow.width * way.length * scale * 0.5);
            return (
              <g key={slow.id} data-testid="slow-place">
                <circle cx={p.x} cy={p.y} r={r} fill="none" stroke={SLOW} strokeDasharray="3 4" />
                <text x={p.x + r + 6} y={p.y - 4} fill={SLOW} className="text-[11px]">
                  slow place
                </text>
                <circle
                  cx={p.x}
                  cy={p.y}
                  r={6}
                  fill={SLOW}
                  pointerEvents={live ? 'all' : 'none'}
                  className="cursor-grab"
                  onPointerDown={(event) => {
                    drag(event, {
                      placeOf: sight.placeOf,
                      name: 'slow place',
                      change: (doc, point) =>
                        setPath(doc, path.id, {
                          slows: path.slows.map((s) => (s.id === slow.id ? { ...s, at: way.nearest(point) } : s)),
                        }),
                    });
                  }}
                />
                <circle
                  cx={p.x + r}
                  cy={p.y}
                  r={5}
                  fill="#1a1613"
                  stroke={SLOW}
                  strokeWidth={2}
                  pointerEvents={live ? 'all' : 'none'}
                  className="cursor-ew-resize"
                  onPointerDown={(event) => {
                    drag(event, {
                      placeOf: sight.placeOf,
                      name: 'slow place',
                      change: (doc, point) => {
                        const middle = way.at(slow.at);
                        const width = Math.min(
                          1,
                          Math.max(0.02, (Math.hypot(point.x - middle.x, point.y - middle.y) * 2) / way.length),
                        );
                        return setPath(doc, path.id, {
                          slows: path.slows.map((s) => (s.id === slow.id ? { ...s, width } : s)),
                        });
                      },
                    });
                  }}
                />
              </g>
            );
          })
        : null}
      {chosen && live && !path.locked
        ? nodePoints(path.nodes).map((point, index) => {
            const p = apply(matrix, point);
            return (
              <rect
                key={index}
                x={p.x - 5}
                y={p.y - 5}
                width={10}
                height={10}
                rx={2}
                fill={node === index ? ROSE : '#1a1613'}
                stroke={ROSE}
                strokeWidth={1.8}
                pointerEvents="all"
                className="cursor-move"
                data-node={index}
                onPointerDown={(event) => {
                  dragNode(event, index);
                }}
              />
            );
          })
        : null}
    </g>
  );
}
