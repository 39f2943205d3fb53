/** The strip: the whole shot, each element's own drawings in a row, a notch per turn. */
import { randomId, shotOf } from '@tallow/core/document';
import { addElement, deleteElement, moveElement, placedElements, setElement, setStart } from '@tallow/core/edit';
import { ArrowDown, ArrowUp, Ellipsis, Pencil, Plus, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import { ITEM, Menu, MenuLine } from '../parts/menu.tsx';
import { NameField } from '../parts/name-field.tsx';
import { NumberField } from '../parts/number-field.tsx';
import { act } from '../state/actions.ts';
import { current, currentOf, shotFrameOf, useCurrent, type Current } from '../state/current.ts';
import { desk, FRESH, setDesk, useDesk } from '../state/desk.ts';
import { edit, endGesture, reEdit, say, useDocument } from '../state/document.ts';
import { useArrivals } from '../state/miniatures.ts';
import { goTo } from '../state/playhead.ts';
import { withDrawings } from '../state/time-edits.ts';
import { drawRow, drawRuler, ROW_HEIGHT } from './row.ts';

const NAME_WIDTH = 132;
const RULER = 16;
/** Rows that are seen at once; more are scrolled. */
const MOST_ROWS = 4;

/** The shot frame under a place on a row. */
function shotFrameAt(event: PointerEvent<HTMLElement>, length: number): number {
  const rect = event.currentTarget.getBoundingClientRect();
  return Math.min(length - 1, Math.max(0, Math.floor(((event.clientX - rect.left) / rect.width) * length)));
}

/** Makes an element the active one; the playhead stays where it is in the shot, as far as the element is there. */
function openElement(elementId: string, shotFrame?: number): void {
  const before = current();
  const at = shotFrame ?? (before ? shotFrameOf(before, desk().frame, desk().turn) : 0);
  if (before?.element.id !== elementId)
    setDesk({ elementId, layerId: null, picked: null, wheelTurn: 0, playsPicked: false, alone: FRESH.alone });
  const now = current();
  if (!now?.placement) return;
  const since = Math.max(0, at - now.placement.start);
  goTo(since % now.length, now.element.time === 'cycle' ? Math.floor(since / now.length) : 0);
}

interface RowProps {
  row: Current;
  active: boolean;
  width: number;
  first: boolean;
  last: boolean;
  only: boolean;
}

function RowMenu({ row, first, last, only, onName }: Omit<RowProps, 'active' | 'width'> & { onName: () => void }) {
  const { element, placement } = row;
  const remove = (): void => {
    if (only) {
      say('This is the only element. Add another before deleting it.');
      return;
    }
    withDrawings(
      row.layers.flatMap(({ layer }) => Object.values(layer.slots)),
      () => {
        edit('delete element', (doc) => deleteElement(doc, element.id));
        if (desk().elementId === element.id)
          setDesk({ elementId: null, layerId: null, frame: 0, turn: 0, picked: null });
      },
    );
  };
  return (
    <Menu
      label={`More about ${element.name}`}
      align="start"
      trigger={<Ellipsis size={14} />}
      className="grid size-6 shrink-0 place-items-center rounded text-wax-500 hover:bg-soot-800 hover:text-wax-100"
    >
      <div className="px-2 pb-2 pt-1">
        <NumberField
          key={placement?.start}
          label="Begins on frame of the shot"
          value={(placement?.start ?? 0) + 1}
          least={1}
          most={shotOf(row.doc).length}
          onTake={(frame) => {
            if (placement) edit('start of element', (doc) => setStart(doc, placement.id, frame - 1));
          }}
        />
      </div>
      <MenuLine />
      <DropdownMenu.Item className={ITEM} onSelect={onName}>
        <Pencil size={15} /> Rename
      </DropdownMenu.Item>
      {(
        [
          { by: -1, label: 'To the front', off: first, icon: <ArrowUp size={15} /> },
          { by: 1, label: 'To the back', off: last, icon: <ArrowDown size={15} /> },
        ] as const
      ).map(({ by, label, off, icon }) => (
        <DropdownMenu.Item
          key={label}
          className={`${ITEM} ${off ? 'text-wax-500' : ''}`}
          title={off ? 'There is nothing farther that way.' : undefined}
          onSelect={() => {
            if (off) say('There is nothing farther that way.');
            else edit('order of elements', (doc) => moveElement(doc, element.id, by));
          }}
        >
          {icon} {label}
        </DropdownMenu.Item>
      ))}
      <DropdownMenu.Item className={ITEM} onSelect={remove}>
        <Trash2 size={15} /> Delete
      </DropdownMenu.Item>
    </Menu>
  );
}

function Row(props: RowProps) {
  const { row, active, width } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const arrivals = useArrivals((s) => s.count);
  const [naming, setNaming] = useState(false);
  const grip = useRef<{ from: number; start: number } | null>(null);
  const { length } = shotOf(row.doc);
  const { element, placement } = row;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (context && width > 0) drawRow(context, row, width, devicePixelRatio, active);
  }, [row, width, arrivals, active]);
  const gesture = `start-${element.id}`;

  return (
    <div className="flex items-center" data-testid="element" data-name={element.name}>
      <div className="flex shrink-0 items-center gap-0.5 pl-2 pr-2" style={{ width: NAME_WIDTH, height: ROW_HEIGHT }}>
        <RowMenu
          {...props}
          onName={() => {
            setNaming(true);
          }}
        />
        {naming ? (
          <NameField
            label="Element name"
            value={element.name}
            onDone={(name) => {
              setNaming(false);
              if (name && name !== element.name) edit('element name', (doc) => setElement(doc, element.id, { name }));
            }}
          />
        ) : (
          <button
            type="button"
            aria-pressed={active}
            title={`Open ${element.name}`}
            className={`min-w-0 flex-1 truncate text-right text-xs ${active ? 'text-flame' : 'text-wax-300 hover:text-wax-100'}`}
            onClick={() => {
              openElement(element.id);
            }}
          >
            {element.name}
          </button>
        )}
      </div>
      <div
        className="relative min-w-0 flex-1 touch-none"
        style={{ height: ROW_HEIGHT }}
        role="slider"
        tabIndex={0}
        data-arrows
        aria-label={active ? 'Shot' : `Shot, ${element.name}`}
        aria-valuemin={1}
        aria-valuemax={length}
        aria-valuenow={(placement?.start ?? 0) + 1}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const rect = event.currentTarget.getBoundingClientRect();
          const start = placement?.start ?? 0;
          const away = event.clientX - rect.left - (start * rect.width) / length;
          if (active && placement && away > -14 && away < 4 && start > 0) grip.current = { from: event.clientX, start };
          else openElement(element.id, shotFrameAt(event, length));
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
          openElement(element.id, shotFrameAt(event, length));
        }}
        onPointerUp={() => {
          if (grip.current) endGesture();
          grip.current = null;
        }}
        onKeyDown={(event) => {
          if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
          event.preventDefault();
          if (!active) openElement(element.id);
          else act(event.key === 'ArrowLeft' ? 'previousFrame' : 'nextFrame');
        }}
      >
        <canvas
          ref={canvas}
          width={Math.round(width * devicePixelRatio)}
          height={Math.round(ROW_HEIGHT * devicePixelRatio)}
          className="absolute inset-0 size-full"
        />
      </div>
    </div>
  );
}

/** The playhead over all rows, without re-rendering them. */
function Playhead({ now, width }: { now: Current; width: number }) {
  const frame = useDesk((s) => s.frame);
  const turn = useDesk((s) => s.turn);
  const { length } = shotOf(now.doc);
  const at = shotFrameOf(now, Math.min(frame, now.length - 1), turn);
  if (at >= length) return null;
  return (
    <div
      data-testid="strip-playhead"
      className="pointer-events-none absolute bottom-0 top-3 rounded-sm bg-wax-100/35"
      style={{ left: NAME_WIDTH + (at * width) / length, width: Math.max(3, width / length) }}
    />
  );
}

export function Strip() {
  const now = useCurrent();
  const doc = useDocument((s) => s.doc);
  const host = useRef<HTMLDivElement>(null);
  const ruler = useRef<HTMLCanvasElement>(null);
  const [width, setWidth] = useState(0);

  useEffect(() => {
    const element = host.current;
    if (!element) return undefined;
    const watch = new ResizeObserver(() => {
      setWidth(element.clientWidth);
    });
    watch.observe(element);
    return () => {
      watch.disconnect();
    };
  }, []);
  const length = doc ? shotOf(doc).length : 0;
  useEffect(() => {
    const context = ruler.current?.getContext('2d');
    if (context && width > 0) drawRuler(context, length, width, RULER, devicePixelRatio);
  }, [length, width]);

  if (!now || !doc) return null;
  const rows = placedElements(doc).flatMap(({ element }) => currentOf(doc, element.id, null) ?? []);
  const add = (): void => {
    let made = '';
    edit('add element', (d) => {
      const added = addElement(d, `Element ${shotOf(d).elements.length + 1}`, shotFrameOf(now, 0, 0), randomId);
      made = added.elementId;
      return added.doc;
    });
    setDesk({ elementId: made, layerId: null, frame: 0, turn: 0, picked: null });
  };
  return (
    <div className="relative shrink-0 border-t border-soot-700 bg-soot-950 pb-1.5 pr-4 pt-1" data-testid="strip">
      <div className="flex">
        <button
          type="button"
          onClick={add}
          title="An element with a time of its own, in front of the others"
          className="moves flex shrink-0 items-center justify-end gap-1 pr-2 text-xs text-wax-500 hover:text-wax-100"
          style={{ width: NAME_WIDTH, height: RULER + 4 }}
        >
          <Plus size={12} /> Add element
        </button>
        <div ref={host} className="min-w-0 flex-1">
          <canvas
            ref={ruler}
            width={Math.round(width * devicePixelRatio)}
            height={Math.round(RULER * devicePixelRatio)}
            style={{ width, height: RULER }}
          />
        </div>
      </div>
      <div
        className={rows.length > MOST_ROWS ? 'overflow-y-auto [scrollbar-width:none]' : ''}
        style={{ maxHeight: MOST_ROWS * ROW_HEIGHT + ROW_HEIGHT / 2 }}
      >
        {rows.map((row, i) => (
          <Row
            key={row.element.id}
            row={row}
            active={row.element.id === now.element.id}
            width={width}
            first={i === 0}
            last={i === rows.length - 1}
            only={rows.length === 1}
          />
        ))}
      </div>
      <Playhead now={now} width={width} />
    </div>
  );
}
