/** An effect of the shelf: its loop, its name, and what it is. Pressed it is chosen; dragged it can be dropped in the picture. */
import { SHELF_KINDS } from '@tallow/core/shelf';
import type { Point } from '@tallow/core/geometry';
import { useRef, useState, type ReactNode } from 'react';
import { createPortal } from 'react-dom';
import type { ShelfItem } from '../api/types.ts';
import { startDrag } from '../parts/dragging.ts';

/** CSS px a press may wander before it is a drag. */
const STILL = 6;

/** The loop where loops may play and it flashes no more than is safe; else the still picture. */
const sourceOf = ({ id, loop, revision }: ShelfItem, moves: boolean): string =>
  moves && loop && !loop.flashes
    ? `/api/shots/${id}/loop.webp?r=${loop.revision}`
    : `/api/shots/${id}/picture.png?r=${revision}`;

interface ShelfCardProps {
  item: ShelfItem;
  moves: boolean;
  /** What a press does, in words. */
  does: string;
  onChoose: () => void;
  /** Where it was dropped, CSS px of the page; it is not to be dragged without it. */
  onDrop?: (at: Point) => void;
  /** Beside its name. */
  children?: ReactNode;
}

export function ShelfCard({ item, moves, does, onChoose, onDrop, children }: ShelfCardProps) {
  const [dragged, setDragged] = useState<Point | null>(null);
  /**
   * Whether the press is a drag: the click that follows one chooses nothing. Known at once, as the state is only drawn: the pen may
   * be lifted before that.
   */
  const isDragged = useRef(false);
  const source = sourceOf(item, moves);
  return (
    <article data-testid="shelf-item" data-name={item.name} className="min-w-0">
      <button
        type="button"
        data-tip={does}
        aria-label={`${does}: ${item.name}`}
        className="moves block w-full touch-none overflow-hidden rounded-lg bg-surround hover:brightness-110"
        onPointerDown={(event) => {
          if (!onDrop) return;
          startDrag(event, () => {
            isDragged.current = false;
            return {
              move: ({ clientX: x, clientY: y }) => {
                isDragged.current ||= Math.hypot(x - event.clientX, y - event.clientY) > STILL;
                if (isDragged.current) setDragged({ x, y });
              },
              up: ({ clientX: x, clientY: y }) => {
                if (!isDragged.current) return;
                setDragged(null);
                onDrop({ x, y });
              },
              drop: () => {
                setDragged(null);
              },
            };
          });
        }}
        onClick={() => {
          if (!isDragged.current) onChoose();
          isDragged.current = false;
        }}
      >
        <img src={source} alt="" draggable={false} className="aspect-video w-full object-contain" />
      </button>
      <div className="mt-1 flex items-start gap-1">
        <div className="min-w-0 flex-1">
          <div className="truncate text-[13px] text-wax-100" data-tip={item.note || item.name}>
            {item.name}
          </div>
          <div className="truncate text-xs text-wax-500">
            {SHELF_KINDS[item.kind]} · {item.time} · <span className="font-mono">{item.length} f</span>
          </div>
        </div>
        {children}
      </div>
      {dragged
        ? createPortal(
            <img
              src={source}
              alt=""
              className="pointer-events-none fixed z-50 w-40 -translate-x-1/2 -translate-y-1/2 rounded-lg opacity-80"
              style={{ left: dragged.x, top: dragged.y }}
            />,
            document.body,
          )
        : null}
    </article>
  );
}
