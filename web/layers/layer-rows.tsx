/** Rows of the list of layers: a layer with a dab of what it shows, a folder with its opacity. */
import type { Folder, Id, Layer, RunList } from '@tallow/core/document';
import { setFolder, setLayer } from '@tallow/core/edit';
import { describeHolds, isLocked, isVisible, shownOn } from '@tallow/core/timing';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Eye, EyeOff, Folder as FolderIcon, GripVertical, Link2, Lock, LockOpen } from 'lucide-react';
import { memo, useEffect, useRef, useState, type ReactNode } from 'react';
import { useOfCurrent } from '../selection/current.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, useDocument } from '../shot/document.ts';
import { useRestingFrame } from '../playback/resting-frame.ts';
import { boxAround, miniature, miniatureFingerprint, useArrivals } from '../picture/miniatures.ts';
import { NameField } from '../parts/name-field.tsx';
import { WholeName } from '../parts/whole-name.tsx';
import { FolderSettingsRow } from './layer-settings.tsx';
import { TAGS } from './tags.ts';

const DAB = { width: 28, height: 22 };

/** A dab of what the layer really shows, at rest while the shot plays. */
function Dab({ layerId }: { layerId: Id }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const frame = useRestingFrame();
  const drawingId = useOfCurrent(({ layers, length }) => {
    const timed = layers.find(({ layer }) => layer.id === layerId);
    return timed && (shownOn(timed, frame, length)?.drawingId ?? Object.values(timed.layer.slots)[0]);
  });
  const print = useOfCurrent(({ doc }) => miniatureFingerprint(doc, drawingId));
  const arrivals = useArrivals((s) => s.count);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const pixel = devicePixelRatio;
    context.clearRect(0, 0, DAB.width * pixel, DAB.height * pixel);
    const { doc } = useDocument.getState();
    const box = doc && drawingId ? boxAround(doc, [drawingId]) : null;
    if (!doc || !drawingId || !box) return;
    const [width, height] = [Math.round(DAB.width * pixel), Math.round(DAB.height * pixel)];
    const bitmap = miniature(doc, [{ drawingId, opacity: 1 }], box, width, height);
    if (bitmap) context.drawImage(bitmap, 0, 0);
  }, [drawingId, print, arrivals]);
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

const changeLayer = (name: string, layer: Layer, settings: Parameters<typeof setLayer>[2]): void => {
  edit(name, (doc) => setLayer(doc, layer.id, settings));
};
const changeFolder = (name: string, folder: Folder, settings: Parameters<typeof setFolder>[2]): void => {
  edit(name, (doc) => setFolder(doc, folder.id, settings));
};

interface SwitchProps {
  on: boolean;
  /** What it is off by from outside, said instead of its own state. */
  by?: string | undefined;
  label: string;
  title: string;
  quiet?: boolean;
  warn?: boolean;
  icon: ReactNode;
  onClick: () => void;
}

function Switch({ on, by, label, title, quiet = false, warn = false, icon, onClick }: SwitchProps) {
  const look = by ? 'text-warn/70' : warn && on ? 'text-warn' : 'text-wax-500 hover:text-wax-100';
  const seen = quiet && !on && !by ? 'opacity-0 focus-visible:opacity-100 group-hover:opacity-100' : '';
  return (
    <button
      type="button"
      aria-label={label}
      data-tip={by ?? title}
      onClick={onClick}
      className={`grid h-[26px] w-7 shrink-0 place-items-center rounded-md ${look} ${seen}`}
    >
      {icon}
    </button>
  );
}

interface RowFrameProps {
  id: string;
  name: string;
  active: boolean;
  inside?: boolean;
  kind: 'layer' | 'folder';
  children: ReactNode;
}

/** A row that can be dragged by its grip. */
function RowFrame({ id, name, active, inside = false, kind, children }: RowFrameProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  const row = useRef<HTMLDivElement | null>(null);
  useEffect(() => {
    if (!active) return undefined;
    // With the next frame, which lays the page out anyway.
    const coming = requestAnimationFrame(() => row.current?.scrollIntoView({ block: 'nearest' }));
    return () => {
      cancelAnimationFrame(coming);
    };
  }, [active]);
  return (
    <div
      ref={(element) => {
        row.current = element;
        setNodeRef(element);
      }}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      data-testid={kind}
      data-name={name}
      className={`group relative flex h-[26px] items-center gap-2 rounded-lg pr-1 ${inside ? 'ml-5 border-l border-soot-700 pl-0.5' : 'pl-1'} ${active ? 'bg-flame-deep' : 'hover:bg-soot-800'} ${isDragging ? 'z-10 shadow-xl' : ''}`}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        aria-label={`Move ${name}`}
        data-tip="Drag to reorder, or into a folder"
        className="grid h-[26px] w-4 shrink-0 cursor-grab touch-none place-items-center text-wax-500 opacity-0 focus-visible:opacity-100 group-hover:opacity-100"
        {...attributes}
        {...listeners}
        data-arrows
      >
        <GripVertical size={14} />
      </button>
      {children}
    </div>
  );
}

/** The name of a layer as it is read in its folder, which says its own name already. */
function nameWithin({ name }: Layer, folder: Folder | undefined): string {
  const start = folder ? `${folder.name} ` : '';
  return start && name.startsWith(start) && name.length > start.length ? name.slice(start.length) : name;
}

export interface LayerRowProps {
  layer: Layer;
  list: RunList;
  folder: Folder | undefined;
  active: boolean;
  /** How many of its slots are still to be drawn. */
  bare: number;
  /** Names of the layers it is tied to in time. */
  tied: string;
  /** Frames of the element. */
  length: number;
}

/** A layer; drawn anew only where it is another, as a stroke changes no layer. */
export const LayerRow = memo(function LayerRow({ layer, list, folder, active, bare, tied, length }: LayerRowProps) {
  const [naming, setNaming] = useState(false);
  const timed = { layer, list, folder };
  const holds = bare > 0 ? `${bare} to draw` : describeHolds(list, length);
  const byFolder = (off: boolean, word: string) =>
    off && folder ? `${word} by its folder “${folder.name}”` : undefined;
  return (
    <RowFrame id={layer.id} name={layer.name} active={active} inside={folder !== undefined} kind="layer">
      {naming ? (
        <>
          <Dab layerId={layer.id} />
          <NameField
            label="Layer name"
            value={layer.name}
            onDone={(name) => {
              setNaming(false);
              if (name && name !== layer.name) changeLayer('layer name', layer, { name });
            }}
          />
        </>
      ) : (
        <WholeName name={layer.name}>
          <button
            type="button"
            aria-pressed={active}
            className={`flex h-[26px] min-w-0 flex-1 items-center gap-2 text-left ${isVisible(timed) ? '' : 'opacity-50'}`}
            onClick={() => {
              setSelection({ layerId: layer.id, selectedRuns: null });
            }}
            onDoubleClick={() => {
              setNaming(true);
            }}
            data-tip="Double-click to rename"
          >
            {layer.tag > 0 ? (
              <span className="absolute inset-y-1.5 left-0 w-[3px] rounded" style={{ background: TAGS[layer.tag] }} />
            ) : null}
            <Dab layerId={layer.id} />
            <span className={`truncate font-medium ${active ? 'text-wax-100' : 'text-wax-300'}`}>
              {nameWithin(layer, folder)}
            </span>
            <span className="shrink-0 text-[13px] text-wax-500">{layer.role}</span>
            <span
              className={`ml-auto flex shrink-0 items-center gap-1 text-[13px] ${bare > 0 ? 'text-warn' : 'text-wax-500'}`}
            >
              {tied ? (
                <span role="img" aria-label={`Tied in time to ${tied}`} data-tip={`Tied in time to ${tied}`}>
                  <Link2 size={13} />
                </span>
              ) : null}
              {holds}
            </span>
          </button>
        </WholeName>
      )}
      <Switch
        on={layer.locked}
        by={byFolder(!layer.locked && isLocked(timed), 'Locked')}
        label={layer.locked ? `Unlock ${layer.name}` : `Lock ${layer.name}`}
        title={layer.locked ? 'Unlock' : 'Lock'}
        quiet
        warn
        icon={isLocked(timed) ? <Lock size={14} /> : <LockOpen size={14} />}
        onClick={() => {
          changeLayer(layer.locked ? 'unlock layer' : 'lock layer', layer, { locked: !layer.locked });
        }}
      />
      <Switch
        on={layer.visible}
        by={byFolder(layer.visible && !isVisible(timed), 'Hidden')}
        label={layer.visible ? `Hide ${layer.name}` : `Show ${layer.name}`}
        title={layer.visible ? 'Hide' : 'Show'}
        icon={isVisible(timed) ? <Eye size={15} /> : <EyeOff size={15} />}
        onClick={() => {
          changeLayer(layer.visible ? 'hide layer' : 'show layer', layer, { visible: !layer.visible });
        }}
      />
    </RowFrame>
  );
});

export function FolderRow({ folder, open, onOpen }: { folder: Folder; open: boolean; onOpen: () => void }) {
  const [naming, setNaming] = useState(false);
  return (
    <>
      <RowFrame id={folder.id} name={folder.name} active={false} kind="folder">
        {naming ? (
          <NameField
            label="Folder name"
            value={folder.name}
            onDone={(name) => {
              setNaming(false);
              if (name && name !== folder.name) changeFolder('folder name', folder, { name });
            }}
          />
        ) : (
          <button
            type="button"
            aria-expanded={open}
            className={`flex h-[26px] min-w-0 flex-1 items-center gap-2 text-left ${folder.visible ? '' : 'opacity-50'}`}
            data-tip={`${folder.name} · click for its opacity, double-click to rename`}
            onClick={onOpen}
            onDoubleClick={() => {
              setNaming(true);
            }}
          >
            <FolderIcon size={16} className="mx-[7px] shrink-0 text-wax-500" />
            <span className="truncate font-medium text-wax-300">{folder.name}</span>
            <span className="ml-auto shrink-0 text-[13px] text-wax-500">
              {'keys' in folder.opacity
                ? 'fades'
                : folder.opacity.constant < 1
                  ? `${Math.round(folder.opacity.constant * 100)} %`
                  : folder.layers.length}
            </span>
          </button>
        )}
        <Switch
          on={folder.locked}
          label={folder.locked ? `Unlock ${folder.name}` : `Lock ${folder.name}`}
          title={folder.locked ? 'Unlock' : 'Lock'}
          quiet
          warn
          icon={folder.locked ? <Lock size={14} /> : <LockOpen size={14} />}
          onClick={() => {
            changeFolder(folder.locked ? 'unlock folder' : 'lock folder', folder, { locked: !folder.locked });
          }}
        />
        <Switch
          on={folder.visible}
          label={folder.visible ? `Hide ${folder.name}` : `Show ${folder.name}`}
          title={folder.visible ? 'Hide' : 'Show'}
          icon={folder.visible ? <Eye size={15} /> : <EyeOff size={15} />}
          onClick={() => {
            changeFolder(folder.visible ? 'hide folder' : 'show folder', folder, { visible: !folder.visible });
          }}
        />
      </RowFrame>
      {open ? <FolderSettingsRow folder={folder} /> : null}
    </>
  );
}
