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
import { useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useCurrent, useOfCurrent, type Current } from '../selection/current.ts';
import { useShowing } from '../picture/showing.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, useDocument } from '../shot/document.ts';
import { FolderRow, LayerRow } from './layer-rows.tsx';
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
function dropped(now: Current, entries: readonly Entry[], { active, over }: DragEndEvent): void {
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

interface HeadProps {
  onAdd: () => void;
  onFolder: () => void;
  /** Begins or ends finding by name; undefined where there are few. */
  onFind?: (() => void) | undefined;
  finding: boolean;
}

function Head({ onAdd, onFolder, onFind, finding }: HeadProps) {
  const alone = useShowing((s) => s.alone);
  const dimOthers = useShowing((s) => s.dimOthers);
  const lockedOthers = useShowing((s) => s.lockedOthers);
  const locks = useDocument((s) => s.doc !== null && lockedStill(s.doc, lockedOthers).length > 0);
  const plain =
    'moves flex h-8 items-center gap-1.5 rounded-lg px-2 text-[13px] text-wax-300 hover:bg-soot-800 hover:text-wax-100';
  return (
    <div className="flex h-8 shrink-0 items-center text-[13px] text-wax-500">
      <button type="button" onClick={onAdd} className={plain}>
        <Plus size={15} /> Add layer
      </button>
      <button type="button" onClick={onFolder} data-tip="A folder round this layer; drag others in" className={plain}>
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
  const now = useCurrent();
  const [wanted, setWanted] = useState('');
  const [finding, setFinding] = useState(false);
  const [openFolder, setOpenFolder] = useState<string | null>(null);
  const shown = (entries: readonly Entry[]): readonly Entry[] =>
    entries.filter(
      (entry) =>
        wanted === '' || ('timed' in entry && entry.timed.layer.name.toLowerCase().includes(wanted.toLowerCase())),
    );
  // The very same list while it holds the same rows: the rows hang on it.
  const ids = useOfCurrent(useShallow((of) => shown(entriesOf(of)).map(idOf))) ?? [];
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (!now) return null;
  const all = entriesOf(now);
  const entries = shown(all);
  const add = (): void => {
    let made = '';
    edit('add layer', (doc) => {
      const name = `Layer ${now.layers.length + 1}`;
      const added = addLayer(doc, now.element.id, name, 'line', now.active?.layer.id ?? null, randomId);
      made = added.layerId;
      return added.doc;
    });
    setSelection({ layerId: made, picked: null });
  };
  const folders = all.filter((entry) => 'folder' in entry).length;
  const group = (): void => {
    const inside = now.active && !now.active.folder ? [now.active.layer.id] : [];
    edit('add folder', (doc) => addFolder(doc, now.element.id, `Folder ${folders + 1}`, inside, randomId).doc);
  };
  return (
    <section aria-label="Layers" className="flex min-h-0 flex-1 flex-col px-2">
      <Head
        onAdd={add}
        onFolder={group}
        finding={finding}
        onFind={
          now.layers.length >= FIND_FROM
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
        <DndContext
          sensors={sensors}
          collisionDetection={closestCenter}
          onDragEnd={(event) => {
            dropped(now, all, event);
          }}
        >
          <SortableContext items={ids} strategy={verticalListSortingStrategy}>
            {entries.map((entry) =>
              'folder' in entry ? (
                <FolderRow
                  key={entry.folder.id}
                  folder={entry.folder}
                  open={openFolder === entry.folder.id}
                  onOpen={() => {
                    setOpenFolder(openFolder === entry.folder.id ? null : entry.folder.id);
                  }}
                />
              ) : (
                <LayerRow
                  key={entry.timed.layer.id}
                  layer={entry.timed.layer}
                  list={entry.timed.list}
                  folder={entry.timed.folder}
                  active={entry.timed.layer.id === now.active?.layer.id}
                  // What is laid by itself is nobody's to draw.
                  bare={isLaidByItself(now.doc, entry.timed.layer.id) ? 0 : bareRuns(entry.timed).length}
                  tied={tiedTo(now, entry.timed)}
                  length={now.length}
                />
              ),
            )}
          </SortableContext>
        </DndContext>
      </div>
      {now.active ? <LayerSettingsRow timed={now.active} only={now.layers.length === 1} /> : null}
    </section>
  );
}
