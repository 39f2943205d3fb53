/** One element on the strip: its name, its drawings over the shot, its start. */
import { standing } from '@tallow/core/assembly';
import { shotOf } from '@tallow/core/document';
import { setElement, setPlacements, setStart } from '@tallow/core/edit';
import { cutOff, cutOffText, placementsOf } from '@tallow/core/timing';
import { Scissors } from 'lucide-react';
import { inIdleTurn } from '../workers/idle.ts';
import { useCallback, useEffect, useRef, useState, type PointerEvent } from 'react';
import { NameField } from '../parts/name-field.tsx';
import { current, shotFrameOf, type Current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { setScreen } from '../screen/screen.ts';
import { setPlayback } from '../playback/playback.ts';
import { setShowing } from '../picture/showing.ts';
import { edit, endGesture, reEdit } from '../shot/document.ts';
import { useArrivals } from '../picture/miniatures.ts';
import { goTo } from '../playback/playhead.ts';
import { RowMenu } from './row-menu.tsx';
import { drawRow, ROW_HEIGHT } from './row.ts';
import { act } from '../actions/action.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { capturePointer } from '../parts/dragging.ts';

export const NAME_WIDTH = 132;

/** The shot frame under a place on a row. */
function shotFrameAt(event: PointerEvent<HTMLElement>, length: number): number {
  const rect = event.currentTarget.getBoundingClientRect();
  return Math.min(length - 1, Math.max(0, Math.floor(((event.clientX - rect.left) / rect.width) * length)));
}

/** Makes an element the active one; the playhead stays where it is in the shot, as far as the element is there. */
function openUse({ element, place }: Current, shotFrame?: number): void {
  const before = current();
  const at = shotFrame ?? (before ? shotFrameOf(before, selection().frame, selection().turn) : 0);
  if (before?.place !== place) {
    const isSame = before?.element.id === element.id;
    setSelection({ elementId: element.id, place, selectedRuns: null, ...(isSame ? {} : { layerId: null }) });
    setScreen({ wheelTurn: 0 });
    setPlayback({ playsSelected: false });
    setShowing({ alone: null });
  }
  const now = current();
  if (!now?.placement) return;
  const moment = standing(now.doc, now.path, at)?.moment;
  if (moment) goTo(moment.frame, moment.turn);
}

/** Names a use where its element is used more than once, else the element. */
function rename({ doc, element, placement }: Current, name: string): void {
  if (placement && (placement.name !== null || placementsOf(doc, element.id).length > 1))
    edit('name of a use', (now) => setPlacements(now, [placement.id], { name }));
  else edit('element name', (now) => setElement(now, element.id, { name }));
}

/** The frame of the shot that an element begins on, being typed in place. @param max frames the shot has. */
function StartField({
  start,
  max,
  onDone,
}: {
  start: number;
  max: number;
  /** Called once, with the frame from 0, or null for none. */
  onDone: (start: number | null) => void;
}) {
  const [text, setText] = useState(String(start + 1));
  const frame = Number(text);
  const bad = text.trim() === '' || !Number.isInteger(frame) || frame < 1 || frame > max;
  return (
    <input
      autoFocus
      aria-label="Begins on frame of the shot"
      aria-invalid={bad}
      data-tip={bad ? `A whole number from 1 to ${max}` : 'Begins on this frame of the shot'}
      inputMode="numeric"
      className="field !h-7 min-w-0 flex-1 text-right font-mono"
      value={text}
      onFocus={(event) => {
        event.target.select();
      }}
      onChange={(event) => {
        setText(event.target.value);
      }}
      onBlur={() => {
        onDone(bad ? null : frame - 1);
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') onDone(null);
      }}
    />
  );
}

interface RowProps {
  row: Current;
  active: boolean;
  width: number;
  first: boolean;
  last: boolean;
  only: boolean;
}

export function StripRow({ row, active, width, first, last, only }: RowProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const arrivals = useArrivals((s) => s.count);
  const [naming, setNaming] = useState(false);
  const [starting, setStarting] = useState(false);
  const beginNaming = useCallback(() => {
    setNaming(true);
  }, []);
  const beginStarting = useCallback(() => {
    setStarting(true);
  }, []);
  const grip = useRef<{ from: number; start: number } | null>(null);
  const { length } = shotOf(row.doc);
  const { element, placement } = row;
  const name = placement?.name ?? element.name;
  const drawnWide = useRef(0);
  useEffect(() => {
    const draw = (): void => {
      const context = canvas.current?.getContext('2d');
      if (context && width > 0) drawRow(context, row, width, devicePixelRatio, active);
    };
    // A canvas of another width is empty; what changed in it comes after the picture.
    const isEmptied = drawnWide.current !== width;
    drawnWide.current = width;
    if (!isEmptied) return inIdleTurn(draw);
    draw();
    return undefined;
  }, [row, width, arrivals, active]);
  const gesture = `start-${row.place}`;
  const cut = placement && cutOff(placement, element, row.length, length);
  const cutText = cut && `${name}: ${cutOffText(cut, element.time === 'cycle')}`;

  return (
    <div className="flex items-center" data-testid="element" data-name={name}>
      <div className="flex shrink-0 items-center gap-0.5 pl-2 pr-2" style={{ width: NAME_WIDTH, height: ROW_HEIGHT }}>
        <RowMenu
          {...{ elementId: element.id, place: row.place, name: element.name, first, last, only }}
          onName={beginNaming}
          onStart={beginStarting}
        />
        {starting && placement ? (
          <StartField
            start={placement.start}
            max={length}
            onDone={(start) => {
              setStarting(false);
              if (start !== null && start !== placement.start)
                edit('start of element', (doc) => setStart(doc, placement.id, start));
            }}
          />
        ) : naming ? (
          <NameField
            label="Element name"
            value={name}
            onDone={(typed) => {
              setNaming(false);
              if (typed && typed !== name) rename(row, typed);
            }}
          />
        ) : (
          <button
            type="button"
            aria-pressed={active}
            data-tip={`Open ${name}`}
            className={`min-w-0 flex-1 truncate text-right text-xs ${active ? 'text-flame' : 'text-wax-300 hover:text-wax-100'}`}
            onClick={() => {
              openUse(row);
            }}
          >
            {name}
          </button>
        )}
      </div>
      <div
        className="relative min-w-0 flex-1 touch-none"
        style={{ height: ROW_HEIGHT }}
        role="slider"
        tabIndex={0}
        data-arrows
        aria-label={active ? 'Shot' : `Shot, ${name}`}
        aria-valuemin={1}
        aria-valuemax={length}
        aria-valuenow={(placement?.start ?? 0) + 1}
        onPointerDown={(event) => {
          capturePointer(event.currentTarget, event);
          const rect = event.currentTarget.getBoundingClientRect();
          const start = placement?.start ?? 0;
          const away = event.clientX - rect.left - (start * rect.width) / length;
          if (active && placement && away > -14 && away < 4 && start > 0) grip.current = { from: event.clientX, start };
          else openUse(row, shotFrameAt(event, length));
        }}
        onPointerMove={(event) => {
          if (!(event.buttons & 1)) return;
          const held = grip.current;
          if (held && placement) {
            const rect = event.currentTarget.getBoundingClientRect();
            const by = Math.round(((event.clientX - held.from) * length) / rect.width);
            reEdit(
              'start of element',
              (doc) => setStart(doc, placement.id, Math.min(length - 1, held.start + by)),
              gesture,
            );
            return;
          }
          openUse(row, shotFrameAt(event, length));
        }}
        onPointerUp={() => {
          if (grip.current) endGesture();
          grip.current = null;
        }}
        onKeyDown={(event) => {
          if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
          event.preventDefault();
          if (!active) openUse(row);
          else act(event.key === 'ArrowLeft' ? TIME_ACTIONS.previousFrame : TIME_ACTIONS.nextFrame);
        }}
      >
        <canvas
          ref={canvas}
          width={Math.round(width * devicePixelRatio)}
          height={Math.round(ROW_HEIGHT * devicePixelRatio)}
          className="absolute inset-0 size-full"
        />
        {cut ? (
          <span
            role="img"
            aria-label={cutText ?? undefined}
            data-tip={cutText ?? undefined}
            data-testid="cut-off"
            className="absolute right-0 top-1/2 grid size-4 -translate-y-1/2 place-items-center rounded-l bg-soot-950/80 text-warn"
          >
            <Scissors size={11} aria-hidden />
          </span>
        ) : null}
      </div>
    </div>
  );
}
