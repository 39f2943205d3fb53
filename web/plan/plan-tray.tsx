/** The tray of the Plan step: what to plan with, then what to start from, each as the engine lays it. */
import { randomId } from '@tallow/core/document';
import { addSketch } from '@tallow/core/edit';
import { STARTERS } from '@tallow/core/starters';
import { Brush, Crosshair, Grid3x3, Minus, MoreHorizontal, Pencil, Ruler, Slash, Spline, Triangle } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { ITEM, Menu } from '../parts/menu.tsx';
import { current } from '../selection/current.ts';
import { setSelection } from '../selection/selection.ts';
import { edit } from '../shot/document.ts';
import { layNew } from './standing.ts';
import { setPlanning, selectPlanned, takePlanTool, usePlan, type PlanTool } from './plan.ts';
import { Check } from '../parts/panel.tsx';
import { StarterPicture } from './starter-picture.tsx';

const TOOL =
  'moves flex h-[68px] w-[54px] shrink-0 flex-col items-center justify-end gap-1.5 rounded-[10px] pb-1.5 text-xs';

function ToolButton({
  tool,
  label,
  title,
  children,
}: {
  tool: PlanTool;
  label: string;
  title: string;
  children: ReactNode;
}) {
  const isActive = usePlan((s) => s.tool === tool);
  return (
    <button
      type="button"
      aria-pressed={isActive}
      data-tip={title}
      className={`${TOOL} ${isActive ? 'bg-flame-deep text-wax-100' : 'text-wax-500 hover:bg-soot-800'}`}
      onClick={() => {
        takePlanTool(tool);
      }}
    >
      <span className={isActive ? 'text-flame' : 'text-wax-300'}>{children}</span>
      {label}
    </button>
  );
}

const FIRST = STARTERS.filter(({ offered }) => offered === 'first');
const MORE = STARTERS.filter(({ offered }) => offered === 'more');

const GUIDES: readonly { tool: PlanTool; label: string; icon: ReactNode }[] = [
  { tool: 'level', label: 'Level: a floor or horizon', icon: <Minus size={16} /> },
  { tool: 'plumb', label: 'Plumb: a wall', icon: <Minus size={16} className="rotate-90" /> },
  { tool: 'line', label: 'Free line', icon: <Slash size={16} /> },
  { tool: 'grid', label: 'Grid in perspective', icon: <Grid3x3 size={16} /> },
];

const HINTS: Record<PlanTool, string> = {
  path: 'Draw the way it goes across the picture.',
  points: 'Set points; on the last again it ends, on the first it closes.',
  anchor: 'Set where the effect grows from.',
  base: 'Set a base for each tongue or part; then note what it does next.',
  level: 'Set it on a height: it stays exactly level.',
  plumb: 'Set it: it stays exactly plumb.',
  line: 'Drag from one point of the line to another.',
  grid: 'From the vanishing point drag to a square’s near corner.',
  form: 'Draw the outline of the stand-in.',
  foot: 'Draw the line the starter stands on.',
  stand: 'Press in the picture where it shall stand.',
};

function Hint() {
  const tool = usePlan((s) => s.tool);
  const draft = usePlan((s) => s.draft.length);
  const text =
    tool === 'points' && draft > 0
      ? `${draft} ${draft === 1 ? 'point' : 'points'}. On the last one again it ends, on the first it closes.`
      : tool
        ? HINTS[tool]
        : 'Draw a path, or choose what to start from. All that is laid is yours to redraw.';
  return <p className="min-w-0 flex-1 text-xs leading-[17px] text-wax-500">{text}</p>;
}

export function PlanTray() {
  const forShot = usePlan((s) => s.forShot);
  const guideTool = usePlan((s) => GUIDES.find((g) => g.tool === s.tool));
  const go = useNavigate();
  const sketch = (): void => {
    const now = current();
    if (!now) return;
    const found = now.layers.find(({ layer, list }) => layer.role === 'guide' && list.period === 1);
    let id = found?.layer.id ?? '';
    if (!found)
      edit('rough sketch', (doc) => {
        const added = addSketch(doc, now.element.id, randomId);
        id = added.layerId;
        return added.doc;
      });
    setSelection({ layerId: id, selectedRuns: null });
    // One sketches with the pen: that is Draw's.
    void go('../draw', { relative: 'path', replace: true });
  };
  return (
    <div
      className="flex h-[84px] shrink-0 items-center gap-1 border-t border-soot-700 bg-soot-900 px-2.5"
      data-testid="plan-tray"
    >
      <ToolButton tool="path" label="Path" title="Draw a path by hand">
        <Pencil size={22} strokeWidth={1.6} />
      </ToolButton>
      <ToolButton tool="points" label="Points" title="Set a path point by point">
        <Spline size={22} strokeWidth={1.6} />
      </ToolButton>
      <ToolButton tool="anchor" label="Anchor" title="Where the effect grows from">
        <Crosshair size={22} strokeWidth={1.6} />
      </ToolButton>
      <ToolButton tool="base" label="Base" title="Where each tongue or part grows from">
        <Triangle size={20} strokeWidth={1.6} />
      </ToolButton>
      <Menu
        label="Guide"
        align="start"
        className={`${TOOL} ${guideTool ? 'bg-flame-deep text-wax-100' : 'text-wax-500 hover:bg-soot-800'}`}
        trigger={
          <>
            <span className={guideTool ? 'text-flame' : 'text-wax-300'}>
              <Ruler size={22} strokeWidth={1.6} />
            </span>
            Guide
          </>
        }
      >
        {GUIDES.map(({ tool, label, icon }) => (
          <DropdownMenu.Item
            key={tool}
            className={ITEM}
            onSelect={() => {
              takePlanTool(tool);
            }}
          >
            {icon}
            {label}
          </DropdownMenu.Item>
        ))}
        <div className="px-2">
          <Check
            label="For the whole shot, throughout"
            checked={forShot}
            onChange={(on) => {
              setPlanning({ forShot: on });
            }}
          />
        </div>
      </Menu>
      <button
        type="button"
        data-tip="A faint layer for a rough sketch of the whole action: shown throughout, never exported"
        className={`${TOOL} text-wax-500 hover:bg-soot-800`}
        onClick={sketch}
      >
        <Brush size={21} strokeWidth={1.6} className="text-wax-300" />
        Sketch
      </button>
      <span className="mx-1 h-14 w-px shrink-0 bg-soot-700" />
      {FIRST.map((kind) => {
        const { effect } = kind;
        return (
          <button
            key={effect}
            type="button"
            data-tip={`${kind.name}: ${kind.says.toLowerCase()}`}
            className={`${TOOL} text-wax-300 hover:bg-soot-800 hover:text-wax-100`}
            onClick={() => {
              void layNew(effect);
            }}
          >
            <StarterPicture effect={effect} preset={kind.presets[0]!} width={50} height={42} />
            {kind.name}
          </button>
        );
      })}
      <Menu
        label="More starters"
        align="start"
        className={`${TOOL} !w-12 text-wax-500 hover:bg-soot-800`}
        trigger={
          <>
            <MoreHorizontal size={22} />
            More
          </>
        }
      >
        <DropdownMenu.Item
          className={`${ITEM} !h-auto py-1`}
          onSelect={() => {
            selectPlanned({ kind: 'reveal', id: 'reveal' });
          }}
        >
          <span className="grid h-8 w-11 place-items-center text-wax-300">
            <Spline size={20} />
          </span>
          <span>
            Reveal strokes
            <span className="block text-xs text-wax-500">A drawing’s strokes along their length, and away again</span>
          </span>
        </DropdownMenu.Item>
        {MORE.map((kind) => {
          const { effect } = kind;
          return (
            <DropdownMenu.Item
              key={effect}
              className={`${ITEM} !h-auto py-1`}
              onSelect={() => {
                void layNew(effect);
              }}
            >
              <StarterPicture effect={effect} preset={kind.presets[0]!} width={44} height={32} />
              <span>
                {kind.name}
                <span className="block text-xs text-wax-500">{kind.says}</span>
              </span>
            </DropdownMenu.Item>
          );
        })}
      </Menu>
      <span className="mx-1 h-14 w-px shrink-0 bg-soot-700" />
      <Hint />
    </div>
  );
}
