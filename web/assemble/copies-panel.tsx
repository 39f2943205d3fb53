/** Scattered copies of a use: how many, where, how different, by a seed; what a hand has touched stays. */
import { entitiesOf, find, randomId, shotOf, type Placement, type Scatter } from '@tallow/core/document';
import {
  copyIntoDepth,
  relayScatter,
  takeScatter,
  touchedCopies,
  whyNotIntoDepth,
  type ScatterSettings,
} from '@tallow/core/edit';
import { nextSeed } from '@tallow/core/geometry';
import { Dices } from 'lucide-react';
import { SelectRow, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { edit, endGesture } from '../shot/document.ts';
import { act } from '../actions/action.ts';
import { PLACE_ACTIONS } from '../tools/place/actions.ts';
import { setPlacing, usePlacing, type Level } from '../tools/place/placing.ts';

const DEGREES = 180 / Math.PI;

/** The scattering that a use is the source of, or a copy of. */
const scatterOf = (level: Level, placement: Placement): Scatter | undefined =>
  find(level.doc, 'scatter', placement.scatterId) ??
  entitiesOf(level.doc, 'scatter').find(({ sourceId }) => sourceId === placement.id);

export function CopiesPanel({ level, placement }: { level: Level; placement: Placement }) {
  const lasso = usePlacing((s) => s.lasso);
  const scatter = scatterOf(level, placement);
  const { width } = shotOf(level.doc);
  if (!scatter)
    return (
      <div className="flex flex-wrap gap-1.5 py-1">
        <Small
          title="Each out of step with the others, in places, sizes and turns of their own"
          onClick={() => {
            act(PLACE_ACTIONS.scatter);
          }}
        >
          Scatter three copies
        </Small>
        <Small
          title="Smaller and slower with depth, out of step"
          whyNot={whyNotIntoDepth(level.doc, placement.id)}
          onClick={() => {
            edit('copies into depth', (doc) => copyIntoDepth(doc, placement.id, randomId).doc);
          }}
        >
          One on each plane farther
        </Small>
        <p className="py-2 text-[13px] text-wax-500">
          One more is a drag of its bar with Ctrl, of the plus at its end, or in the picture with Alt.
        </p>
      </div>
    );
  const source = find(level.doc, 'placement', scatter.sourceId);
  const element = find(level.doc, 'element', source?.elementId);
  const isCycle = element?.time === 'cycle';
  const paths = element?.paths.flatMap((id) => find(level.doc, 'path', id) ?? []) ?? [];
  const change = (name: string, settings: Partial<ScatterSettings>): void => {
    edit(name, (doc) => relayScatter(doc, scatter.id, settings, randomId), `scatter-${scatter.id}-${name}`);
  };
  const touched = touchedCopies(level.doc, scatter);
  const slider = (
    label: string,
    unit: string,
    [min, max]: readonly [number, number],
    value: number,
    set: (value: number) => Partial<ScatterSettings>,
  ) => (
    <Slider
      key={label}
      label={label}
      unit={unit}
      min={min}
      max={max}
      value={value}
      onMove={(to) => {
        change(label.toLowerCase(), set(to));
      }}
      onDone={endGesture}
    />
  );
  const range = (
    label: string,
    unit: string,
    bounds: readonly [number, number],
    field: 'size' | 'turn' | 'speed',
    per: number,
  ) => [
    slider(`${label} at least`, unit, bounds, scatter[field].least * per, (v) => ({
      [field]: { least: v / per, most: Math.max(v / per, scatter[field].most) },
    })),
    slider(`${label} at most`, unit, bounds, scatter[field].most * per, (v) => ({
      [field]: { least: Math.min(v / per, scatter[field].least), most: v / per },
    })),
  ];
  return (
    <div className="pb-2" data-testid="copies">
      {slider('Copies', '', [1, 40], scatter.count, (count) => ({ count }))}
      {isCycle ? null : slider('Begin within', 'fr', [0, 120], scatter.over, (over) => ({ over }))}
      {scatter.region || scatter.pathId
        ? null
        : slider('Round about', 'px', [20, width], scatter.reach, (reach) => ({ reach }))}
      {range('Size', '%', [10, 300], 'size', 100)}
      {range('Turn', '°', [-180, 180], 'turn', DEGREES)}
      {range('Speed', '%', [25, 300], 'speed', 100)}
      {slider('Mirrored', '%', [0, 100], scatter.mirrored * 100, (v) => ({ mirrored: v / 100 }))}
      {paths.length > 0 ? (
        <SelectRow
          label="Lie along"
          value={scatter.pathId ?? ''}
          options={[{ value: '', label: 'no path' }, ...paths.map(({ id, name }) => ({ value: id, label: name }))]}
          onChoose={(pathId) => {
            change('where copies lie', { pathId: pathId || null });
          }}
        />
      ) : null}
      <div className="flex flex-wrap gap-1.5 py-1.5">
        <Small
          title="Another seed: other places, times and sizes"
          onClick={() => {
            change('another seed', { seed: nextSeed(scatter.seed) });
          }}
        >
          <Dices size={14} /> Others
        </Small>
        <Small
          pressed={lasso !== null}
          title="Draw round the place they are to lie in"
          onClick={() => {
            setPlacing({ lasso: lasso === null ? scatter.id : null });
          }}
        >
          Within a region
        </Small>
        {scatter.region ? (
          <Small
            onClick={() => {
              change('where copies lie', { region: null });
            }}
          >
            Round about
          </Small>
        ) : null}
        <Small
          title="Those a hand has changed stay"
          onClick={() => {
            edit('take copies away', (doc) => takeScatter(doc, scatter.id));
          }}
        >
          Take away
        </Small>
      </div>
      {lasso ? <p className="text-[13px] text-flame">Draw round the place they are to lie in.</p> : null}
      {touched > 0 ? <p className="text-xs text-wax-500">{`${touched} changed by hand and kept.`}</p> : null}
    </div>
  );
}
