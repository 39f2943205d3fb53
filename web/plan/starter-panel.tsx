/** The settings of the selected starter: previewed while they move, laid when they are let go. */
import { find, findAll, type Phase, type Starter } from '@tallow/core/document';
import { touchedOf } from '@tallow/core/derived';
import { deleteStarter, releaseStarter, setLayer } from '@tallow/core/edit';
import { settingsOf, type Control } from '@tallow/core/controls';
import { nextSeed } from '@tallow/core/geometry';
import { starterOf } from '@tallow/core/starters';
import { Dices, Eye, EyeOff, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../parts/button.tsx';
import { ControlRow } from '../parts/control-row.tsx';
import { Slider } from '../parts/slider.tsx';
import type { Current } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { dropPreview, layNow, preview } from './laying.ts';
import { selectPlanned, takePlanTool, usePlan } from './plan.ts';
import { Words } from '../parts/choice.tsx';
import { Heading, Line, SelectRow, Small } from '../parts/panel.tsx';
import { Presets } from './starter-presets.tsx';
import { withDrawings } from '../saving/drawings.ts';

function Setting({ starter, control }: { starter: Starter; control: Control }) {
  const { key, label, default: preset } = control;
  const withValue = (next: number): Starter => ({ ...starter, settings: { ...starter.settings, [key]: next } });
  return (
    <ControlRow
      control={control}
      value={starter.settings[key] ?? preset}
      onMove={(next) => {
        preview(withValue(next));
      }}
      onDone={(next) => {
        void layNow(withValue(next), label.toLowerCase());
      }}
    />
  );
}

function Outputs({ now, starter }: { now: Current; starter: Starter }) {
  const kind = starterOf(starter.effect);
  return (
    <div className="flex flex-wrap gap-1.5 py-1" role="group" aria-label="Layers laid">
      {find(now.doc, 'layer', starter.layers['balls']) ? (
        <Small
          title="Hides all but the balls it is built on, to draw the rest by hand"
          onClick={() => {
            edit('only the balls', (doc) =>
              Object.entries(starter.layers).reduce(
                (d, [key, id]) => setLayer(d, id, { visible: key === 'balls' }),
                doc,
              ),
            );
          }}
        >
          Only the balls
        </Small>
      ) : null}
      {kind.outputs.map(({ key, name }) => {
        const layer = find(now.doc, 'layer', starter.layers[key]);
        if (!layer) return null;
        return (
          <button
            key={key}
            type="button"
            aria-pressed={layer.visible}
            data-tip={layer.visible ? `Hide ${layer.name}` : `Show ${layer.name}`}
            className={`moves flex h-8 items-center gap-1.5 rounded-lg px-2 text-[12px] ${layer.visible ? 'bg-soot-800 text-wax-100' : 'text-wax-500 hover:bg-soot-800'}`}
            onClick={() => {
              edit(layer.visible ? 'hide layer' : 'show layer', (doc) =>
                setLayer(doc, layer.id, { visible: !layer.visible }),
              );
            }}
          >
            {layer.visible ? <Eye size={13} /> : <EyeOff size={13} />}
            {layer.name === name ? name.replace(`${kind.name} `, '') : layer.name}
          </button>
        );
      })}
    </div>
  );
}

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

export function StarterPanel({ now, starter: laid }: { now: Current; starter: Starter }) {
  const moving = usePlan((s) => s.moving);
  const laying = usePlan((s) => s.laying);
  const tool = usePlan((s) => s.tool);
  const [more, setMore] = useState(false);
  const starter = moving?.id === laid.id ? moving : laid;
  const kind = starterOf(starter.effect);
  const touched = touchedOf(now.doc, laid).length;
  const { mood } = now.element;
  const fitting = mood ? kind.moods?.[mood] : undefined;
  const paths = findAll(now.doc, 'path', now.element.paths);
  const shown = kind.controls.filter((c) => more || !c.more);
  return (
    <>
      <Heading
        aside={
          <span className="flex gap-1">
            <Small
              title="Another seed: the same settings, other shapes"
              onClick={() => {
                void layNow({ ...laid, seed: nextSeed(laid.seed) }, 'another seed');
              }}
            >
              <Dices size={14} /> <span className="max-w-16 truncate font-mono text-xs">{starter.seed}</span>
            </Small>
            <Small
              title="Delete it with everything it laid"
              onClick={() => {
                withDrawings(
                  Object.values(laid.laid)
                    .flat()
                    .map((each) => each.drawingId),
                  () => {
                    edit(`delete ${kind.name.toLowerCase()}`, (doc) => deleteStarter(doc, laid.id));
                    selectPlanned(null);
                  },
                );
              }}
            >
              <Trash2 size={14} />
            </Small>
          </span>
        }
      >
        {kind.name}
      </Heading>
      <div className="h-5 text-xs text-wax-500" data-testid="laying">
        {laying ? (
          <span className="flex items-center gap-2">
            <progress className="h-1.5 flex-1" value={laying.done} max={laying.of} />
            {laying.done} of {laying.of}
            <button type="button" className="text-flame underline" onClick={dropPreview}>
              Stop
            </button>
          </span>
        ) : (
          kind.says
        )}
      </div>
      <Presets starter={starter} />
      <Line />
      {shown.map((control) => (
        <Setting key={control.key} starter={starter} control={control} />
      ))}
      <div className="flex flex-wrap gap-1.5 py-1">
        {kind.controls.some((c) => c.more) ? (
          <Small
            onClick={() => {
              setMore(!more);
            }}
          >
            {more ? 'Fewer settings' : 'More settings'}
          </Small>
        ) : null}
        {kind.follows === 'line' ? (
          <Small
            title="Draw the line it stands on"
            onClick={() => {
              takePlanTool('foot');
            }}
          >
            {tool === 'foot' ? 'Draw it in the picture …' : 'Draw its base'}
          </Small>
        ) : null}
        {kind.follows === 'line' && now.element.bases.length > 1 ? (
          <Small
            title="Its foot runs through the bases, from left to right"
            onClick={() => {
              const bases = [...now.element.bases].sort((a, b) => a.x - b.x);
              const line = Float32Array.from(bases.flatMap((b) => [b.x - laid.x, b.y - laid.y]));
              void layNow({ ...laid, line }, 'stand on the bases');
            }}
          >
            Stand on the bases
          </Small>
        ) : null}
        {kind.follows === 'line' && starter.line ? (
          <Small
            onClick={() => {
              void layNow({ ...laid, line: null }, 'straight base');
            }}
          >
            Straight base
          </Small>
        ) : null}
        {fitting ? (
          <Small
            title="Takes the element’s mood as its setting"
            onClick={() => {
              void layNow(
                { ...laid, settings: settingsOf(kind, { ...laid.settings, ...fitting }) },
                `${mood!} ${kind.name.toLowerCase()}`,
              );
            }}
          >
            Make it {mood}
          </Small>
        ) : null}
      </div>
      <Line />
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
      {kind.follows === 'path' ? (
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
      ) : null}
      <Outputs now={now} starter={laid} />
      {touched > 0 ? (
        <div className="my-1 rounded-lg bg-soot-950 p-2 text-[13px] text-wax-300" data-testid="by-hand">
          {touched === 1 ? 'One drawing was' : `${touched} drawings were`} changed by hand and will be kept.
          <Button
            className="mt-1.5 !h-8"
            onClick={() => {
              void layNow(laid, 'lay over drawings by hand', 'lay over');
            }}
          >
            Lay over {touched === 1 ? 'it' : 'them'}
          </Button>
        </div>
      ) : null}
      <div className="pb-1">
        <Small
          title="Its layers become ordinary ones, and are not laid again"
          onClick={() => {
            edit('let go of starter', (doc) => releaseStarter(doc, laid.id));
            selectPlanned(null);
          }}
        >
          Let its layers go
        </Small>
      </div>
    </>
  );
}
