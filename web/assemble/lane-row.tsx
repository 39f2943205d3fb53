/** One lane of the tall strip: the plane's name, and its bars, which are dragged, trimmed, slipped and copied. */
import { addPlane, movePlane, removePlane, setPlane, whyNotRemovePlane } from '@tallow/core/edit';
import { randomId, shotOf } from '@tallow/core/document';
import { nameOfUse } from '@tallow/core/timing';
import { ArrowDown, ArrowUp, Ellipsis, Pencil, Plus, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { act } from '../actions/action.ts';
import { ITEM, Menu } from '../parts/menu.tsx';
import { NameField } from '../parts/name-field.tsx';
import { edit, say } from '../shot/document.ts';
import { shotTime } from '../playback/shot-time.ts';
import { hitFramesNow } from '../sound/hits.ts';
import { PLACE_ACTIONS, sayIfFixed } from '../tools/place/actions.ts';
import { keyOn, openInside, selectPlane, selectUses, placing, usePlacing, type Level } from '../tools/place/placing.ts';
import { dragBar, type BarDrag, type BarHow } from './bar-drag.ts';
import { BAR_GAP, BAR_HEIGHT, LaneCanvas, laneHeight, type InView } from './lane-canvas.tsx';
import { edgesOf, partAt, snappedFrame, TIME_SNAP, type Bar, type Lane } from './lane.ts';
import { capturePointer } from '../parts/dragging.ts';

export const LANE_NAME = 118;

function PlaneMenu({ level, lane, onName }: { level: Level; lane: Lane; onName: () => void }) {
  const { planes } = shotOf(level.doc);
  const at = planes.indexOf(lane.id);
  const why = whyNotRemovePlane(level.doc, lane.id);
  const item = (label: string, icon: React.ReactNode, whyNot: string | null, run: () => void) => (
    <DropdownMenu.Item
      className={`${ITEM} ${whyNot ? 'text-wax-500' : ''}`}
      data-tip={whyNot ?? undefined}
      onSelect={() => {
        if (whyNot) say(whyNot);
        else run();
      }}
    >
      {icon} {label}
    </DropdownMenu.Item>
  );
  return (
    <Menu
      label={`More about the plane ${lane.name}`}
      align="start"
      trigger={<Ellipsis size={14} />}
      className="grid size-6 shrink-0 place-items-center rounded text-wax-500 hover:bg-soot-800 hover:text-wax-100"
    >
      {item('Rename', <Pencil size={15} />, null, onName)}
      {item('Nearer', <ArrowUp size={15} />, at > 0 ? null : 'It is the nearest already.', () => {
        edit('order of planes', (doc) => movePlane(doc, lane.id, -1));
      })}
      {item('Farther', <ArrowDown size={15} />, at < planes.length - 1 ? null : 'It is the farthest already.', () => {
        edit('order of planes', (doc) => movePlane(doc, lane.id, 1));
      })}
      {item('Add a plane in front of it', <Plus size={15} />, null, () => {
        edit('add plane', (doc) => addPlane(doc, `Plane ${shotOf(doc).planes.length + 1}`, lane.id, randomId).doc);
      })}
      {item('Take this plane away', <Trash2 size={15} />, why, () => {
        edit('take a plane away', (doc) => removePlane(doc, lane.id));
      })}
    </Menu>
  );
}

/** What is said beside the pen while a bar is dragged. */
function toldOf(how: BarHow, { from, to }: Bar): string {
  if (how === 'end') return `to ${to}`;
  return how === 'slip' ? 'slipped' : `from ${from + 1}`;
}

function BarHandle({
  level,
  lanes,
  bar,
  view,
  width,
  isSelected,
  laneAt,
}: {
  level: Level;
  lanes: readonly Lane[];
  bar: Bar;
  view: InView;
  width: number;
  isSelected: boolean;
  /** The plane of the lane at a height of the page. */
  laneAt: (clientY: number) => string | null;
}) {
  const held = useRef<{ drag: BarDrag; x: number; moved: boolean } | null>(null);
  const [how, setHow] = useState<BarHow | null>(null);
  const left = (bar.from - view.from) * view.perFrame;
  const wide = Math.max(8, (bar.to - bar.from) * view.perFrame);
  const name = nameOfUse(level.doc, bar.placement);
  if (left > width || left + wide < 0) return null;
  const begin = (event: PointerEvent<HTMLElement>, as?: BarHow): void => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const { id } = bar.placement;
    if (event.shiftKey && !as) {
      const { selected } = placing();
      selectUses(selected.includes(id) ? selected.filter((each) => each !== id) : [...selected, id]);
      return;
    }
    capturePointer(event.currentTarget, event);
    const rect = event.currentTarget.getBoundingClientRect();
    const part = partAt(event.clientX - rect.left, rect.width);
    const asked = as ?? (event.altKey ? 'slip' : event.ctrlKey ? 'copy' : part);
    const { frame } = shotTime();
    const reach = TIME_SNAP / view.perFrame;
    const marks = [frame, ...(level.holder ? [] : hitFramesNow()), ...edgesOf(lanes, placing().selected)];
    const at = (to: number) => snappedFrame(marks, to, reach);
    held.current = { drag: dragBar(bar, asked, at), x: event.clientX, moved: false };
    setHow(asked);
  };
  const move = (event: PointerEvent<HTMLElement>): void => {
    const now = held.current;
    if (!now) return;
    const by = Math.round((event.clientX - now.x) / view.perFrame);
    const planeId = how === 'body' || how === 'copy' ? laneAt(event.clientY) : null;
    if (by === 0 && !now.moved && (planeId === null || bar.placement.holderId !== null)) return;
    now.moved = true;
    now.drag.move(by, level.holder ? null : planeId);
  };
  const end = (event: PointerEvent<HTMLElement>): void => {
    const now = held.current;
    held.current = null;
    setHow(null);
    if (!now) return;
    now.drag.up();
    if (now.moved && how !== 'copy') sayIfFixed(level.doc, bar.placement);
    if (!now.moved && !event.shiftKey) selectUses([bar.placement.id]);
  };
  const key = (event: KeyboardEvent<HTMLElement>): void => {
    if (event.code === 'Escape' && held.current) {
      held.current.drag.drop();
      held.current = null;
      setHow(null);
      event.preventDefault();
      event.stopPropagation();
      return;
    }
    if (event.code !== 'ArrowLeft' && event.code !== 'ArrowRight') return;
    event.preventDefault();
    if (!isSelected) selectUses([bar.placement.id]);
    const on = event.code === 'ArrowRight';
    if (event.altKey) act(on ? PLACE_ACTIONS.slipOn : PLACE_ACTIONS.slipBack);
    else act(on ? PLACE_ACTIONS.later : PLACE_ACTIONS.earlier);
  };
  const handlers = { onPointerMove: move, onPointerUp: end, onPointerCancel: end };
  return (
    <div
      className="absolute touch-none"
      style={{ left, width: wide, top: BAR_GAP + bar.row * (BAR_HEIGHT + BAR_GAP), height: BAR_HEIGHT }}
    >
      <div
        role="slider"
        tabIndex={0}
        data-arrows
        data-testid="bar"
        data-name={name}
        data-start={bar.from}
        data-end={bar.to}
        aria-label={name}
        aria-valuenow={bar.from + 1}
        aria-valuemin={1}
        aria-valuemax={level.length}
        aria-valuetext={`from frame ${bar.from + 1} to ${bar.to}`}
        data-tip={`${name} · drag to begin it elsewhere, its ends to trim it, with Alt to slip, with Ctrl one more`}
        className="absolute inset-0 cursor-grab rounded-md"
        onPointerDown={begin}
        {...handlers}
        onKeyDown={key}
        onDoubleClick={() => {
          openInside(keyOn(level, bar.placement.id));
        }}
      />
      <span className="pointer-events-none absolute left-2 top-0.5 max-w-[calc(100%-16px)] truncate rounded-sm bg-soot-950/60 px-1 text-[11px] leading-4 text-wax-100">
        {name}
      </span>
      {isSelected ? (
        <button
          type="button"
          aria-label={`One more of ${name}`}
          data-tip="Drag: one more of it, later or on another plane"
          className="absolute right-2 top-1/2 grid size-6 -translate-y-1/2 cursor-copy touch-none place-items-center rounded-full bg-flame text-soot-950"
          onPointerDown={(event) => {
            begin(event, 'copy');
          }}
          {...handlers}
          onClick={(event) => {
            // By keys there is no drag: it is laid a little later.
            if (event.detail === 0) act(PLACE_ACTIONS.oneMore);
          }}
        >
          <Plus size={13} />
        </button>
      ) : null}
      {how ? (
        <span className="pointer-events-none absolute -top-4 left-0 z-10 rounded bg-soot-950 px-1 font-mono text-[11px] text-flame">
          {toldOf(how, bar)}
        </span>
      ) : null}
    </div>
  );
}

function LaneName({ lane: { id, name, plane }, isSelected }: { lane: Lane; isSelected: boolean }) {
  if (!plane)
    return (
      <span className="min-w-0 flex-1 truncate pt-1 text-[13px] text-wax-300" data-tip={name}>
        {name}
      </span>
    );
  return (
    <button
      type="button"
      aria-pressed={isSelected}
      data-tip={`${name} · its depth, looks and air`}
      className={`moves min-w-0 flex-1 truncate pt-1 text-left text-[13px] hover:text-wax-100 ${isSelected ? 'text-flame' : plane.visible ? 'text-wax-300' : 'text-wax-500 line-through'}`}
      onClick={() => {
        selectPlane(isSelected ? null : id);
      }}
    >
      {name}
    </button>
  );
}

export function LaneRow({
  level,
  lanes,
  lane,
  view,
  width,
  selected,
  laneAt,
}: {
  level: Level;
  lanes: readonly Lane[];
  lane: Lane;
  view: InView;
  width: number;
  selected: readonly string[];
  laneAt: (clientY: number) => string | null;
}) {
  const [naming, setNaming] = useState(false);
  const planeId = usePlacing((s) => s.plane);
  return (
    <div className="flex" data-testid="lane" data-lane={lane.id} data-name={lane.name}>
      <div
        className="flex shrink-0 items-start gap-0.5 pl-2 pt-1"
        style={{ width: LANE_NAME, minHeight: laneHeight(lane.rows) }}
      >
        {lane.plane ? (
          <PlaneMenu
            level={level}
            lane={lane}
            onName={() => {
              setNaming(true);
            }}
          />
        ) : null}
        {naming ? (
          <NameField
            label="Name of the plane"
            value={lane.name}
            onDone={(name) => {
              setNaming(false);
              if (name && name !== lane.name) edit('plane name', (doc) => setPlane(doc, lane.id, { name }));
            }}
          />
        ) : (
          <LaneName lane={lane} isSelected={lane.id === planeId} />
        )}
      </div>
      <div
        className="relative min-w-0 flex-1 overflow-hidden rounded-md bg-soot-900/60"
        style={{ height: laneHeight(lane.rows) }}
        onPointerDown={() => {
          selectUses([]);
        }}
      >
        <LaneCanvas doc={level.doc} lane={lane} view={view} width={width} length={level.length} selected={selected} />
        {lane.bars.map((bar) => (
          <BarHandle
            key={bar.placement.id}
            level={level}
            lanes={lanes}
            bar={bar}
            view={view}
            width={width}
            isSelected={selected.includes(bar.placement.id)}
            laneAt={laneAt}
          />
        ))}
      </div>
    </div>
  );
}
