/** The sheet: the same exposures as the wheel, frames down and layers across, typed into like one on paper. */
import { keyedFrames } from '@tallow/core/edit';
import { isVisible } from '@tallow/core/timing';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { betweensOf, touchedSlots } from '@tallow/core/edit';
import { cellAt, computedSlots, type Cell } from '@tallow/core/edit';
import type { Current } from '../selection/current.ts';
import { setSelection, useSelection } from '../selection/selection.ts';
import { useScreen } from '../screen/screen.ts';
import { goTo } from '../playback/playhead.ts';
import { ROW, SheetCell } from './sheet-cell.tsx';
import { followPlayhead, moveSheet, pickFrames, sheetSpan, typed, useSheet } from './sheet-hand.ts';
import { useSheetHeight } from './room.ts';
import { capturePointer } from '../parts/dragging.ts';

/** Frames past the end that can be typed into. */
const BEYOND = 24;
const FRAME_WIDTH = 38;

export function Sheet({ now }: { now: Current }) {
  const scroller = useRef<HTMLDivElement>(null);
  const frame = useSelection((s) => Math.min(s.frame, now.length - 1));
  const pictures = useScreen((s) => s.sheetPictures);
  const height = useSheetHeight();
  const { entry, trouble } = useSheet();
  const selected = useSelection((s) => s.selectedRuns);
  const span = useSheet((s) => s.span);
  useEffect(() => {
    followPlayhead(frame, now.length);
  }, [frame, now.length]);
  const count = now.length + BEYOND;
  const rows = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 6,
  });
  useEffect(() => {
    rows.scrollToIndex(frame, { align: 'auto' });
  }, [rows, frame, height]);
  const betweens = betweensOf(now.doc, now.element.id);
  const computed = useMemo(() => computedSlots(betweens, touchedSlots(now.doc, betweens)), [now.doc, betweens]);
  const keyed = useMemo(
    () => new Map(now.layers.map((timed) => [timed.layer.id, keyedFrames(timed.layer, timed.folder)])),
    [now.layers],
  );
  const activeId = now.active?.layer.id ?? null;
  const shown =
    selected && selected.layerId === activeId ? sheetSpan(now, span) : span?.layerId === activeId ? span : null;
  const layerIds = now.layers.map(({ layer }) => layer.id);

  const spotOf = (event: PointerEvent): { layerId: string; frame: number } | null => {
    const cell = document.elementFromPoint(event.clientX, event.clientY)?.closest('[data-cell]');
    const [layerId, at] = (cell?.getAttribute('data-cell') ?? '').split(' ');
    return layerId && at ? { layerId, frame: Number(at) } : null;
  };
  const onDown = (event: PointerEvent<HTMLDivElement>): void => {
    const spot = spotOf(event);
    if (!spot || event.button !== 0) return;
    capturePointer(event.currentTarget, event);
    event.currentTarget.focus({ preventScroll: true });
    pickFrames(now, event.shiftKey ? null : spot, spot);
  };
  const onMove = (event: PointerEvent<HTMLDivElement>): void => {
    if (!(event.buttons & 1) || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const spot = spotOf(event);
    if (spot) pickFrames(now, null, spot);
  };
  const onKey = (event: KeyboardEvent): void => {
    if (!typed(now, event)) return;
    event.preventDefault();
    event.stopPropagation();
  };

  return (
    <div className="mx-2 flex shrink-0 flex-col" style={{ height }} data-testid="sheet">
      <div
        ref={scroller}
        role="grid"
        data-time
        tabIndex={0}
        aria-label={`Sheet of ${now.element.name}`}
        aria-rowcount={count}
        aria-colcount={now.layers.length + 1}
        className="min-h-0 flex-1 touch-none select-none overflow-auto rounded-lg bg-soot-950"
        onPointerDown={onDown}
        onPointerMove={onMove}
        onKeyDown={onKey}
      >
        <div className="sticky top-0 z-10 flex bg-soot-900" role="row">
          <span
            role="columnheader"
            aria-label="Frame"
            className="sticky left-0 shrink-0 bg-soot-900"
            style={{ width: FRAME_WIDTH }}
          />
          {now.layers.map((timed) => {
            const { layer } = timed;
            const active = layer.id === activeId;
            return (
              <button
                key={layer.id}
                type="button"
                role="columnheader"
                aria-selected={active}
                data-tip={`${layer.name} · click to draw on it`}
                className={`moves h-8 min-w-[58px] flex-1 truncate px-1 text-left text-xs ${active ? 'font-semibold text-flame' : 'text-wax-300 hover:text-wax-100'} ${isVisible(timed) ? '' : 'opacity-50'}`}
                onClick={() => {
                  setSelection({ layerId: layer.id, selectedRuns: null });
                  moveSheet({ layerId: layer.id, from: frame, length: 1 });
                }}
              >
                {layer.name}
              </button>
            );
          })}
        </div>
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map(({ index: f, start }) => (
            <div
              key={f}
              role="row"
              aria-rowindex={f + 1}
              className={`absolute left-0 flex w-full ${f === frame ? 'bg-flame-deep' : ''} ${f % 12 === 11 ? 'border-b border-soot-700' : ''}`}
              style={{ top: start, height: ROW }}
            >
              <button
                type="button"
                role="rowheader"
                tabIndex={-1}
                className={`sticky left-0 shrink-0 bg-soot-900 pr-2 text-right font-mono text-xs ${f === frame ? 'text-flame' : 'text-wax-500'}`}
                style={{ width: FRAME_WIDTH }}
                onClick={() => {
                  if (f < now.length) goTo(f);
                }}
              >
                {f + 1}
              </button>
              <div className={`flex ${f >= now.length ? 'opacity-40' : ''}`}>
                {now.layers.map((timed) => {
                  const { id } = timed.layer;
                  const cell: Cell = cellAt(timed, f, now.length, computed);
                  const chosen =
                    shown !== null &&
                    (shown.layerId === id || (shown.also ?? []).includes(id)) &&
                    f >= shown.from &&
                    f < shown.from + shown.length;
                  return (
                    <SheetCell
                      key={id}
                      now={now}
                      layerId={id}
                      frame={f}
                      cell={cell}
                      active={id === activeId}
                      chosen={chosen}
                      keyed={keyed.get(id)?.has(f) === true}
                      pictured={pictures && id === activeId}
                      entry={entry !== null && shown?.layerId === id && shown.from === f ? entry : null}
                    />
                  );
                })}
              </div>
            </div>
          ))}
        </div>
      </div>
      <p
        className={`h-6 truncate px-1 pt-1 text-xs ${trouble ? 'text-harm' : 'text-wax-500'}`}
        role={trouble ? 'alert' : undefined}
      >
        {trouble ?? (layerIds.length > 0 ? 'Type 7, 3-9, 1-8x2, x for nothing, - to hold on' : '')}
      </p>
    </div>
  );
}
