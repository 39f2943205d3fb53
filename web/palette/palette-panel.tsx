/** The palette: the active swatch with its colour, where it is used, the whole palette, and the element in other swatches. */
import {
  find,
  findAll,
  randomId,
  shotOf,
  SWATCH_ROLES,
  textProblem,
  type ShotDocument,
  type Swatch,
} from '@tallow/core/document';
import {
  addSwatch,
  isUsed,
  mergeSwatch,
  moveSwatch,
  removeSwatches,
  replaceSwatch,
  setSwatch,
  usesOf,
} from '@tallow/core/edit';
import { ArrowLeft, ArrowRight, Plus, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Line, Panel, Small } from '../parts/panel.tsx';
import { swatchOf, useCurrent } from '../selection/current.ts';
import { setSelection } from '../selection/selection.ts';
import { useToolState } from '../hand/tool-state.ts';
import { edit, endGesture } from '../shot/document.ts';
import { showPanel } from '../screen/panels.ts';
import { noteColour, takeSwatch } from '../swatches/swatches.ts';

import { GradientSettings, gradientCss } from './gradient-settings.tsx';
import { withAllDrawings } from './all-drawings.ts';
import { PaletteTools } from './palette-tools.tsx';
import { Picker } from './picker.tsx';
import { RecolourSettings } from './recolour-settings.tsx';
import { Select } from '../parts/select.tsx';

/** The swatches to choose from, as chips of what they look like. */
function Chips({ doc, swatches, active }: { doc: ShotDocument; swatches: readonly Swatch[]; active: Swatch }) {
  const add = (): void => {
    let made = '';
    edit('add swatch', (each) => {
      const added = addSwatch(
        each,
        { name: `swatch ${swatches.length + 1}`, role: 'body', colour: active.colour },
        randomId,
      );
      made = added.swatchId;
      return added.doc;
    });
    takeSwatch(made);
  };
  return (
    <div className="flex flex-wrap gap-1 rounded-[10px] bg-surround p-2" role="group" aria-label="Swatches">
      {swatches.map((swatch) => (
        <button
          key={swatch.id}
          type="button"
          aria-pressed={swatch.id === active.id}
          aria-label={swatch.name}
          data-tip={`${swatch.name}, ${swatch.role}`}
          className={`h-8 w-9 rounded-md ${swatch.id === active.id ? 'ring-2 ring-flame ring-offset-2 ring-offset-surround' : ''}`}
          style={{ background: gradientCss(doc, swatch) }}
          onClick={() => {
            takeSwatch(swatch.id);
          }}
        />
      ))}
      <button
        type="button"
        aria-label="Add a swatch like this"
        data-tip="Add a swatch like this"
        className="moves grid h-8 w-9 place-items-center rounded-md text-wax-300 hover:bg-[#333]"
        onClick={add}
      >
        <Plus size={15} />
      </button>
    </div>
  );
}

function NameAndRole({ swatch, count, index }: { swatch: Swatch; count: number; index: number }) {
  const [name, setName] = useState(swatch.name);
  const problem = textProblem(name, 'The name');
  const move = (by: 1 | -1) => () => {
    edit('order of swatches', (doc) => moveSwatch(doc, swatch.id, index + by));
  };
  return (
    <div className="py-1.5">
      <div className="flex items-center gap-1.5">
        <input
          aria-label="Swatch name"
          className="field !h-8 min-w-0 flex-1 text-[13px]"
          value={name}
          aria-invalid={problem !== null}
          onChange={(e) => {
            setName(e.target.value);
          }}
          onBlur={() => {
            if (problem) setName(swatch.name);
            else if (name.trim() !== swatch.name)
              edit('swatch name', (doc) => setSwatch(doc, swatch.id, { name: name.trim() }));
          }}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Enter') event.currentTarget.blur();
          }}
        />
        <Select
          label="Swatch role"
          title={
            swatch.role === 'hole' ? 'What is painted in it cuts out what lies under it on its layer' : 'Swatch role'
          }
          className="h-8 rounded-md bg-soot-800 px-1.5 text-[13px]"
          value={swatch.role}
          options={SWATCH_ROLES.map((role) => ({ value: role, label: role === 'hole' ? 'hole: cuts out' : role }))}
          onChoose={(role) => {
            edit('swatch role', (doc) => setSwatch(doc, swatch.id, { role }));
          }}
        />
        <Small title="Earlier in the palette" whyNot={index > 0 ? null : 'It is the first.'} onClick={move(-1)}>
          <ArrowLeft size={14} />
        </Small>
        <Small title="Later in the palette" whyNot={index < count - 1 ? null : 'It is the last.'} onClick={move(1)}>
          <ArrowRight size={14} />
        </Small>
      </div>
      {problem ? <p className="pt-1 text-xs text-harm">{problem}</p> : null}
    </div>
  );
}

const many = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;

/** Where it is used, and another in its place. */
function Used({ doc, swatch, others }: { doc: ShotDocument; swatch: Swatch; others: readonly Swatch[] }) {
  const uses = useMemo(() => usesOf(doc, swatch.id), [doc, swatch.id]);
  const [by, setBy] = useState('');
  const target = others.find(({ id }) => id === by) ?? others[0];
  const rest = Object.entries(uses.others).map(([use, count]) => many(count, use));
  const used = uses.layers.length > 0 || rest.length > 0;
  const whyNot = target ? null : 'There is no other swatch.';
  return (
    <div>
      <p className="pt-1 text-[13px] text-wax-300" data-testid="swatch-used">
        {used ? 'Used' : 'Not used anywhere.'}
        {uses.layers.length > 0
          ? ` on ${many(uses.layers.length, 'layer')}, ${many(
              uses.layers.reduce((sum, { drawings }) => sum + drawings, 0),
              'drawing',
            )}`
          : ''}
        {rest.length > 0 ? `${uses.layers.length > 0 ? '; ' : ' by '}${rest.join(', ')}` : ''}
      </p>
      <div className="flex flex-wrap gap-1 py-1">
        {uses.layers.slice(0, 12).map(({ layerId, drawings }) => {
          const layer = find(doc, 'layer', layerId);
          return layer ? (
            <button
              key={layerId}
              type="button"
              data-tip="Go to this layer"
              className="moves h-7 rounded-md bg-soot-800 px-2 text-xs text-wax-300 hover:text-wax-100"
              onClick={() => {
                setSelection({ elementId: layer.elementId, layerId, selectedRuns: null });
              }}
            >
              {layer.name} <span className="font-mono text-wax-500">{drawings}</span>
            </button>
          ) : null;
        })}
      </div>
      <div className="flex items-center gap-1.5 text-[13px] text-wax-300">
        <Select
          label="Other swatch"
          className="h-8 min-w-0 flex-1 rounded-md bg-soot-800 px-1.5 text-[13px]"
          value={target?.id ?? ''}
          options={others.map(({ id, name }) => ({ value: id, label: name }))}
          onChoose={setBy}
        />
        <Small
          title="The other swatch in its place, everywhere; this one stays in the palette"
          whyNot={whyNot ?? (used ? null : 'It is not used anywhere.')}
          onClick={() => {
            withAllDrawings(() => {
              edit('replace swatch', (each) => replaceSwatch(each, swatch.id, target!.id));
            });
          }}
        >
          Replace
        </Small>
        <Small
          title="Everything painted with it takes the other, and it is gone"
          whyNot={whyNot}
          onClick={() => {
            withAllDrawings(() => {
              edit('merge swatches', (each) => mergeSwatch(each, swatch.id, target!.id));
              takeSwatch(target!.id);
            });
          }}
        >
          Merge
        </Small>
        <Small
          title="Take it out of the palette"
          whyNot={used ? 'It is used: replace or merge it.' : whyNot && 'The last swatch stays.'}
          onClick={() => {
            withAllDrawings(() => {
              edit('remove swatch', (each) => (isUsed(each, swatch.id) ? each : removeSwatches(each, [swatch.id])));
            });
          }}
        >
          <Trash2 size={14} />
        </Small>
      </div>
    </div>
  );
}

export function PalettePanel() {
  const now = useCurrent();
  const swatchId = useToolState((s) => s.swatchId);
  const swatch = now && swatchOf(now.doc, swatchId);
  if (!now || !swatch) return null;
  const swatches = findAll(now.doc, 'swatch', shotOf(now.doc).swatches);
  const others = swatches.filter(({ id }) => id !== swatch.id);
  return (
    <Panel
      label="Palette"
      testId="palette-panel"
      heading="Palette"
      onBack={() => {
        showPanel(null);
      }}
    >
      <Chips doc={now.doc} swatches={swatches} active={swatch} />
      <NameAndRole
        key={`${swatch.id}${swatch.name}`}
        swatch={swatch}
        count={swatches.length}
        index={swatches.indexOf(swatch)}
      />
      <Picker
        key={swatch.id}
        colour={swatch.colour}
        onMove={(colour) => {
          edit('swatch colour', (doc) => setSwatch(doc, swatch.id, { colour }), `colour-${swatch.id}`);
        }}
        onDone={() => {
          noteColour(swatch.colour);
          endGesture();
        }}
      />
      <GradientSettings doc={now.doc} swatch={swatch} />
      <Line />
      <Used doc={now.doc} swatch={swatch} others={others} />
      <Line />
      <RecolourSettings now={now} swatches={swatches} />
      <Line />
      <PaletteTools doc={now.doc} swatches={swatches} />
    </Panel>
  );
}
