/** The settings of the selected path: its spacing, its stand-in, and what can be done with it. */
import { findAll, randomId, type Path } from '@tallow/core/document';
import { cutPath, deletePath, joinPaths, setPath, stampPath, type PathSettings } from '@tallow/core/edit';
import { dropNode, nodePoints, simplified } from '@tallow/core/plan';
import { Lock, Pause, Play, Plus, Trash2, Unlock } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { Button } from '../parts/button.tsx';
import { ITEM, Menu } from '../parts/menu.tsx';
import { NameField } from '../parts/name-field.tsx';
import { Slider } from '../parts/slider.tsx';
import { swatchOf, type Current } from '../selection/current.ts';
import { toolState } from '../hand/tool-state.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, endGesture, say } from '../shot/document.ts';
import { setPlanning, selectPlanned, usePlan } from './plan.ts';
import { Words } from '../parts/choice.tsx';
import { Heading, Line, SelectRow, Small } from '../parts/panel.tsx';
import { usePathFacts } from './path-mark.tsx';
import { playRow } from './row-player.ts';
import { SpacingRows, SpacingChart } from './spacing-chart.tsx';
import { StandInSettings } from './stand-in-settings.tsx';
import { useState } from 'react';

/** What the numbers of the row say. */
export function PathFacts({ path }: { path: Path }) {
  const { facts } = usePathFacts(path);
  return (
    <span className="truncate">
      <span className="text-wax-100">
        {path.name} · {path.ticks} ticks on {path.hold}s, frames {path.from + 1}–{path.from + path.ticks * path.hold}
      </span>
      <span className="ml-3 text-wax-500">
        steps {facts.smallest.toFixed(0)} to {facts.largest.toFixed(0)} px · largest {facts.inSizes.toFixed(1)} × its
        size
      </span>
      {facts.partAt === null ? null : (
        <span className="ml-3 text-warn">
          {facts.partAt + 1} to {facts.partAt + 2}: shapes no longer overlap
        </span>
      )}
    </span>
  );
}

export function PathPanel({ now, path }: { now: Current; path: Path }) {
  const spacing = usePlan((s) => s.spacing);
  const rowTick = usePlan((s) => s.rowTick);
  const node = usePlan((s) => s.node);
  const [naming, setNaming] = useState(false);
  const set = (name: string, settings: PathSettings, gesture?: string): void => {
    edit(name, (doc) => setPath(doc, path.id, settings), gesture);
  };
  const slide = (key: 'softStart' | 'softEnd' | 'ticks' | 'from', factor = 1, shift = 0) => ({
    value: path[key] * factor + shift,
    onMove: (value: number) => {
      set('spacing', { [key]: (value - shift) / factor }, `path-${path.id}-${key}`);
    },
    onDone: () => {
      endGesture();
    },
  });
  const others = findAll(now.doc, 'path', now.element.paths).filter((p) => p.id !== path.id && !p.closed);
  const stamp = (every: number): void => {
    const swatch = swatchOf(now.doc, toolState().swatchId);
    if (!swatch) {
      say('The palette is empty. Add a swatch to stamp with.');
      return;
    }
    let made = '';
    edit(`stamp ${path.name}`, (doc) => {
      const stamped = stampPath(doc, path.id, swatch.id, every, randomId);
      made = stamped.layerId;
      return stamped.doc;
    });
    setSelection({ layerId: made, frame: path.from, selectedRuns: null });
    say(
      `${Math.ceil(path.ticks / Math.max(1, Math.round(every / path.hold)))} drawings are stamped on a new layer, “${path.name}”.`,
    );
  };
  return (
    <>
      {naming ? (
        <NameField
          label="Path name"
          value={path.name}
          onDone={(name) => {
            setNaming(false);
            if (name && name !== path.name) set('path name', { name });
          }}
        />
      ) : (
        <Heading
          aside={
            <Words
              label="Spacing shown"
              value={spacing}
              choices={[
                { value: 'eased', label: 'Eased' },
                { value: 'flat', label: 'Flat' },
                { value: 'both', label: 'Both' },
              ]}
              onChoose={(value) => {
                setPlanning({ spacing: value });
              }}
            />
          }
        >
          <button
            type="button"
            data-tip="Click to rename"
            onClick={() => {
              setNaming(true);
            }}
          >
            {path.name}
          </button>
        </Heading>
      )}
      <SpacingChart path={path} />
      {spacing === 'both' ? <SpacingRows path={path} /> : null}
      <Slider label="Soft at start" unit="%" min={0} max={100} {...slide('softStart', 100)} />
      <Slider label="Soft at end" unit="%" min={0} max={100} {...slide('softEnd', 100)} />
      {path.slows.map((slow, i) => (
        <Slider
          key={slow.id}
          label={path.slows.length > 1 ? `Slow place ${i + 1}` : 'Slow place'}
          unit="%"
          min={0}
          max={100}
          title="How slow; only 100 % stops. Drag its mark along the path, and its edge for how wide."
          value={slow.amount * 100}
          onMove={(value) => {
            set(
              'slow place',
              { slows: path.slows.map((s) => (s.id === slow.id ? { ...s, amount: value / 100 } : s)) },
              `slow-${slow.id}`,
            );
          }}
          onDone={() => {
            endGesture();
          }}
        />
      ))}
      <Slider label="Ticks" min={2} max={96} {...slide('ticks')} />
      <Slider label="From frame" min={1} max={Math.max(48, now.length)} {...slide('from', 1, 1)} />
      <SelectRow
        label="A tick each"
        value={String(path.hold)}
        options={[1, 2, 3, 4].map((n) => ({
          value: String(n),
          label: n === 1 ? 'frame (on 1s)' : `${n} frames (on ${n}s)`,
        }))}
        onChoose={(value) => {
          set('path holds', { hold: Number(value) });
        }}
      />
      <div className="flex flex-wrap gap-1.5 py-1">
        <Small
          title="Slows what follows the path in one place"
          onClick={() => {
            set('slow place', { slows: [...path.slows, { id: randomId(), at: 0.5, width: 0.22, amount: 0.7 }] });
          }}
        >
          <Plus size={14} /> Slow place
        </Small>
        <Small
          whyNot={path.slows.length === 0 ? 'There is no slow place.' : null}
          onClick={() => {
            set('take slow place away', { slows: path.slows.slice(0, -1) });
          }}
        >
          Take it away
        </Small>
        <Small
          title="Ticks put by hand follow the ease again"
          whyNot={Object.keys(path.placed).length === 0 ? 'No tick has been put by hand.' : null}
          onClick={() => {
            set('free ticks', { placed: {} });
          }}
        >
          Free ticks
        </Small>
        <Menu
          label="More for this path"
          className="flex h-8 items-center rounded-lg bg-soot-800 px-2.5 text-[13px] text-wax-300 hover:bg-soot-700"
          trigger="More"
        >
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              set('simplify path', simplified(path, 24));
            }}
          >
            Simplify: fewer points, ticks keep their frames
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              if (node === null) say('Take one of its points first.');
              else set('take point away', { nodes: dropNode(path.nodes, node) });
              setPlanning({ node: null });
            }}
          >
            Take the chosen point away
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              const last = nodePoints(path.nodes).length - 1;
              if (node === null || (!path.closed && (node === 0 || node === last)))
                say('Take one of its inner points first: it comes apart there.');
              else edit('take path apart', (doc) => cutPath(doc, path.id, node, randomId));
              setPlanning({ node: null });
            }}
          >
            Take apart at the chosen point
          </DropdownMenu.Item>
          {path.closed
            ? null
            : others.map((other) => (
                <DropdownMenu.Item
                  key={other.id}
                  className={ITEM}
                  onSelect={() => {
                    edit('join paths', (doc) => joinPaths(doc, path.id, other.id));
                  }}
                >
                  Join with {other.name} at the nearest ends
                </DropdownMenu.Item>
              ))}
        </Menu>
        <span className="flex-1" />
        <Small
          title={path.locked ? 'Unlock' : 'Lock'}
          onClick={() => {
            set(path.locked ? 'unlock path' : 'lock path', { locked: !path.locked });
          }}
        >
          {path.locked ? <Lock size={14} /> : <Unlock size={14} />}
        </Small>
        <Small
          title="Delete this path; what was stamped stays"
          onClick={() => {
            edit('delete path', (doc) => deletePath(doc, path.id));
            selectPlanned(null);
          }}
        >
          <Trash2 size={14} />
        </Small>
      </div>
      <Line />
      <StandInSettings path={path} set={set} />
      <div className="flex gap-2 py-2">
        <Button
          className="flex-1"
          aria-pressed={rowTick !== null}
          onClick={() => {
            playRow(path.id);
          }}
        >
          {rowTick === null ? <Play size={15} /> : <Pause size={15} />} {rowTick === null ? 'Play the row' : 'Stop'}
        </Button>
        <Button
          look="primary"
          className="flex-1"
          onClick={() => {
            stamp(path.hold);
          }}
        >
          Stamp {path.ticks} drawings
        </Button>
      </div>
      <div className="flex items-center gap-1.5 pb-1 text-[13px] text-wax-500">
        Or stamp
        {[1, 2, 3].map((n) => (
          <Small
            key={n}
            whyNot={n < path.hold ? `Its ticks are ${path.hold} frames apart.` : null}
            onClick={() => {
              stamp(n);
            }}
          >
            on {n}s
          </Small>
        ))}
      </div>
    </>
  );
}
