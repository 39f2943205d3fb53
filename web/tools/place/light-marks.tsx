/** Lights over the assembled picture: each a small flame that is picked; the picked one with how far it reaches, dragged. */
import { lightsOn } from '@tallow/core/render';
import { lightTime, depthMatrix, planeOf } from '@tallow/core/assembly';
import { setLightValue } from '@tallow/core/edit';
import { find, findAll, shotOf, valueAt, type Id, type Light, type ShotDocument } from '@tallow/core/document';
import { apply, invert, scaleOf, type Matrix, type Point } from '@tallow/core/geometry';
import type { PointerEvent, RefObject } from 'react';
import { drag } from '../../shot/drag.ts';
import { Handle } from '../../parts/handle.tsx';
import { selectLight } from './placing.ts';

const FLAME = '#ffc25c';
/** CSS px of a light's sign. */
const SIGN = 5;

/** A light's own px to those of the shot: what its plane is seen at. */
function planeOfLight(doc: ShotDocument, light: Light, shotFrame: number): Matrix {
  const plane = light.sourceId ? planeOf(doc, light.sourceId) : find(doc, 'plane', light.planeId);
  return depthMatrix(doc, plane?.depth ?? 0, shotFrame);
}

interface MarksProps {
  doc: ShotDocument;
  shotFrame: number;
  /** Shot px to CSS px. */
  view: Matrix;
  svg: RefObject<SVGSVGElement | null>;
  selected: Id | null;
}

/** A light that is out on this frame has no mark: it is picked in the cone. */
export function LightMarks({ doc, shotFrame, view, svg, selected }: MarksProps) {
  const shining = lightsOn(doc, shotFrame);
  const inward = invert(view);
  const placeOf = ({ clientX, clientY }: { clientX: number; clientY: number }): Point => {
    const box = svg.current!.getBoundingClientRect();
    return apply(inward, { x: clientX - box.left, y: clientY - box.top });
  };
  const scale = scaleOf(view);
  return (
    <>
      {shining.map(({ id, x, y, radius, light }) => {
        const at = apply(view, { x, y });
        if (id !== selected)
          return (
            <g
              key={id}
              className="pointer-events-auto cursor-pointer"
              data-handle={light.name}
              onPointerDown={(event) => {
                event.stopPropagation();
                selectLight(id);
              }}
            >
              <title>{light.name}</title>
              <circle cx={at.x} cy={at.y} r={13} fill="transparent" />
              <circle cx={at.x} cy={at.y} r={SIGN} fill="#14110f" fillOpacity={0.7} stroke={FLAME} strokeWidth={1.5} />
              <circle cx={at.x} cy={at.y} r={1.5} fill={FLAME} />
            </g>
          );
        const time = lightTime(doc, light, shotFrame);
        const plane = planeOfLight(doc, light, shotFrame);
        const back = invert([plane[0], plane[1], plane[2], plane[3], 0, 0]);
        const value = (which: 'x' | 'y'): number => valueAt(light[which], time.frame, time.round);
        const [fromX, fromY] = [value('x'), value('y')];
        const move = (event: PointerEvent<SVGElement>): void => {
          drag(event, {
            placeOf,
            name: 'move a light',
            change: (now, to, from) => {
              const by = apply(back, { x: to.x - from.x, y: to.y - from.y });
              const moved = setLightValue(now, id, 'x', time.frame, Math.round(fromX + by.x));
              return setLightValue(moved, id, 'y', time.frame, Math.round(fromY + by.y));
            },
          });
        };
        const reach = (event: PointerEvent<SVGElement>): void => {
          drag(event, {
            placeOf,
            name: 'how far a light reaches',
            change: (now, to) =>
              setLightValue(
                now,
                id,
                'radius',
                time.frame,
                Math.round(Math.max(10, Math.hypot(to.x - x, to.y - y) / scaleOf(plane))),
              ),
          });
        };
        const wide = radius * scale;
        return (
          <g key={id}>
            <circle cx={at.x} cy={at.y} r={wide} fill="none" stroke="#14110f" strokeOpacity={0.5} strokeWidth={2.5} />
            <circle
              cx={at.x}
              cy={at.y}
              r={wide}
              fill="none"
              stroke={FLAME}
              strokeOpacity={0.85}
              strokeDasharray="3 5"
              data-testid="light-reach"
            />
            <Handle
              at={{ x: at.x + wide, y: at.y }}
              label="How far the light reaches"
              cursor="ew-resize"
              onDown={reach}
            />
            <Handle at={at} label="Move the light" cursor="move" onDown={move} />
          </g>
        );
      })}
    </>
  );
}

/** The depth of the plane each light is on. */
export const depthsOfLights = (doc: ShotDocument): { light: Light; planeId: Id | undefined }[] =>
  findAll(doc, 'light', shotOf(doc).lights).map((light) => ({
    light,
    planeId: (light.sourceId ? planeOf(doc, light.sourceId) : find(doc, 'plane', light.planeId))?.id,
  }));
