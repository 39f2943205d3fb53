/** What can be set of a layer or a folder. */
import {
  BLENDS,
  find,
  LAYER_ROLES,
  valueAt,
  type Blend,
  type Folder,
  type Layer,
  type LayerRole,
} from '@tallow/core/document';
import { deleteLayer, dissolveFolder, setFolder, setLayer } from '@tallow/core/edit';
import { roundOf, type TimedLayer } from '@tallow/core/timing';
import { starterOf } from '@tallow/core/starters';
import { FolderMinus, SlidersHorizontal, Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { useCurrent } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { LayerMenu } from './layer-menu.tsx';
import { edit, endGesture, say, useDocument } from '../shot/document.ts';
import { take } from '../plan/plan.ts';
import { act } from '../actions/action.ts';
import { LAYER_ACTIONS } from './actions.ts';
import { withDrawings } from '../saving/drawings.ts';

/** Colour marks for layers, apart from the onion skin's colours and the accent; the first is none. */
export const TAGS = ['transparent', '#c9776b', '#c7a35e', '#93a86a', '#6f9fb8', '#9a86b5', '#a89987'] as const;

/** The standard's own names; `lighter` is what everybody calls add. */
const wordOf = (blend: Blend): string => (blend === 'lighter' ? 'add (lighter)' : blend);

function Opacity({ label, value, onSet }: { label: string; value: number; onSet: (opacity: number) => void }) {
  const percent = Math.round(value * 100);
  return (
    <label className="flex min-w-0 flex-1 items-center gap-2 text-[13px] text-wax-500">
      Opacity
      <input
        type="range"
        aria-label={label}
        min={0}
        max={100}
        value={percent}
        className="h-8 min-w-0 flex-1 accent-flame"
        onChange={(event) => {
          onSet(Number(event.target.value) / 100);
        }}
        onPointerUp={endGesture}
        onKeyUp={endGesture}
      />
      <span className="w-11 text-right font-mono text-xs text-wax-100">{percent} %</span>
    </label>
  );
}

const SELECT = 'moves h-8 rounded-md bg-soot-800 px-1.5 text-[13px] text-wax-100';

/** Colour marks as dots, one step on by each click. */
function Tag({ layer, onSet }: { layer: Layer; onSet: (tag: number) => void }) {
  return (
    <button
      type="button"
      aria-label={`Colour mark ${layer.tag === 0 ? 'none' : layer.tag}`}
      title="Colour mark · click for the next"
      className="grid size-8 shrink-0 place-items-center rounded-md hover:bg-soot-800"
      onClick={() => {
        onSet((layer.tag + 1) % TAGS.length);
      }}
    >
      <span
        className={`size-3.5 rounded-full ${layer.tag === 0 ? 'border border-wax-500' : ''}`}
        style={{ background: TAGS[layer.tag] }}
      />
    </button>
  );
}

/** The way to the settings of the starter that laid a layer. */
function StarterLink({ layer }: { layer: Layer }) {
  const starter = useDocument((s) => (s.doc ? find(s.doc, 'starter', layer.starterId) : undefined));
  if (!starter) return null;
  const { name } = starterOf(starter.effect);
  return (
    <Link
      to="../plan"
      relative="path"
      replace
      title="Laid by a starter: its settings are in Plan"
      className="moves flex h-8 items-center gap-1.5 rounded-md px-1.5 text-[13px] text-wax-300 hover:bg-soot-800 hover:text-wax-100"
      onClick={() => {
        take({ kind: 'starter', id: starter.id });
      }}
    >
      <SlidersHorizontal size={14} /> Settings of {name}
    </Link>
  );
}

export function LayerSettingsRows({ timed, only }: { timed: TimedLayer; only: boolean }) {
  const { layer, list } = timed;
  const { frame, round } = useMoment();
  const set = (name: string, settings: Parameters<typeof setLayer>[2], gesture?: string): void => {
    edit(name, (doc) => setLayer(doc, layer.id, settings), gesture);
  };
  const remove = (): void => {
    if (only) {
      say('This is the only layer. Add another before deleting it.');
      return;
    }
    withDrawings(Object.values(layer.slots), () => {
      edit('delete layer', (doc) => deleteLayer(doc, layer.id));
    });
  };
  return (
    <div className="mt-1 shrink-0 border-t border-soot-700 px-1 pt-1.5">
      <div className="flex items-center gap-2">
        <select
          aria-label="Role"
          title="Role"
          className={SELECT}
          value={layer.role}
          onChange={(event) => {
            set('layer role', { role: event.target.value as LayerRole });
          }}
        >
          {LAYER_ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </select>
        <Opacity
          label="Layer opacity"
          value={valueAt(layer.opacity, frame, round)}
          onSet={(opacity) => {
            edit('layer opacity', (doc) => setLayer(doc, layer.id, { opacity }, frame), `opacity-${layer.id}`);
          }}
        />
      </div>
      <div className="flex items-center gap-1 text-[13px] text-wax-500">
        <select
          aria-label="Blend"
          title="How it meets what lies under it"
          className={`${SELECT} w-[92px]`}
          value={layer.blend}
          onChange={(event) => {
            set('layer blend', { blend: event.target.value as Blend });
          }}
        >
          {BLENDS.map((blend) => (
            <option key={blend} value={blend}>
              {wordOf(blend)}
            </option>
          ))}
        </select>
        <label
          className="flex h-8 items-center gap-1.5 whitespace-nowrap px-1"
          title="Shows its neighbours while it is drawn on"
        >
          <input
            type="checkbox"
            className="accent-flame"
            checked={layer.onion}
            onChange={(event) => {
              set(event.target.checked ? 'onion skin on layer' : 'no onion skin on layer', {
                onion: event.target.checked,
              });
            }}
          />
          onion skin
        </label>
        <label className="flex h-8 items-center gap-1.5 px-1" title="One drawing throughout, the one shown now">
          <input
            type="checkbox"
            className="accent-flame"
            checked={list.period === 1}
            onChange={() => {
              act(LAYER_ACTIONS.still);
            }}
          />
          still
        </label>
        <span className="ml-auto" />
        <LayerMenu layer={layer} />
        <Tag
          layer={layer}
          onSet={(tag) => {
            set('colour mark', { tag });
          }}
        />
        <button
          type="button"
          aria-label={`Delete ${layer.name}`}
          title="Delete this layer"
          onClick={remove}
          className="moves grid size-8 shrink-0 place-items-center rounded-md hover:bg-soot-800 hover:text-wax-100"
        >
          <Trash2 size={15} />
        </button>
      </div>
      <StarterLink layer={layer} />
    </div>
  );
}

/** The frame values are set at, and what they go round in. */
function useMoment(): { frame: number; round: number | null } {
  const now = useCurrent();
  const frame = useSelection((s) => s.frame);
  return { frame, round: now ? roundOf(now.element, now.length) : null };
}

export function FolderSettingsRow({ folder }: { folder: Folder }) {
  const { frame, round } = useMoment();
  return (
    <div className="ml-5 flex items-center gap-2 border-l border-soot-700 pl-3 pr-1">
      <Opacity
        label={`Opacity of ${folder.name}`}
        value={valueAt(folder.opacity, frame, round)}
        onSet={(opacity) => {
          edit('folder opacity', (doc) => setFolder(doc, folder.id, { opacity }, frame), `opacity-${folder.id}`);
        }}
      />
      <button
        type="button"
        aria-label={`Take ${folder.name} apart`}
        title="Take the folder away; its layers stay"
        onClick={() => {
          edit('take folder apart', (doc) => dissolveFolder(doc, folder.id));
        }}
        className="moves grid size-8 shrink-0 place-items-center rounded-md text-wax-500 hover:bg-soot-800 hover:text-wax-100"
      >
        <FolderMinus size={15} />
      </button>
    </div>
  );
}
