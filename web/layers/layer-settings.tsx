/** What can be set of a layer or a folder. */
import { BLENDS, LAYER_ROLES, valueAt, type Blend, type Folder, type LayerRole } from '@tallow/core/document';
import { setFolder, setLayer } from '@tallow/core/edit';
import { roundOf, type TimedLayer } from '@tallow/core/timing';
import { useCurrent } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { FolderMenu } from './folder-menu.tsx';
import { LayerMenu } from './layer-menu.tsx';
import { edit, endGesture } from '../shot/document.ts';

/** The standard's own names; `lighter` is what everybody calls add. */
const wordOf = (blend: Blend): string => (blend === 'lighter' ? 'add (lighter)' : blend);

function Opacity({ label, value, onSet }: { label: string; value: number; onSet: (opacity: number) => void }) {
  const percent = Math.round(value * 100);
  return (
    <label className="flex min-w-0 flex-1 items-center gap-1 text-[13px] text-wax-500" title="Opacity">
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
      <span className="w-[42px] text-right font-mono text-xs text-wax-100">{percent} %</span>
    </label>
  );
}

const SELECT = 'moves h-8 rounded-md bg-soot-800 px-1.5 text-[13px] text-wax-100';

export function LayerSettingsRow({ timed, only }: { timed: TimedLayer; only: boolean }) {
  const { layer } = timed;
  const { frame, round } = useMoment();
  const set = (name: string, settings: Parameters<typeof setLayer>[2], gesture?: string): void => {
    edit(name, (doc) => setLayer(doc, layer.id, settings), gesture);
  };
  return (
    <div className="mt-1 flex shrink-0 items-center gap-1.5 border-t border-soot-700 px-1 pt-1">
      <select
        aria-label="Role"
        title="Role"
        className={`${SELECT} w-[78px]`}
        value={layer.role}
        onChange={(event) => {
          set('layer role', { role: event.target.value as LayerRole });
        }}
      >
        {LAYER_ROLES.map((role) => (
          <option key={role}>{role}</option>
        ))}
      </select>
      <select
        aria-label="Blend"
        title="How it meets what lies under it"
        className={`${SELECT} w-[82px]`}
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
      <Opacity
        label="Layer opacity"
        value={valueAt(layer.opacity, frame, round)}
        onSet={(opacity) => {
          edit('layer opacity', (doc) => setLayer(doc, layer.id, { opacity }, frame), `opacity-${layer.id}`);
        }}
      />
      <LayerMenu timed={timed} only={only} />
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
      <FolderMenu folder={folder} />
    </div>
  );
}
