/** The corners of the selected plate, where it lies on a tilted plane: dragged one by one. */
import { planeMatrix } from '@tallow/core/assembly';
import { find, shotOf } from '@tallow/core/document';
import { setPlateCorners } from '@tallow/core/edit';
import { apply, invert, multiply, type Quad } from '@tallow/core/geometry';
import { plateMatrix } from '@tallow/core/render';
import { useRef } from 'react';
import { usePlayback } from '../../playback/playback.ts';
import { shotFrameNow, useShotTime } from '../../playback/shot-time.ts';
import { useReferences } from '../../references/references.ts';
import { useSelection } from '../../selection/selection.ts';
import { drag } from '../../shot/drag.ts';
import { useDocument } from '../../shot/document.ts';
import { viewMatrix } from '../../view/view.ts';
import { useViewed } from '../../view/viewed.ts';
import { Handle } from '../../parts/handle.tsx';

const NAMES = ['top left', 'top right', 'bottom right', 'bottom left'] as const;

export function PlateOverlay() {
  const doc = useDocument((s) => s.doc);
  const plateId = useReferences((s) => s.plateId);
  const view = useViewed((s) => s.view);
  const area = useViewed((s) => s.area);
  const playing = usePlayback((s) => s.playing);
  // Where the playhead goes, the camera goes.
  const isShot = useShotTime((s) => s.on);
  useShotTime((s) => s.frame);
  useSelection((s) => s.frame);
  const svg = useRef<SVGSVGElement>(null);
  const plate = doc && find(doc, 'plate', plateId);
  if (!doc || !plate?.corners || plate.locked || plate.beside || playing || area.width === 0) return null;
  const seen = planeMatrix(doc, plate.id, shotFrameNow(), { still: !isShot });
  const outward = multiply(viewMatrix(view, shotOf(doc), area), multiply(seen, plateMatrix(plate)));
  const inward = invert(outward);
  const { corners } = plate;
  const at = corners.map((p) => apply(outward, p));
  return (
    <svg ref={svg} className="pointer-events-none absolute inset-0 size-full" data-testid="plate-overlay">
      <polygon
        points={at.map(({ x, y }) => `${x},${y}`).join(' ')}
        fill="none"
        stroke="#ffc25c"
        strokeWidth={1.5}
        strokeDasharray="5 4"
      />
      {at.map((p, i) => (
        <Handle
          key={NAMES[i]}
          at={p}
          label={`Corner ${NAMES[i]!}`}
          cursor="move"
          onDown={(event) => {
            drag(event, {
              placeOf: ({ clientX, clientY }) => {
                const rect = svg.current!.getBoundingClientRect();
                return apply(inward, { x: clientX - rect.left, y: clientY - rect.top });
              },
              name: 'corner of a picture',
              change: (now, to) => setPlateCorners(now, plate.id, corners.with(i, to) as unknown as Quad),
            });
          }}
        />
      ))}
    </svg>
  );
}
