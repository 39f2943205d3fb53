/** When what a starter lays begins, how long it lasts, how it is held, and the path it follows. */
import { find, findAll, type Phase, type Starter } from '@tallow/core/document';
import { Words } from '../parts/choice.tsx';
import { SelectRow } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import type { Current } from '../selection/current.ts';
import { layNow, preview } from './laying.ts';

/** Said where the element's phases end before what is laid by them does. */
function PhasesShort({ phases, end }: { phases: readonly Phase[]; end: number }) {
  const reach = phases.reduce((sum, { length }) => sum + length, 0);
  if (reach >= end) return null;
  return (
    <p className="text-[13px] text-warn">
      {reach === 0
        ? 'There are no phases yet: all of it is laid on 2s.'
        : `Phases end at frame ${reach}; after that it is laid on 2s.`}
    </p>
  );
}

export function StarterTime({ now, laid, starter }: { now: Current; laid: Starter; starter: Starter }) {
  return (
    <>
      <Slider
        label="Length"
        unit="fr"
        min={1}
        max={240}
        value={starter.length}
        onMove={(length) => {
          preview({ ...starter, length: Math.round(length) });
        }}
        onDone={(length) => {
          void layNow({ ...starter, length: Math.round(length) }, 'length');
        }}
      />
      <Slider
        label="From frame"
        min={1}
        max={240}
        value={starter.from + 1}
        onMove={(from) => {
          preview({ ...starter, from: Math.round(from) - 1 });
        }}
        onDone={(from) => {
          void layNow({ ...starter, from: Math.round(from) - 1 }, 'start');
        }}
      />
      <div className="flex h-9 items-center justify-between text-[13px] text-wax-300">
        Laid
        <Words
          label="Laid on"
          value={starter.hold === null ? 'phases' : String(starter.hold)}
          choices={[
            ...[1, 2, 3, 4].map((n) => ({ value: String(n), label: `on ${n}s` })),
            { value: 'phases', label: 'by phases', tip: 'Each phase’s own usual hold' },
          ]}
          onChoose={(value) => {
            void layNow({ ...laid, hold: value === 'phases' ? null : Number(value) }, 'holds');
          }}
        />
      </div>
      {starter.hold === null ? <PhasesShort phases={now.element.phases} end={starter.from + starter.length} /> : null}
    </>
  );
}

export function FollowedPath({ now, laid, starter }: { now: Current; laid: Starter; starter: Starter }) {
  const paths = findAll(now.doc, 'path', now.element.paths);
  return (
    <SelectRow
      label="Follows"
      value={starter.pathId ?? ''}
      options={[
        { value: '', label: paths.length > 0 ? 'nothing' : 'nothing: there is no path yet' },
        ...paths.map((p) => ({ value: p.id, label: p.name })),
      ]}
      onChoose={(id) => {
        const path = find(now.doc, 'path', id);
        void layNow(
          { ...laid, pathId: path?.id ?? null, ...(path ? { x: path.nodes[0]!, y: path.nodes[1]! } : {}) },
          'follow path',
        );
      }}
    />
  );
}
