/** The spacing of a path as a chart: how far along it is on each frame, and its ticks in a row. The same thing as the ticks on the picture. */
import type { Path } from '@tallow/core/document';
import { setPath } from '@tallow/core/edit';
import { flatTicks, placeTick } from '@tallow/core/plan';
import { scaleLinear } from 'd3-scale';
import { line, curveMonotoneX } from 'd3-shape';
import { useRef } from 'react';
import { useSelection } from '../selection/selection.ts';
import { edit, endGesture } from '../shot/document.ts';
import { usePlan } from './plan.ts';
import { drag } from '../shot/drag.ts';
import { tickAt, usePathFacts } from './path-mark.tsx';

/** px; it leaves room for the column's scroll bar. */
const SIZE = { width: 320, height: 214 };
const PLOT = { left: 30, right: 292, top: 12, bottom: 186 };
const ROW = { left: 306, right: 320 };

export function SpacingChart({ path }: { path: Path }) {
  const { ticks } = usePathFacts(path);
  const spacing = usePlan((s) => s.spacing);
  const rowTick = usePlan((s) => s.rowTick);
  const frame = useSelection((s) => s.frame);
  const svg = useRef<SVGSVGElement>(null);
  const at = rowTick ?? tickAt(path, frame);
  const frameOf = (index: number) => path.from + index * path.hold;
  const last = ticks.length - 1;
  const x = scaleLinear([frameOf(0), frameOf(last)], [PLOT.left, PLOT.right]);
  const y = scaleLinear([0, 1], [PLOT.bottom, PLOT.top]);
  const flat = flatTicks(path);
  const curve = line<number>(
    (_, i) => x(frameOf(i)),
    (share) => y(share),
  ).curve(curveMonotoneX);
  const placeOf = (event: { clientX: number; clientY: number }) => {
    const box = svg.current!.getBoundingClientRect();
    return { x: x.invert(event.clientX - box.left), y: Math.min(1, Math.max(0, y.invert(event.clientY - box.top))) };
  };
  const marks = [...new Set([0, Math.round(last / 3), Math.round((2 * last) / 3), last])];
  return (
    <svg
      ref={svg}
      width={SIZE.width}
      height={SIZE.height}
      className="mx-auto block select-none"
      role="img"
      aria-label="Spacing: share of the way on each frame"
      data-testid="spacing-chart"
    >
      {[0, 0.25, 0.5, 0.75, 1].map((share) => (
        <g key={share}>
          <line x1={PLOT.left} x2={PLOT.right} y1={y(share)} y2={y(share)} stroke="#332b25" strokeOpacity={0.7} />
          <text x={PLOT.left - 6} y={y(share) + 3.5} textAnchor="end" className="fill-wax-500 font-mono text-[9.5px]">
            {share * 100}
          </text>
        </g>
      ))}
      {marks.map((index) => (
        <text
          key={index}
          x={x(frameOf(index))}
          y={PLOT.bottom + 14}
          textAnchor="middle"
          className="fill-wax-500 font-mono text-[9.5px]"
        >
          {frameOf(index) + 1}
        </text>
      ))}
      <text x={PLOT.left} y={SIZE.height - 2} className="fill-wax-500 text-[10.5px]">
        frame
      </text>
      <text x={ROW.right} y={SIZE.height - 2} textAnchor="end" className="fill-wax-500 text-[10.5px]">
        % of the way · ticks in a row
      </text>
      {spacing === 'flat' ? null : (
        <path
          d={`M${x(frameOf(0))} ${y(0)}L${x(frameOf(last))} ${y(flat[last]!)}`}
          stroke="#a89987"
          strokeOpacity={0.5}
          strokeDasharray="3 4"
          fill="none"
        />
      )}
      {spacing === 'flat' ? null : <path d={curve(ticks) ?? ''} fill="none" stroke="#ffc25c" strokeWidth={2} />}
      {spacing === 'eased' ? null : <path d={curve(flat) ?? ''} fill="none" stroke="#cdbfae" strokeWidth={1.4} />}
      {(spacing === 'flat' ? flat : ticks).map((share, index) => (
        <g key={index}>
          <line
            x1={ROW.left}
            x2={ROW.right}
            y1={y(share)}
            y2={y(share)}
            stroke={index === at ? '#ffc25c' : '#f4ecdf'}
            strokeWidth={index === at ? 2.5 : 1.5}
          />
          <circle
            cx={x(frameOf(index))}
            cy={y(share)}
            r={index === at ? 5.5 : 3.6}
            fill={index === at ? '#fff3d6' : String(index) in path.placed ? '#ffc25c' : '#1a1613'}
            stroke="#ffc25c"
            strokeWidth={1.6}
          />
          {spacing === 'flat' ? null : (
            <circle
              cx={x(frameOf(index))}
              cy={y(share)}
              r={11}
              fill="transparent"
              className="cursor-ns-resize"
              data-chart-tick={index}
              role="slider"
              tabIndex={0}
              data-arrows
              aria-label={`Tick ${index + 1}`}
              aria-valuemin={0}
              aria-valuemax={100}
              aria-valuenow={Math.round(share * 100)}
              onKeyDown={(event) => {
                const by = { ArrowUp: 0.005, ArrowRight: 0.005, ArrowDown: -0.005, ArrowLeft: -0.005 }[event.key];
                if (by === undefined) return;
                event.preventDefault();
                event.stopPropagation();
                const to = share + by * (event.shiftKey ? 5 : 1);
                edit(
                  'move tick',
                  (doc) => setPath(doc, path.id, { placed: placeTick(path, index, to) }),
                  `tick-${index}`,
                );
              }}
              onKeyUp={(event) => {
                if (!event.key.startsWith('Arrow')) return;
                endGesture();
              }}
              onPointerDown={(event) => {
                drag(event, {
                  placeOf,
                  name: 'move tick',
                  change: (doc, p) => setPath(doc, path.id, { placed: placeTick(path, index, p.y) }),
                });
              }}
            />
          )}
        </g>
      ))}
      {spacing === 'flat'
        ? null
        : path.slows.map((slow) => {
            const index = ticks.findIndex((share) => share >= slow.at);
            const cx = x(frameOf(Math.max(0, index < 0 ? last : index)));
            return (
              <g key={slow.id}>
                <line
                  x1={PLOT.left}
                  x2={ROW.right}
                  y1={y(slow.at)}
                  y2={y(slow.at)}
                  stroke="#8fb8e8"
                  strokeOpacity={0.4}
                  strokeDasharray="2 4"
                />
                <circle
                  cx={cx}
                  cy={y(slow.at)}
                  r={7}
                  fill="none"
                  stroke="#8fb8e8"
                  strokeWidth={2}
                  pointerEvents="all"
                  className="cursor-ns-resize"
                  onPointerDown={(event) => {
                    drag(event, {
                      placeOf,
                      name: 'slow place',
                      change: (doc, p) =>
                        setPath(doc, path.id, {
                          slows: path.slows.map((s) => (s.id === slow.id ? { ...s, at: p.y } : s)),
                        }),
                    });
                  }}
                >
                  <title>Slow place: drag along the way</title>
                </circle>
              </g>
            );
          })}
    </svg>
  );
}

/** Flat and eased, one above the other, going on together. */
export function SpacingRows({ path }: { path: Path }) {
  const { ticks } = usePathFacts(path);
  const rowTick = usePlan((s) => s.rowTick);
  const frame = useSelection((s) => s.frame);
  const at = rowTick ?? tickAt(path, frame);
  const x = scaleLinear([0, 1], [52, 322]);
  const rows = [
    { name: 'Flat', shares: flatTicks(path) },
    { name: 'Eased', shares: ticks },
  ];
  return (
    <svg width={SIZE.width} height={56} className="mx-auto block" data-testid="rows">
      {rows.map(({ name, shares }, r) => {
        const y = 14 + r * 28;
        return (
          <g key={name}>
            <text x={6} y={y + 4} className="fill-wax-500 text-[11px]">
              {name}
            </text>
            <line x1={x(0)} x2={x(1)} y1={y} y2={y} stroke="#332b25" />
            {shares.map((share, i) => (
              <line key={i} x1={x(share)} x2={x(share)} y1={y - 5} y2={y + 5} stroke="#a89987" />
            ))}
            {at === null ? null : (
              <circle
                cx={x(shares[at]!)}
                cy={y}
                r={8}
                fill={name === 'Eased' ? '#ffb04a' : '#a89987'}
                fillOpacity={0.9}
              />
            )}
          </g>
        );
      })}
    </svg>
  );
}
