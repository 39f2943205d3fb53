/** The way of a use over the picture: its line, its ticks, and points to bend it by, also while it plays. */
import { setPath } from '@tallow/core/edit';
import type { Path, Placement } from '@tallow/core/document';
import { apply, invert, multiply, translation, type Matrix } from '@tallow/core/geometry';
import { moveNode, nodePoints, ticksOf, wayOf } from '@tallow/core/plan';
import { shotFrameNow } from '../../playback/shot-time.ts';
import { drag } from '../../shot/drag.ts';
import { levelMatrix, type Level } from './placing.ts';

const ROSE = '#e79bb8';

export function WayMark({
  level,
  placement,
  path,
  view,
  svg,
}: {
  level: Level;
  placement: Placement;
  path: Path;
  view: Matrix;
  svg: React.RefObject<SVGSVGElement | null>;
}) {
  // The path lies as the element does where it stands, before it is carried along.
  const home = multiply(levelMatrix(level, shotFrameNow()), translation(placement.x, placement.y));
  const matrix = multiply(view, home);
  const inward = invert(matrix);
  const way = wayOf(path);
  const line = way.points.map((p) => apply(matrix, p));
  const placeOf = ({ clientX, clientY }: { clientX: number; clientY: number }) => {
    const rect = svg.current!.getBoundingClientRect();
    return apply(inward, { x: clientX - rect.left, y: clientY - rect.top });
  };
  return (
    <g data-way={path.name}>
      <path
        d={line.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('')}
        fill="none"
        stroke={ROSE}
        strokeWidth={1.5}
        strokeDasharray="3 4"
      />
      {ticksOf(path).map((share, i) => {
        const spot = way.at(share);
        const p = apply(matrix, spot);
        return (
          <path
            key={i}
            d={`M${p.x - spot.dy * 6} ${p.y + spot.dx * 6}L${p.x + spot.dy * 6} ${p.y - spot.dx * 6}`}
            stroke={ROSE}
            strokeWidth={2}
          />
        );
      })}
      {nodePoints(path.nodes).map((node, i) => {
        const p = apply(matrix, node);
        return (
          <g
            key={i}
            className="pointer-events-auto cursor-move"
            data-handle={`Point ${i + 1} of the way`}
            onPointerDown={(event) => {
              drag(event, {
                placeOf,
                name: 'bend the way',
                change: (doc, at) => setPath(doc, path.id, { nodes: moveNode(path.nodes, i, at) }),
              });
            }}
          >
            <circle cx={p.x} cy={p.y} r={14} fill="transparent" />
            <circle cx={p.x} cy={p.y} r={5} fill="#14110f" stroke={ROSE} strokeWidth={2} />
          </g>
        );
      })}
    </g>
  );
}
