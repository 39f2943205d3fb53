/** Over the picture while smearing: the way the thing goes, a handle that bends it, and the line that is pulled. */
import { find } from '@tallow/core/document';
import { apply, type Point } from '@tallow/core/geometry';
import { useEffect, useRef } from 'react';
import { useLayerSpace, type LayerSpace } from '../../picture/layer-space.ts';
import { useCurrent } from '../../selection/current.ts';
import { useSelection } from '../../selection/selection.ts';
import { startDrag } from '../../parts/dragging.ts';
import { randomId } from '@tallow/core/document';
import { endGesture } from '../../shot/document.ts';
import { dropGesture, relay, relayed } from '../../smears/smear.ts';
import { forgetVolumes, lookForVolumes } from '../../smears/volume.ts';
import { lookForWay, useWay } from '../../smears/way.ts';
import { usePull } from './smear-pen.ts';

const WAY = '#8fd0ff';

const lineOf = (points: readonly Point[], { matrix }: LayerSpace): string =>
  points
    .map((p, i) => {
      const { x, y } = apply(matrix, p);
      return `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`;
    })
    .join('');

/** How far an arc through both ends and a place beside the middle turns, radians, clockwise. */
function turnThrough(from: Point, to: Point, beside: Point): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const chord = Math.hypot(dx, dy) || 1;
  const off = (dx * (beside.y - (from.y + to.y) / 2) - dy * (beside.x - (from.x + to.x) / 2)) / chord;
  // An arc that bulges to the left turns to the right.
  return -4 * Math.atan((2 * off) / chord);
}

function BendHandle({ way, sight, smearId }: { way: readonly Point[]; sight: LayerSpace; smearId: string }) {
  const now = useCurrent();
  const smear = now && find(now.doc, 'smear', smearId);
  const middle = way[Math.floor(way.length / 2)];
  const [from, to] = [way[0], way.at(-1)];
  if (!smear || !middle || !from || !to || smear.way === 'line' || smear.way === 'path') return null;
  const at = apply(sight.matrix, middle);
  return (
    <circle
      cx={at.x}
      cy={at.y}
      r={7}
      fill="#16110e"
      stroke={WAY}
      strokeWidth={2}
      className="pointer-events-auto cursor-grab touch-none"
      data-testid="bend-smear"
      onPointerDown={(event) => {
        const gesture = `smear-bend-${randomId()}`;
        const own = turnThrough(from, to, middle);
        const { bend } = smear;
        startDrag(event, () => ({
          move: (each) => {
            const next = bend + turnThrough(from, to, sight.placeOf(each)) - own;
            relay(smear.id, { bend: Math.min(3, Math.max(-3, next)) }, 'bend of the smear', gesture);
          },
          up: () => void relayed().then(endGesture),
          drop: () => {
            dropGesture(gesture);
          },
        }));
      }}
    >
      <title>Drag: the way bends</title>
    </circle>
  );
}

export function SmearOverlay() {
  const svg = useRef<SVGSVGElement>(null);
  const sight = useLayerSpace(svg);
  const now = useCurrent();
  const frame = useSelection((s) => s.frame);
  const { way, smearId } = useWay();
  const pulled = usePull((s) => s.line);
  const doc = now?.doc;
  const layerId = now?.active?.layer.id;
  useEffect(() => {
    void lookForWay();
  }, [doc, layerId, frame]);
  useEffect(lookForVolumes, [doc, layerId]);
  useEffect(() => forgetVolumes, []);
  const goes = way.length > 1 && Math.hypot(way[0]!.x - way.at(-1)!.x, way[0]!.y - way.at(-1)!.y) > 1;
  return (
    <svg ref={svg} className="pointer-events-none absolute inset-0 size-full" data-testid="smear-overlay">
      {sight && goes && pulled.length === 0 ? (
        <g data-way={way.length}>
          <path d={lineOf(way, sight)} fill="none" stroke="#000" strokeOpacity={0.5} strokeWidth={3.5} />
          <path d={lineOf(way, sight)} fill="none" stroke={WAY} strokeWidth={1.5} strokeDasharray="6 4" />
          {[way[0]!, way.at(-1)!].map((p, i) => {
            const at = apply(sight.matrix, p);
            return (
              <circle key={i} cx={at.x} cy={at.y} r={i === 0 ? 3 : 4.5} fill={i === 0 ? 'none' : WAY} stroke={WAY} />
            );
          })}
          {smearId ? <BendHandle way={way} sight={sight} smearId={smearId} /> : null}
        </g>
      ) : null}
      {sight && pulled.length > 1 ? (
        <path d={lineOf(pulled, sight)} fill="none" stroke={WAY} strokeWidth={2.5} strokeLinecap="round" />
      ) : null}
    </svg>
  );
}
