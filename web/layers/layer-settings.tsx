/** What can be set of a layer or a folder. */
import { BLENDS, LAYER_ROLES, valueAt, type Blend, type Folder, type Value } from '@tallow/core/document';
import { setFolder, setLayer } from '@tallow/core/edit';
import { roundOf, type TimedLayer } from '@tallow/core/timing';
import { useOfCurrent } from '../selection/current.ts';
import { selection, useSelection } from '../selection/selection.ts';
import { FolderMenu } from './folder-menu.tsx';
import { LayerMenu } from './layer-menu.tsx';
import { edit, endGesture } from '../shot/document.ts';
import { Select } from '../parts/select.tsx';

/** The standard's own names; `lighter` is what everybody calls add. */
const wordOf = (blend: Blend): string => (blend === 'lighter' ? 'add (lighter)' : blend);

function Opacity({ label, value, onSet }: { label: string; value: number; onSet: (opacity: number) => void }) {
  const percent = Math.round(value * 100);
  return (
    <label className="flex min-w-0 flex-1 items-center gap-1 text-[13px] text-wax-500" data-tip="Opacity">
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

const SELECT = 'h-8 shrink-0 rounded-md bg-soot-800 px-1.5 text-[13px]';

export function LayerSettingsRow({ timed, only }: { timed: TimedLayer; only: boolean }) {
  const { layer } = timed;
  const opacity = useOpacity(layer.opacity);
  const set = (name: string, settings: Parameters<typeof setLayer>[2], gesture?: string): void => {
    edit(name, (doc) => setLayer(doc, layer.id, settings), gesture);
  };
  return (
    <div className="mt-1 flex shrink-0 items-center gap-1.5 border-t border-soot-700 px-1 pt-1">
      <Select
        label="Role"
        title="Role"
        className={`${SELECT} w-[78px]`}
        value={layer.role}
        options={LAYER_ROLES.map((role) => ({ value: role, label: role }))}
        onChoose={(role) => {
          set('layer role', { role });
        }}
      />
      <Select
        label="Blend"
        title="How it meets what lies under it"
        className={`${SELECT} w-[82px]`}
        value={layer.blend}
        options={BLENDS.map((blend) => ({ value: blend, label: wordOf(blend) }))}
        onChoose={(blend) => {
          set('layer blend', { blend });
        }}
      />
      <Opacity
        label="Layer opacity"
        value={opacity}
        onSet={(next) => {
          const gesture = `opacity-${layer.id}`;
          edit('layer opacity', (doc) => setLayer(doc, layer.id, { opacity: next }, selection().frame), gesture);
        }}
      />
      <LayerMenu layer={layer} list={timed.list} only={only} />
    </div>
  );
}

/** What a value over time is where the playhead stands. Drawn anew only where that is another number. */
function useOpacity(value: Value): number {
  const round = useOfCurrent(({ element, length }) => roundOf(element, length)) ?? null;
  return useSelection((s) => valueAt(value, s.frame, round));
}

export function FolderSettingsRow({ folder }: { folder: Folder }) {
  const opacity = useOpacity(folder.opacity);
  return (
    <div className="ml-5 flex items-center gap-2 border-l border-soot-700 pl-3 pr-1">
      <Opacity
        label={`Opacity of ${folder.name}`}
        value={opacity}
        onSet={(next) => {
          const gesture = `opacity-${folder.id}`;
          edit('folder opacity', (doc) => setFolder(doc, folder.id, { opacity: next }, selection().frame), gesture);
        }}
      />
      <FolderMenu folder={folder} />
    </div>
  );
}
