/** The layers of the active element and their folders: order, adding, finding. */
import { find, randomId, type Folder } from '@tallow/core/document';
import { addFolder, addLayer, bareRuns, isLaidByItself, moveLayer } from '@tallow/core/edit';
import type { TimedLayer } from '@tallow/core/timing';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Contrast, FolderPlus, Lock, Plus, Search, Spotlight } from 'lucide-react';
import { memo, useCallback, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { current, useOfCurrent, type Current } from '../selection/current.ts';
import { useShowing } from '../picture/showing.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, useDocument } from '../shot/document.ts';
import { FolderRow, LayerRow, type LayerRowProps } from './layer-rows.tsx';
import { LayerSettingsRow } from './layer-settings.tsx';
import { ActionButton } from '../actions/action-button.tsx';
import { LAYER_ACTIONS } from './actions.ts';
import { lockedStill } from './one-layer.ts';

/** From so many layers on they can be found by name. */
const FIND_FROM = 9;

/** One list of rows: folders, and layers after the folder they lie in. */
type Entry = { readonly folder: Folder } | { readonly timed: TimedLayer };
const idOf = (entry: Entry): string => ('folder' in entry ? entry.folder.id : entry.timed.layer.id);

function entriesOf(now: Current): Entry[] {
  return now.element.layers.flatMap((id): Entry[] => {
    const folder = find(now.doc, 'folder', id);
    if (!folder) return now.layers.filter(({ layer, folder: f }) => layer.id === id && !f).map((timed) => ({ timed }));
    return [{ folder }, ...now.layers.filter((timed) => timed.folder?.id === id).map((timed) => ({ timed }))];
  });
}

/** Names of the layers that a layer shares its time with. */
const tiedTo = ({ layers }: Current, timed: TimedLayer): string =>
  layers
    .filter((other) => other !== timed && other.layer.runListId === timed.layer.runListId)
    .map(({ layer }) => layer.name)
    .join(', ');

/** Where a dragged row goes when it is let go over another: into that one's list, at its place. */
function dropped({ active, over }: DragEndEvent): void {
  const now = current();
  if (!now) return;
  const entries = entriesOf(now);
  const target = entries.find((entry) => idOf(entry) === over?.id);
  const dragged = String(active.id);
  if (!target || dragged === over?.id) return;
  const isFolder = find(now.doc, 'folder', dragged) !== undefined;
  const into =
    'folder' in target
      ? isFolder
        ? now.element
        : target.folder
      : !isFolder && target.timed.folder
        ? target.timed.folder
        : now.element;
  const beside = 'timed' in target && isFolder && target.timed.folder ? target.timed.folder.id : idOf(target);
  const index = 'folder' in target && !isFolder ? 0 : Math.max(0, into.layers.indexOf(beside));
  edit('layer order', (doc) => moveLayer(doc, dragged, into.id, index));
}

function addOne(): void {
  const now = current();
  if (!now) return;
  let made = '';
  edit('add layer', (doc) => {
    const name = `Layer ${now.layers.length + 1}`;
    const added = addLayer(doc, now.element.id, name, 'line', now.active?.layer.id ?? null, randomId);
    made = added.layerId;
    return added.doc;
  });
  setSelection({ layerId: made, selectedRuns: null });
}

function group(): void {
  const now = current();
  if (!now) return;
  const folders = entriesOf(now).filter((entry) => 'folder' in entry).length;
  const inside = now.active && !now.active.folder ? [now.active.layer.id] : [];
  edit('add folder', (doc) => addFolder(doc, now.element.id, `Folder ${folders + 1}`, inside, randomId).doc);
}

type RowShown = LayerRowProps | { readonly folder: Folder } | null;

/** What a row shows: the same while nothing of it has changed, as a stroke changes no layer. */
function rowOf(now: Current, id: string): RowShown {
  const entry = entriesOf(now).find((each) => idOf(each) === id);
  if (!entry || 'folder' in entry) return entry ?? null;
  const { timed } = entry;
  return {
    ...{ layer: timed.layer, list: timed.list, folder: timed.folder, length: now.length },
    active: timed.layer.id === now.active?.layer.id,
    // What is laid by itself is nobody's to draw.
    bare: isLaidByItself(now.doc, timed.layer.id) ? 0 : bareRuns(timed).length,
    tied: tiedTo(now, timed),
  };
}

const Row = memo(function Row({ id, open, onOpen }: { id: string; open: boolean; onOpen: (id: string) => void }) {
  const row = useOfCurrent(useShallow((now) => rowOf(now, id)));
  if (!row) return null;
  if ('layer' in row) return <LayerRow {...row} />;
  return (
    <FolderRow
      folder={row.folder}
      open={open}
      onOpen={() => {
        onOpen(id);
      }}
    />
  );
});

/** The settings of the layer that is drawn on. */
function ActiveSettings() {
  const layer = useOfCurrent(({ active }) => active?.layer);
  const list = useOfCurrent(({ active }) => active?.list);
  const folder = useOfCurrent(({ active }) => active?.folder);
  const only = useOfCurrent(({ layers }) => layers.length === 1) ?? false;
  return layer && list ? <LayerSettingsRow timed={{ layer, list, folder }} only={only} /> : null;
}

interface HeadProps {
  /** Begins or ends finding by name; undefined where there are few. */
  onFind?: (() => void) | undefined;
  finding: boolean;
}

function Head({ onFind, finding }: HeadProps) {
  const alone = useShowing((s) => s.alone);
  const dimOthers = useShowing((s) => s.dimOthers);
  const lockedOthers = useShowing((s) => s.lockedOthers);
  const locks = useDocument((s) => s.doc !== null && lockedStill(s.doc, lockedOthers).length > 0);
  const plain =
    'moves flex h-8 items-center gap-1.5 rounded-lg px-2 text-[13px] text-wax-300 hover:bg-soot-800 hover:text-wax-100';
  return (
    <div className="flex h-8 shrink-0 items-center text-[13px] text-wax-500">
      <button type="button" onClick={addOne} className={plain}>
        <Plus size={15} /> Add layer
      </button>
      <button type="button" onClick={group} data-tip="A folder round this layer; drag others in" className={plain}>
        <FolderPlus size={15} /> Add folder
      </button>
      <span className="ml-auto" />
      <span className="flex gap-0.5 [&_button[aria-pressed=false]]:!bg-transparent [&_button:hover]:!bg-soot-800">
        {onFind ? (
          <button
            type="button"
            aria-label="Find a layer"
            aria-pressed={finding}
            data-tip="Find a layer by its name"
            className={`moves grid size-8 place-items-center rounded-lg ${finding ? 'bg-flame-deep text-flame' : 'text-wax-300'}`}
            onClick={onFind}
          >
            <Search size={15} />
          </button>
        ) : null}
        <ActionButton action={LAYER_ACTIONS.alone} pressed={alone !== null}>
          <Spotlight size={15} />
        </ActionButton>
        <ActionButton action={LAYER_ACTIONS.dim} pressed={dimOthers}>
          <Contrast size={15} />
        </ActionButton>
        <ActionButton action={LAYER_ACTIONS.lockOthers} pressed={locks}>
          <Lock size={14} />
        </ActionButton>
      </span>
    </div>
  );
}

export function Layers() {
  const [wanted, setWanted] = useState('');
  const [finding, setFinding] = useState(false);
  const [openFolder, setOpenFolder] = useState<string | null>(null);
  const shown = (entries: readonly Entry[]): readonly Entry[] =>
    entries.filter(
      (entry) =>
        wanted === '' || ('timed' in entry && entry.timed.layer.name.toLowerCase().includes(wanted.toLowerCase())),
    );
  // The very same list while it holds the same rows: the rows hang on it.
  const ids = useOfCurrent(useShallow((of) => shown(entriesOf(of)).map(idOf)));
  const canFind = useOfCurrent(({ layers }) => layers.length >= FIND_FROM);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const openOrClose = useCallback((id: string): void => {
    setOpenFolder((now) => (now === id ? null : id));
  }, []);
  if (!ids) return null;
  return (
    <section aria-label="Layers" className="flex min-h-0 flex-1 flex-col px-2">
      <Head
        finding={finding}
        onFind={
          canFind
            ? () => {
                setFinding(!finding);
                setWanted('');
              }
            : undefined
        }
      />
      {finding ? (
        <input
          autoFocus
          className="field mb-1 !h-8 shrink-0 text-[13px]"
          placeholder="Part of its name"
          aria-label="Name of the layer"
          value={wanted}
          onChange={(event) => {
            setWanted(event.target.value);
          }}
        />
      ) : null}
      <div className="min-h-0 flex-1 overflow-y-auto">
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
          <SortableContext items={ids} strategy={verticalListSortingStrategy}>
            {ids.map((id) => (
              <Row key={id} id={id} open={openFolder === id} onOpen={openOrClose} />
            ))}
          </SortableContext>
        </DndContext>
      </div>
      <ActiveSettings />
    </section>
  );
}
