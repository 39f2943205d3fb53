/** The camera's frame over the still picture: dragged, zoomed at its corners, turned at its knob. */
import { find, shotOf } from '@tallow/core/document';
import { apply, invert, type Point } from '@tallow/core/geometry';
import { onWay } from '@tallow/core/assembly';
import { useRef, type PointerEvent } from 'react';
import { usePlayback } from '../../playback/playback.ts';
import { useShotTime } from '../../playback/shot-time.ts';
import { useDocument } from '../../shot/document.ts';
import { drag } from '../../shot/drag.ts';
import { viewMatrix } from '../../view/view.ts';
import { useViewed } from '../../view/viewed.ts';
import { Handle } from '../../parts/handle.tsx';
import { frameOfCamera, middleOfCamera, moveCamera } from './filming.ts';

const FLAME = '#ffc25c';
/** CSS px below its upper edge at which it is turned: above it there may be no room. */
const BELOW = 26;

const outline = (points: readonly Point[]): string =>
  points.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('');

export function CameraOverlay() {
  const doc = useDocument((s) => s.doc);
  const view = useViewed((s) => s.view);
  const area = useViewed((s) => s.area);
  const frame = useShotTime((s) => s.frame);
  const playing = usePlayback((s) => s.playing);
  const svg = useRef<SVGSVGElement>(null);
  if (!doc || area.width === 0 || playing) return null;
  const outward = viewMatrix(view, shotOf(doc), area);
  const inward = invert(outward);
  const quad = frameOfCamera(doc, frame).map((p) => apply(outward, p));
  const about = middleOfCamera(doc, frame);
  const middle = apply(outward, about);
  const top = { x: (quad[0]!.x + quad[1]!.x) / 2, y: (quad[0]!.y + quad[1]!.y) / 2 };
  const far = Math.hypot(top.x - middle.x, top.y - middle.y) || 1;
  const knob = { x: top.x + ((middle.x - top.x) / far) * BELOW, y: top.y + ((middle.y - top.y) / far) * BELOW };
  const change = (how: 'zoom' | 'turn') => (event: PointerEvent<SVGElement>) => {
    drag(event, {
      placeOf: ({ clientX, clientY }) => {
        const box = svg.current!.getBoundingClientRect();
        return apply(inward, { x: clientX - box.left, y: clientY - box.top });
      },
      name: how === 'zoom' ? 'zoom the camera' : 'turn the camera',
      change: (now, at, from) => {
        const [a, b] = [from, at].map((p) => ({ x: p.x - about.x, y: p.y - about.y })) as [Point, Point];
        const size = Math.max(1, Math.hypot(b.x, b.y)) / Math.max(1, Math.hypot(a.x, a.y));
        return moveCamera(
          now,
          frame,
          how === 'zoom' ? { zoom: 1 / size } : { angle: Math.atan2(b.y, b.x) - Math.atan2(a.y, a.x) },
        );
      },
    });
  };
  const path = find(doc, 'path', shotOf(doc).camera.pathId);
  const first = path ? onWay(path, -Infinity) : null;
  const way =
    path && first
      ? Array.from({ length: shotOf(doc).length }, (_, i) => onWay(path, i)).map((p) =>
          apply(outward, { x: about.x - onWay(path, frame).x + p.x, y: about.y - onWay(path, frame).y + p.y }),
        )
      : [];
  return (
    <svg ref={svg} className="pointer-events-none absolute inset-0 size-full" data-testid="camera-overlay">
      {way.length > 1 ? <path d={outline(way)} fill="none" stroke="#e7a7c4" strokeDasharray="2 4" /> : null}
      <path d={`${outline(quad)}Z`} fill="none" stroke="#14110f" strokeOpacity={0.6} strokeWidth={3} />
      <path d={`${outline(quad)}Z`} fill="none" stroke={FLAME} strokeWidth={1.5} strokeDasharray="7 5" />
      <path d={outline([top, knob])} stroke={FLAME} strokeWidth={1.5} />
      <circle cx={middle.x} cy={middle.y} r={3} fill={FLAME} />
      {quad.map((p, i) => (
        <Handle key={i} at={p} label="Zoom the camera" cursor="nwse-resize" onDown={change('zoom')} />
      ))}
      <Handle at={knob} label="Turn the camera" cursor="grab" onDown={change('turn')} />
    </svg>
  );
}
