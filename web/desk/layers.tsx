/** The layers of the active element: order, names, roles, eyes and locks, and the active one's settings. */
import { LAYER_ROLES, randomId, type Layer, type LayerRole } from '@tallow/core/document';
import { addLayer, deleteLayer, moveLayer, setLayer } from '@tallow/core/edit';
import { describeHolds, shownOn, type TimedLayer } from '@tallow/core/timing';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Eye, EyeOff, GripVertical, Lock, LockOpen, Plus, Trash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useCurrent, type Current } from '../state/current.ts';
import { setDesk, useDesk } from '../state/desk.ts';
import { edit, endGesture, say, useDocument } from '../state/document.ts';
import { boxAround, miniature, useArrivals } from '../state/miniatures.ts';
import { openSaver } from '../state/session.ts';
import { NameField } from '../parts/name-field.tsx';

const DAB = { width: 30, height: 24 };

/** A dab of what the layer really shows. */
function Dab({ now, timed }: { now: Current; timed: TimedLayer }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const frame = useDesk((s) => s.frame);
  const arrivals = useArrivals((s) => s.count);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const pixel = devicePixelRatio;
    context.clearRect(0, 0, DAB.width * pixel, DAB.height * pixel);
    const drawingId = shownOn(timed, frame, now.length)?.drawingId ?? Object.values(timed.layer.slots)[0];
    const box = drawingId ? boxAround(now.doc, [drawingId]) : null;
    const bitmap =
      drawingId && box
        ? miniature(
            now.doc,
            [{ drawingId, opacity: 1 }],
            box,
            Math.round(DAB.width * pixel),
            Math.round(DAB.height * pixel),
          )
        : undefined;
    if (bitmap) context.drawImage(bitmap, 0, 0);
  }, [now, timed, frame, arrivals]);
  return (
    <canvas
      ref={canvas}
      width={DAB.width * devicePixelRatio}
      height={DAB.height * devicePixelRatio}
      style={DAB}
      className="shrink-0"
    />
  );
}

const change = (name: string, layer: Layer, settings: Parameters<typeof setLayer>[2], gesture?: string): void => {
  edit(name, (doc) => setLayer(doc, layer.id, settings), gesture);
};

function Row({ now, timed, active }: { now: Current; timed: TimedLayer; active: boolean }) {
  const { layer, list } = timed;
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: layer.id,
  });
  const [naming, setNaming] = useState(false);
  const holds = describeHolds(list, now.length);
  return (
    <div
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      data-testid="layer"
      data-name={layer.name}
      className={`group relative flex h-9 items-center gap-2 rounded-lg pl-1 pr-1 ${active ? 'bg-flame-deep' : 'hover:bg-soot-800'} ${isDragging ? 'z-10 shadow-xl' : ''}`}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        aria-label={`Move ${layer.name}`}
        title="Drag to reorder"
        className="grid h-8 w-4 shrink-0 cursor-grab touch-none place-items-center text-wax-500 opacity-0 focus-visible:opacity-100 group-hover:opacity-100"
        {...attributes}
        {...listeners}
        data-arrows
      >
        <GripVertical size={14} />
      </button>
      {naming ? (
        <>
          <Dab now={now} timed={timed} />
          <NameField
            label="Layer name"
            value={layer.name}
            onDone={(name) => {
              setNaming(false);
              if (name && name !== layer.name) change('layer name', layer, { name });
            }}
          />
        </>
      ) : (
        <button
          type="button"
          aria-pressed={active}
          className={`flex h-9 min-w-0 flex-1 items-center gap-2.5 text-left ${layer.visible ? '' : 'opacity-50'}`}
          onClick={() => {
            setDesk({ layerId: layer.id });
          }}
          onDoubleClick={() => {
            setNaming(true);
          }}
          title={`${layer.name} · double-click to rename`}
        >
          <Dab now={now} timed={timed} />
          <span className={`truncate font-medium ${active ? 'text-wax-100' : 'text-wax-300'}`}>{layer.name}</span>
          <span className="shrink-0 text-[13px] text-wax-500">{layer.role}</span>
          <span className="ml-auto shrink-0 text-[13px] text-wax-500">{holds}</span>
        </button>
      )}
      <button
        type="button"
        aria-label={layer.locked ? `Unlock ${layer.name}` : `Lock ${layer.name}`}
        title={layer.locked ? 'Unlock' : 'Lock'}
        onClick={() => {
          change(layer.locked ? 'unlock layer' : 'lock layer', layer, { locked: !layer.locked });
        }}
        className={`grid h-8 w-7 shrink-0 place-items-center rounded-md hover:text-wax-100 ${layer.locked ? 'text-warn' : 'text-wax-500 opacity-0 focus-visible:opacity-100 group-hover:opacity-100'}`}
      >
        {layer.locked ? <Lock size={14} /> : <LockOpen size={14} />}
      </button>
      <button
        type="button"
        aria-label={layer.visible ? `Hide ${layer.name}` : `Show ${layer.name}`}
        title={layer.visible ? 'Hide' : 'Show'}
        onClick={() => {
          change(layer.visible ? 'hide layer' : 'show layer', layer, { visible: !layer.visible });
        }}
        className="grid h-8 w-7 shrink-0 place-items-center rounded-md text-wax-500 hover:text-wax-100"
      >
        {layer.visible ? <Eye size={15} /> : <EyeOff size={15} />}
      </button>
    </div>
  );
}

function ActiveSettings({ layer, only }: { layer: Layer; only: boolean }) {
  const percent = Math.round(layer.opacity.constant * 100);
  const remove = (): void => {
    if (only) {
      say('This is the only layer. Add another before deleting it.');
      return;
    }
    const missing = Object.values(layer.slots).filter((id) => useDocument.getState().missing.has(id));
    void openSaver()
      ?.load(missing)
      .then(() => {
        edit('delete layer', (doc) => deleteLayer(doc, layer.id));
      });
  };
  return (
    <div className="mt-2 flex items-center gap-3 border-t border-soot-700 px-2 pt-2.5">
      <label className="flex items-center gap-2 text-[13px] text-wax-500">
        Role
        <select
          className="moves h-8 rounded-md bg-soot-800 px-2 text-wax-100"
          value={layer.role}
          onChange={(event) => {
            change('layer role', layer, { role: event.target.value as LayerRole });
          }}
        >
          {LAYER_ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </select>
      </label>
      <label className="flex min-w-0 flex-1 items-center gap-2 text-[13px] text-wax-500">
        Opacity
        <input
          type="range"
          aria-label="Layer opacity"
          min={0}
          max={100}
          value={percent}
          className="h-8 min-w-0 flex-1 accent-flame"
          onChange={(event) => {
            change('layer opacity', layer, { opacity: Number(event.target.value) / 100 }, `opacity-${layer.id}`);
          }}
          onPointerUp={endGesture}
          onKeyUp={endGesture}
        />
        <span className="w-11 text-right font-mono text-xs text-wax-100">{percent} %</span>
      </label>
      <button
        type="button"
        aria-label={`Delete ${layer.name}`}
        title="Delete this layer"
        onClick={remove}
        className="moves grid size-8 shrink-0 place-items-center rounded-md text-wax-500 hover:bg-soot-800 hover:text-wax-100"
      >
        <Trash2 size={15} />
      </button>
    </div>
  );
}

export function Layers() {
  const now = useCurrent();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (!now) return null;
  const ids = now.layers.map(({ layer }) => layer.id);
  const dropped = ({ active, over }: DragEndEvent): void => {
    if (over && over.id !== active.id)
      edit('layer order', (doc) => moveLayer(doc, String(active.id), ids.indexOf(String(over.id))));
  };
  const add = (): void => {
    let made = '';
    edit('add layer', (doc) => {
      const added = addLayer(
        doc,
        now.element.id,
        `Layer ${now.layers.length + 1}`,
        'line',
        now.active?.layer.id ?? null,
        randomId,
      );
      made = added.layerId;
      return added.doc;
    });
    setDesk({ layerId: made });
  };
  return (
    <section aria-label="Layers" className="flex min-h-0 flex-1 flex-col px-2">
      <div className="min-h-0 flex-1 overflow-y-auto">
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
          <SortableContext items={ids} strategy={verticalListSortingStrategy}>
            {now.layers.map((timed) => (
              <Row key={timed.layer.id} now={now} timed={timed} active={timed.layer.id === now.active?.layer.id} />
            ))}
          </SortableContext>
        </DndContext>
        <button
          type="button"
          onClick={add}
          className="moves mt-1 flex h-8 w-full items-center gap-2 rounded-lg px-2 text-[13px] text-wax-500 hover:bg-soot-800 hover:text-wax-100"
        >
          <Plus size={15} /> Add layer
        </button>
      </div>
      {now.active ? <ActiveSettings layer={now.active.layer} only={now.layers.length === 1} /> : null}
    </section>
  );
}
