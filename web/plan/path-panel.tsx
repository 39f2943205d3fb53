/** The settings of the selected path: its spacing, its stand-in, and what can be done with it. */
import type { Path } from '@tallow/core/document';
import { Pause, Play } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../parts/button.tsx';
import { Words } from '../parts/choice.tsx';
import { NameField } from '../parts/name-field.tsx';
import { Heading, Line, SelectRow, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import type { Current } from '../selection/current.ts';
import { endGesture } from '../shot/document.ts';
import { PathButtons } from './path-buttons.tsx';
import { changePath, stamp } from './path-edits.ts';
import { usePathFacts } from './path-mark.tsx';
import { setPlanning, usePlan } from './plan.ts';
import { playRow } from './row-player.ts';
import { SpacingRows, SpacingChart } from './spacing-chart.tsx';
import { StandInSettings } from './stand-in-settings.tsx';

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

/** Its name, which a press changes, and how its spacing is shown. */
function PathHeading({ path }: { path: Path }) {
  const spacing = usePlan((s) => s.spacing);
  const [naming, setNaming] = useState(false);
  if (naming)
    return (
      <NameField
        label="Path name"
        value={path.name}
        onDone={(name) => {
          setNaming(false);
          if (name && name !== path.name) changePath(path, 'path name', { name });
        }}
      />
    );
  return (
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
  );
}

function SlowPlaces({ path }: { path: Path }) {
  return path.slows.map((slow, i) => (
    <Slider
      key={slow.id}
      label={path.slows.length > 1 ? `Slow place ${i + 1}` : 'Slow place'}
      unit="%"
      min={0}
      max={100}
      title="How slow; only 100 % stops. Drag its mark along the path, and its edge for how wide."
      value={slow.amount * 100}
      onMove={(value) => {
        const slows = path.slows.map((s) => (s.id === slow.id ? { ...s, amount: value / 100 } : s));
        changePath(path, 'slow place', { slows }, `slow-${slow.id}`);
      }}
      onDone={() => {
        endGesture();
      }}
    />
  ));
}

function Spacing({ now, path }: { now: Current; path: Path }) {
  const slide = (key: 'softStart' | 'softEnd' | 'ticks' | 'from', factor = 1, shift = 0) => ({
    value: path[key] * factor + shift,
    onMove: (value: number) => {
      changePath(path, 'spacing', { [key]: (value - shift) / factor }, `path-${path.id}-${key}`);
    },
    onDone: () => {
      endGesture();
    },
  });
  return (
    <>
      <Slider label="Soft at start" unit="%" min={0} max={100} {...slide('softStart', 100)} />
      <Slider label="Soft at end" unit="%" min={0} max={100} {...slide('softEnd', 100)} />
      <SlowPlaces path={path} />
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
          changePath(path, 'path holds', { hold: Number(value) });
        }}
      />
    </>
  );
}

function Stamping({ now, path }: { now: Current; path: Path }) {
  const plays = usePlan((s) => s.rowTick !== null);
  return (
    <>
      <div className="flex gap-2 py-2">
        <Button
          className="flex-1"
          aria-pressed={plays}
          onClick={() => {
            playRow(path.id);
          }}
        >
          {plays ? <Pause size={15} /> : <Play size={15} />} {plays ? 'Stop' : 'Play the row'}
        </Button>
        <Button
          look="primary"
          className="flex-1"
          onClick={() => {
            stamp(now, path, path.hold);
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
              stamp(now, path, n);
            }}
          >
            on {n}s
          </Small>
        ))}
      </div>
    </>
  );
}

export function PathPanel({ now, path }: { now: Current; path: Path }) {
  const spacing = usePlan((s) => s.spacing);
  return (
    <>
      <PathHeading path={path} />
      <SpacingChart path={path} />
      {spacing === 'both' ? <SpacingRows path={path} /> : null}
      <Spacing now={now} path={path} />
      <PathButtons now={now} path={path} />
      <Line />
      <StandInSettings path={path} />
      <Stamping now={now} path={path} />
    </>
  );
}
