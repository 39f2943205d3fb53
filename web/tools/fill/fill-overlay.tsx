/** Over the picture while filling: what a press would fill, where it would run out, closing strokes, and places to look at. */
import { find, type Id, type Shape, type Stroke } from '@tallow/core/document';
import { apply, invert, multiply, type Matrix, type Point } from '@tallow/core/geometry';
import { shownOn } from '@tallow/core/timing';
import { useEffect, useRef } from 'react';
import { tracedPath, useLayerSpace } from '../../picture/layer-space.ts';
import { swatchOf, useCurrent, type Current } from '../../selection/current.ts';
import { useSelection } from '../../selection/selection.ts';
import { useToolState } from '../../hand/tool-state.ts';
import { fillingNow, toFillLayer, useFill } from '../../fills/fill.ts';
import { lookAt, lookAway, readyBefore } from '../../fills/looking.ts';
import { useFillWay } from './fill-way.ts';

/** A drawing that is shown for so long, ms, is made ready to be filled. */
const REST_MS = 120;
const WARN = '#e6b450';
const CLOSES = '#8fd0ff';

const lineOf = (points: readonly Point[], matrix: Matrix): string =>
  points
    .map((p, i) => {
      const { x, y } = apply(matrix, p);
      return `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`;
    })
    .join('');

/** Lines on the drawings shown that close and are never seen. */
function closingStrokes(now: Current, frame: number, layerIds: readonly Id[]): Stroke[] {
  return now.layers
    .filter(({ layer }) => layerIds.includes(layer.id))
    .flatMap((timed) => {
      const drawing = find(now.doc, 'drawing', shownOn(timed, frame, now.length)?.drawingId);
      return drawing ? Object.values(drawing.marks) : [];
    })
    .filter((mark): mark is Stroke => mark.kind === 'stroke' && mark.unseen === true);
}

export function FillOverlay() {
  const svg = useRef<SVGSVGElement>(null);
  const sight = useLayerSpace(svg);
  const now = useCurrent();
  const { there, reports, mode } = useFill();
  const way = useFillWay((s) => s.way);
  const frame = useSelection((s) => s.frame);
  const swatchId = useToolState((s) => s.swatchId);
  const matrix = sight?.matrix;
  const looks = mode === 'region' || mode === 'unfill';
  const matrixRef = useRef(matrix);
  useEffect(() => {
    matrixRef.current = matrix;
  }, [matrix]);
  useEffect(() => {
    const host = svg.current?.parentElement;
    if (!host || !looks) return undefined;
    const follow = (event: PointerEvent): void => {
      const box = host.getBoundingClientRect();
      if (event.buttons !== 0 || !matrixRef.current) return;
      void lookAt(apply(invert(matrixRef.current), { x: event.clientX - box.left, y: event.clientY - box.top }));
    };
    host.addEventListener('pointermove', follow);
    host.addEventListener('pointerleave', lookAway);
    return () => {
      host.removeEventListener('pointermove', follow);
      host.removeEventListener('pointerleave', lookAway);
      lookAway();
    };
  }, [looks]);
  useEffect(() => {
    if (!looks) return undefined;
    const rest = setTimeout(() => void readyBefore(), REST_MS);
    return () => {
      clearTimeout(rest);
    };
  }, [looks, now, frame]);
  const place = now && fillingNow(now);
  if (!now || !matrix || !place) return <svg ref={svg} className="hidden" />;
  const inFill = multiply(matrix, invert(toFillLayer(now, place.layerId, frame)));
  const colour = swatchOf(now.doc, swatchId)?.colour ?? '#f4ecdf';
  const shape: Shape | null = there?.shape
    ? { kind: 'shape', id: '', swatch: '', rings: there.shape.rings, rule: 'evenodd', opacity: 1 }
    : null;
  const spot = (p: Point) => apply(inFill, p);
  return (
    <svg
      ref={svg}
      className="pointer-events-none absolute inset-0 size-full"
      data-testid="fill-overlay"
      data-region={there?.region ?? 0}
    >
      {shape ? (
        <>
          <path
            d={tracedPath(shape, inFill)}
            fill={mode === 'unfill' ? '#14110f' : colour}
            fillOpacity={0.45}
            fillRule="evenodd"
            stroke="#f4ecdf"
            strokeWidth={1.2}
            strokeDasharray="3 3"
          />
        </>
      ) : null}
      {(there?.leaks?.places ?? []).slice(0, 40).map((leak, i) => {
        const at = spot(leak);
        return (
          <g key={i} data-testid="leak">
            <circle cx={at.x} cy={at.y} r={11} fill="none" stroke="#14110f" strokeWidth={4} />
            <circle cx={at.x} cy={at.y} r={11} fill="none" stroke={WARN} strokeWidth={2} />
            <text
              x={at.x + 15}
              y={at.y + 4}
              fontSize={12}
              fill={WARN}
              stroke="#14110f"
              strokeWidth={3}
              paintOrder="stroke"
              className="font-mono"
            >
              {Math.ceil(leak.width)} px
            </text>
          </g>
        );
      })}
      {closingStrokes(now, frame, [...place.boundIds, ...(place.layerId ? [place.layerId] : [])]).map((mark) => (
        <path
          key={mark.id}
          d={tracedPath(mark, matrix)}
          fill="none"
          stroke={CLOSES}
          strokeWidth={1.6}
          strokeDasharray="5 4"
        />
      ))}
      {reports
        .filter((report) => report.frame === frame)
        .map((report, i) => {
          const at = spot(report);
          return (
            <circle
              key={i}
              cx={at.x}
              cy={at.y}
              r={9}
              fill="none"
              stroke={WARN}
              strokeWidth={2.4}
              strokeDasharray="4 3"
            />
          );
        })}
      {way.length > 1 ? (
        <path
          d={`${lineOf(way, matrix)}${mode === 'lasso' ? 'Z' : ''}`}
          fill={mode === 'lasso' ? '#f4ecdf' : 'none'}
          fillOpacity={0.08}
          stroke={mode === 'lasso' ? '#f4ecdf' : CLOSES}
          strokeWidth={1.6}
          strokeDasharray="5 4"
        />
      ) : null}
    </svg>
  );
}
