/** A cell of the sheet: number, hold line, nothing, or a slot still to be drawn. */
import { useEffect, useRef } from 'react';
import type { Current } from '../selection/current.ts';
import { boxOfLayers, miniature, useArrivals } from '../picture/miniatures.ts';
import type { Cell } from '@tallow/core/edit';

/** Height of a row, CSS px. */
export const ROW = 24;

function Picture({ now, drawingId }: { now: Current; drawingId: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const arrivals = useArrivals((s) => s.count);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    const box = now.active && boxOfLayers(now.doc, [now.active.layer]);
    if (!context || !box) return;
    const side = Math.round((ROW - 2) * devicePixelRatio);
    const bitmap = miniature(now.doc, [{ drawingId, opacity: 1 }], box, side, side);
    context.clearRect(0, 0, side, side);
    if (bitmap) context.drawImage(bitmap, 0, 0);
  }, [now, drawingId, arrivals]);
  const side = (ROW - 2) * devicePixelRatio;
  return <canvas ref={canvas} width={side} height={side} style={{ width: ROW - 2, height: ROW - 2 }} />;
}

const POSE = { key: 'bg-flame text-soot-950', breakdown: 'ring-1 ring-inset ring-flame text-flame' } as const;

function wordOf({ number, bare, pose, computed, drawingId, run }: Cell): string {
  if (run === null) return 'nothing';
  if (number === null) return drawingId || bare ? 'held' : 'nothing';
  const kind = bare ? ', still to be drawn' : computed ? ', computed in-between' : pose ? `, ${pose}` : '';
  return `drawing ${number}${kind}`;
}

export function SheetCell({
  now,
  layerId,
  frame,
  cell,
  active,
  chosen,
  keyed,
  pictured,
  entry,
}: {
  now: Current;
  layerId: string;
  frame: number;
  cell: Cell;
  active: boolean;
  chosen: boolean;
  /** Whether a value of the layer is set on this frame. */
  keyed: boolean;
  pictured: boolean;
  /** What is being typed here. */
  entry: string | null;
}) {
  const { number, bare, pose, computed, drawingId, last, slot } = cell;
  const tone = active ? 'text-wax-100' : 'text-wax-300';
  return (
    <div
      role="gridcell"
      aria-label={`frame ${frame + 1}: ${wordOf(cell)}`}
      aria-selected={chosen}
      data-cell={`${layerId} ${frame}`}
      data-bare={bare || undefined}
      data-computed={computed || undefined}
      className={`relative flex min-w-[58px] flex-1 items-center border-l border-soot-700/60 px-1.5 font-mono text-xs ${tone} ${chosen ? 'bg-[#4a3a24]' : ''}`}
    >
      {entry !== null ? (
        <span className="rounded bg-flame px-1 text-soot-950" data-testid="typing">
          {entry}
          <span className="animate-pulse">|</span>
        </span>
      ) : number !== null ? (
        <>
          <span
            className={`min-w-[18px] rounded px-1 text-center ${bare ? 'border border-dashed border-wax-500 text-wax-500' : pose ? POSE[pose] : ''} ${computed ? 'italic text-[#8fb8e8]' : ''}`}
          >
            {number}
          </span>
          {cell.planned === null ? null : (
            <span className="ml-1 text-[10px] text-wax-500" data-tip="Planned place between the drawings round it">
              {Math.round(cell.planned * 100)} %
            </span>
          )}
          {pictured && drawingId ? (
            <span className="ml-1">
              <Picture now={now} drawingId={drawingId} />
            </span>
          ) : null}
        </>
      ) : slot !== null ? (
        <span
          className={`ml-2 w-px self-stretch ${bare ? 'border-l border-dashed border-wax-500' : active ? 'bg-wax-300' : 'bg-wax-500'} ${last ? 'mb-1.5' : ''}`}
        />
      ) : cell.run !== null ? (
        <span className="ml-1.5 text-wax-500">×</span>
      ) : null}
      {keyed ? (
        <span
          className="absolute right-1 size-1.5 rounded-full bg-[#9fc3a4]"
          role="img"
          aria-label="A value is set on this frame"
          data-tip="A value is set on this frame"
        />
      ) : null}
    </div>
  );
}
