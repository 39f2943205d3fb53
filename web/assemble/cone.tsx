/** The cone of depth, from the side: planes as uprights in the light that falls from the eye, dragged to their depths. */
import { setPlaneDepth } from '@tallow/core/edit';
import { DEPTH_LIMITS, find, findAll, shotOf, type Id, type Plane, type ShotDocument } from '@tallow/core/document';
import { planeOf } from '@tallow/core/assembly';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { useWidth } from '../parts/use-width.ts';
import { setShowing, useShowing } from '../picture/showing.ts';
import { edit, endGesture } from '../shot/document.ts';
import { drag } from '../shot/drag.ts';
import { filmCamera } from '../tools/camera/filming.ts';
import { depthsOfLights } from '../tools/place/light-marks.tsx';
import { selectLight, selectPlane, usePlacing } from '../tools/place/placing.ts';
import { depthScaleOf, depthsInView, uprightsOf } from './depth-scale.ts';

const HEIGHT = 156;
/** px: where the eye is, room right of the farthest, and half of the cone's height there. */
const [EYE, RIGHT, HALF] = [20, 16, 54] as const;
const MIDDLE = 76;
/** px of depth that an arrow moves by, and with Shift; a drag goes in whole tens. */
const [STEP, FAR_STEP, WHOLE] = [10, 100, 10] as const;
/** px that a label takes: closer ones are left out unless theirs is picked. */
const LABEL = 40;

/** What can be seen at a depth goes as far up and down as this. */
const halfAt = (x: number, width: number): number => ((x - EYE) / (width - RIGHT - EYE)) * HALF;

/** px of a letter of a label, about. */
const LETTER = 5;
/** Letters a label has at the most. */
const MAX_LETTERS = 18;

/** How many letters each label has room for: the picked plane's first, then from the nearest on; none for those in between. */
function labelled(planes: readonly Plane[], xOf: (id: Id) => number, selected: Id | null): ReadonlyMap<Id, number> {
  const shown: Id[] = [];
  for (const { id } of planes.toSorted((a, b) => Number(b.id === selected) - Number(a.id === selected)))
    if (shown.every((other) => Math.abs(xOf(other) - xOf(id)) >= LABEL)) shown.push(id);
  const gap = (id: Id): number =>
    Math.min(...shown.flatMap((other) => (other === id ? [] : [Math.abs(xOf(other) - xOf(id))])));
  return new Map(shown.map((id) => [id, Math.min(MAX_LETTERS, Math.floor(gap(id) / LETTER))]));
}

interface UprightProps {
  plane: Plane;
  x: number;
  half: number;
  isSelected: boolean;
  isSeen: boolean;
  /** Letters its name has room for; 0 without a label. */
  letters: number;
  onDown: (event: PointerEvent<SVGGElement>) => void;
}

function Upright({ plane, x, half, isSelected, isSeen, letters, onDown }: UprightProps) {
  const { id, name, depth } = plane;
  const colour = isSelected ? '#ffc25c' : '#cdbfae';
  const key = (event: KeyboardEvent<SVGGElement>): void => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.code];
    const to = event.code === 'Home' ? 0 : by ? depth + by * (event.shiftKey ? FAR_STEP : STEP) : null;
    if (event.code === 'Enter' || event.code === 'Space') selectPlane(id);
    else if (to !== null) edit('depth', (doc) => setPlaneDepth(doc, id, to), `depth-${id}`);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      data-arrows
      data-testid="upright"
      data-name={name}
      aria-label={`Depth of ${name}`}
      aria-valuemin={DEPTH_LIMITS.min}
      aria-valuemax={DEPTH_LIMITS.max}
      aria-valuenow={Math.round(depth)}
      aria-valuetext={`${Math.round(depth)} px`}
      className="cursor-ew-resize touch-none outline-none [&:focus-visible>.bar]:stroke-flame"
      onPointerDown={onDown}
      onKeyDown={key}
      onKeyUp={endGesture}
    >
      <title>{`${name}, ${Math.round(depth)} px deep · drag it nearer or farther`}</title>
      <rect x={x - 7} y={MIDDLE - Math.max(half, 16)} width={14} height={2 * Math.max(half, 16)} fill="transparent" />
      <rect
        className="bar"
        x={x - 2.5}
        y={MIDDLE - half}
        width={5}
        height={2 * half}
        rx={2.5}
        fill={colour}
        stroke="transparent"
        strokeWidth={3}
        paintOrder="stroke"
        opacity={isSeen ? 1 : 0.3}
      />
      {letters > 0 ? (
        <>
          <text x={x} y={MIDDLE - half - 6} textAnchor="middle" className="font-mono text-[10px]" fill="#a89987">
            {Math.round(depth)}
          </text>
          <text x={x} y={MIDDLE + half + 14} textAnchor="middle" className="text-[11px]" fill={colour}>
            {name.length > letters ? `${name.slice(0, letters - 1)}…` : name}
          </text>
        </>
      ) : null}
    </g>
  );
}

/** The plane that is picked, or on which what is picked stands. */
const selectedPlane = (doc: ShotDocument, plane: Id | null, selected: readonly Id[]): Plane | undefined =>
  find(doc, 'plane', plane) ?? (selected[0] ? planeOf(doc, selected[0]) : undefined);

export function Cone({ doc }: { doc: ShotDocument }) {
  const host = useRef<HTMLDivElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const width = useWidth(host) || 336;
  const { plane: planeId, selected, light: lightId } = usePlacing();
  const alone = useShowing((s) => s.planeAlone);
  const filming = useShowing((s) => s.filming);
  // What is in view stays while a plane is dragged, so that it stays under the pen.
  const [held, setHeld] = useState<readonly [number, number] | null>(null);
  const planes = findAll(doc, 'plane', shotOf(doc).planes);
  const scale = depthScaleOf(held ?? depthsInView(planes.map(({ depth }) => depth)), EYE + 44, width - RIGHT);
  const uprights = uprightsOf(planes, scale);
  const xOf = (id: Id): number => uprights.get(id) ?? 0;
  const planeShown = selectedPlane(doc, planeId, selected)?.id ?? null;
  const labels = labelled(planes, xOf, planeShown);
  const edge = `M${EYE} ${MIDDLE}L${width - RIGHT} ${MIDDLE - HALF}V${MIDDLE + HALF}Z`;
  const begin = (plane: Plane) => (event: PointerEvent<SVGGElement>) => {
    if (event.button !== 0) return;
    selectPlane(plane.id);
    setHeld(depthsInView(planes.map(({ depth }) => depth)));
    drag(event, {
      placeOf: ({ clientX, clientY }) => {
        const box = svg.current!.getBoundingClientRect();
        return { x: clientX - box.left, y: clientY - box.top };
      },
      name: 'depth',
      change: (now, at, from) => {
        const wanted = scale.depthAt(scale.xOf(plane.depth) + at.x - from.x);
        return setPlaneDepth(now, plane.id, Math.round(wanted / WHOLE) * WHOLE);
      },
      moved: () => {
        setShowing({ rough: true });
      },
      over: () => {
        setHeld(null);
        setShowing({ rough: false });
      },
    });
  };
  return (
    <section aria-label="Depth" data-testid="cone">
      <div ref={host}>
        <svg ref={svg} width={width} height={HEIGHT} className="block select-none overflow-visible">
          <defs>
            <linearGradient id="cone-light" x1="0" x2="1">
              <stop offset="0" stopColor="#ffc25c" stopOpacity="0.42" />
              <stop offset="0.75" stopColor="#ffc25c" stopOpacity="0.1" />
              <stop offset="1" stopColor="#ffc25c" stopOpacity="0.03" />
            </linearGradient>
          </defs>
          <path d={edge} fill="url(#cone-light)" />
          <path
            d={`M${EYE} ${MIDDLE}L${width - RIGHT} ${MIDDLE - HALF}M${EYE} ${MIDDLE}L${width - RIGHT} ${MIDDLE + HALF}`}
            stroke="#ffc25c"
            strokeOpacity={0.45}
          />
          {planes.map((plane) => (
            <Upright
              key={plane.id}
              plane={plane}
              x={xOf(plane.id)}
              half={halfAt(xOf(plane.id), width)}
              isSelected={plane.id === planeShown}
              isSeen={plane.visible && (alone === null || alone === plane.id)}
              letters={labels.get(plane.id) ?? 0}
              onDown={begin(plane)}
            />
          ))}
          {depthsOfLights(doc).map(({ light, planeId }, i) =>
            planeId ? (
              <g
                key={light.id}
                role="button"
                tabIndex={0}
                aria-label={light.name}
                aria-pressed={light.id === lightId}
                data-testid="cone-light"
                className="cursor-pointer outline-none [&:focus-visible>circle]:stroke-wax-100"
                onClick={() => {
                  selectLight(light.id);
                }}
                onKeyDown={(event) => {
                  if (event.code !== 'Enter' && event.code !== 'Space') return;
                  event.preventDefault();
                  event.stopPropagation();
                  selectLight(light.id);
                }}
              >
                <title>{light.name}</title>
                <circle
                  cx={xOf(planeId) - 10}
                  cy={MIDDLE + (i % 3) * 13 - 6}
                  r={5}
                  fill={light.visible ? '#ffc25c' : '#5a4a3a'}
                  stroke={light.id === lightId ? '#f4ecdf' : '#14110f'}
                  strokeWidth={1.5}
                />
              </g>
            ) : null,
          )}
          <g
            role="button"
            tabIndex={0}
            aria-label="The camera"
            aria-pressed={filming}
            className="cursor-pointer outline-none [&:focus-visible>path]:stroke-flame"
            onClick={() => {
              filmCamera(!filming);
            }}
            onKeyDown={(event) => {
              if (event.code !== 'Enter' && event.code !== 'Space') return;
              event.preventDefault();
              event.stopPropagation();
              filmCamera(!filming);
            }}
          >
            <title>The camera: where it looks over time, and how it shakes</title>
            <rect x={-4} y={MIDDLE - 16} width={32} height={32} fill="transparent" />
            <path
              d={`M0 ${MIDDLE - 8}h9v4l9 -7v22l-9 -7v4h-9z`}
              fill={filming ? '#ffc25c' : '#f4ecdf'}
              stroke="transparent"
              strokeWidth={2}
            />
          </g>
        </svg>
      </div>
    </section>
  );
}
