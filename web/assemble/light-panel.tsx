/** The settings of a light: colour, strength, how far it reaches, what it follows, what it falls on. */
import {
  find,
  findAll,
  LIGHT_LIMITS,
  shotOf,
  valueAt,
  type Light,
  type LitThings,
  type Shot,
  type ShotDocument,
} from '@tallow/core/document';
import {
  dropLightKey,
  removeLight,
  setFallsOn,
  setLight,
  setLightKey,
  setLightValue,
  type LightValue,
} from '@tallow/core/edit';
import { lightTime, planeOf } from '@tallow/core/assembly';
import { labelOfUse } from '@tallow/core/timing';
import { Eye, EyeOff } from 'lucide-react';
import { Words } from '../parts/choice.tsx';
import { Check, Fold, SelectRow, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { useReadFrame } from '../playback/read-frame.ts';
import { edit, endGesture } from '../shot/document.ts';
import { selectLight } from '../tools/place/placing.ts';
import { KeyedRow, type Measure } from './keyed-row.tsx';
import { ThingButtons } from './thing-buttons.tsx';

const FAR = { min: -100_000, max: 100_000 } as const;

/** What of a light is dragged how far: over the picture's own size; farther is typed. */
const measuresFor = ({ width, height }: Pick<Shot, 'width' | 'height'>): Readonly<Record<LightValue, Measure>> => ({
  strength: { label: 'Strength', unit: '%', min: 0, max: 200, per: 100, typed: { min: 0, max: 400 } },
  radius: { label: 'Reaches', unit: 'px', min: 20, max: width, per: 1, typed: LIGHT_LIMITS.radius },
  x: { label: 'Across', unit: 'px', min: -width, max: width, per: 1, typed: FAR },
  y: { label: 'Down', unit: 'px', min: -height, max: height, per: 1, typed: FAR },
});

function ValueOfLight({
  measure,
  light,
  which,
  frame,
  round,
}: {
  measure: Measure;
  light: Light;
  which: LightValue;
  frame: number;
  round: number | null;
}) {
  const name = `light ${measure.label.toLowerCase()}`;
  return (
    <KeyedRow
      {...measure}
      which={which}
      value={light[which]}
      frame={frame}
      shown={valueAt(light[which], frame, round)}
      onSet={(to) => {
        edit(name, (doc) => setLightValue(doc, light.id, which, frame, to), `light-${light.id}-${which}`);
      }}
      onKey={(ease) => {
        edit(`${name} set here`, (doc) => setLightKey(doc, light.id, which, frame, round, ease));
      }}
      onDrop={() => {
        edit(`${name} not set here`, (doc) => dropLightKey(doc, light.id, which, frame));
      }}
    />
  );
}

interface LitRow {
  readonly thing: keyof LitThings;
  readonly id: string;
  readonly label: string;
  /** The plane it stands on. */
  readonly planeId: string | null;
}

/** What can be lit, plane by plane, and plates behind all of them. */
function litRows(doc: ShotDocument): LitRow[] {
  const planes = findAll(doc, 'plane', shotOf(doc).planes);
  const onPlanes = new Set(planes.flatMap(({ placements }) => placements));
  return [
    ...planes.flatMap(({ id, name, placements }): LitRow[] => [
      { thing: 'planes', id, label: `all on ${name}`, planeId: null },
      ...placements.flatMap((each): LitRow[] => {
        const placement = find(doc, 'placement', each);
        const plate = find(doc, 'plate', each);
        const element = find(doc, 'element', placement?.elementId);
        if (placement && element)
          return [{ thing: 'placements', id: each, label: labelOfUse(doc, placement), planeId: id }];
        return plate ? [{ thing: 'plates', id: each, label: plate.name, planeId: id }] : [];
      }),
    ]),
    ...findAll(doc, 'plate', shotOf(doc).plates)
      .filter(({ id }) => !onPlanes.has(id))
      .map(({ id, name }): LitRow => ({ thing: 'plates', id, label: name, planeId: null })),
  ];
}

/** What a light falls on without a choice, as chosen things. */
function everything(doc: ShotDocument, { sourceId }: Light): LitThings {
  const rows = litRows(doc);
  const of = (thing: keyof LitThings) =>
    rows.filter((row) => row.thing === thing && row.id !== sourceId).map(({ id }) => id);
  return { planes: [], placements: of('placements'), plates: of('plates') };
}

function FallsOn({ doc, light }: { doc: ShotDocument; light: Light }) {
  const all = everything(doc, light);
  const now = light.fallsOn ?? all;
  const count = now.planes.length + now.placements.length + now.plates.length;
  // What stands on a plane that is lit as a whole is not chosen by itself.
  const rows = litRows(doc).filter(({ planeId }) => planeId === null || !now.planes.includes(planeId));
  return (
    <Fold label={light.fallsOn ? `Falls on ${count} chosen things` : 'Falls on all but what it shines from'}>
      {rows.map(({ thing, id, label, planeId }) => (
        <div key={id} className={planeId ? 'pl-4' : ''}>
          <Check
            label={label}
            checked={now[thing].includes(id)}
            onChange={(on) => {
              edit('what a light falls on', (next) => setFallsOn(next, light.id, thing, id, on, all));
            }}
          />
        </div>
      ))}
      {light.fallsOn ? (
        <Small
          onClick={() => {
            edit('what a light falls on', (next) => setLight(next, light.id, { fallsOn: null }));
          }}
        >
          All but what it shines from
        </Small>
      ) : null}
    </Fold>
  );
}

export function LightPanel({ doc, light }: { doc: ShotDocument; light: Light }) {
  const shotFrame = useReadFrame((s) => s.frame);
  const { id, visible, sourceId } = light;
  const time = lightTime(doc, light, shotFrame);
  const measures = measuresFor(shotOf(doc));
  const plane = sourceId ? planeOf(doc, sourceId) : find(doc, 'plane', light.planeId);
  const swatches = findAll(doc, 'swatch', shotOf(doc).swatches);
  const set = (name: string, settings: Parameters<typeof setLight>[2], gesture?: string): void => {
    edit(name, (next) => setLight(next, id, settings), gesture);
  };
  const slider = (
    label: string,
    title: string,
    unit: string,
    [min, max]: readonly [number, number],
    field: 'follows' | 'smooth' | 'dies' | 'reach' | 'side',
    per = 1,
    step = 1,
  ) => (
    <Slider
      label={label}
      title={title}
      unit={unit}
      min={min}
      max={max}
      step={step}
      value={light[field] * per}
      onMove={(to) => {
        set(label.toLowerCase(), { [field]: to / per }, `light-${id}-${field}`);
      }}
      onDone={endGesture}
    />
  );
  return (
    <section aria-label="Light" data-testid="light-panel" className="pb-2">
      <div className="flex items-center justify-between gap-1">
        <h2 className="font-name min-w-0 flex-1 truncate text-[17px]" data-tip={light.name}>
          {light.name}
        </h2>
        <ThingButtons
          thing="light"
          toggle={{
            label: visible ? 'Put the light out' : 'Light it again',
            icon: visible ? Eye : EyeOff,
            onPress: () => {
              set(visible ? 'put a light out' : 'light again', { visible: !visible });
            },
          }}
          onTakeAway={() => {
            edit('take a light away', (next) => removeLight(next, id));
            selectLight(null);
          }}
          onAll={() => {
            selectLight(null);
          }}
        />
      </div>
      <p className="truncate text-xs text-wax-500">on the plane {plane?.name ?? ''}</p>
      <SelectRow
        label="Colour"
        value={light.swatch}
        options={swatches.map(({ id: each, name }) => ({ value: each, label: name }))}
        onChoose={(swatch) => {
          set('colour of a light', { swatch });
        }}
      />
      {(['strength', 'radius'] as const).map((which) => (
        <ValueOfLight key={which} measure={measures[which]} light={light} which={which} {...time} />
      ))}
      {sourceId
        ? slider(
            'Flickers with it',
            'How much of its strength goes by what is drawn: area times brightness',
            '%',
            [0, 100],
            'follows',
            100,
          )
        : null}
      {sourceId && light.follows > 0 ? slider('Smoothed over', 'Frames to each side', 'fr', [0, 24], 'smooth') : null}
      {slider('Side towards it', 'How much brighter bodies are on the side towards it', '%', [0, 100], 'side', 100)}
      <FallsOn doc={doc} light={light} />
      <Fold label="Where it is, how it dies away">
        {sourceId ? (
          <div className="flex h-8 items-center justify-between text-[13px] text-wax-300">
            Follows
            <Words
              label="Follows"
              value={light.at}
              choices={[
                { value: 'middle', label: 'what is drawn' },
                { value: 'anchor', label: 'the anchor' },
              ]}
              onChoose={(at) => {
                set('what a light follows', { at });
              }}
            />
          </div>
        ) : null}
        {(['x', 'y'] as const).map((which) => (
          <ValueOfLight key={which} measure={measures[which]} light={light} which={which} {...time} />
        ))}
        {slider('Dies away', '1 evenly, more the sooner', '', [1, 6], 'dies', 1, 0.1)}
        {slider('Half at a depth of', 'So far away in depth half of it is left', 'px', [50, 5000], 'reach', 1, 10)}
        <div className="flex h-8 items-center justify-between text-[13px] text-wax-300">
          Laid
          <Words
            label="How it is laid"
            value={light.blend}
            choices={[
              { value: 'screen', label: 'screen' },
              { value: 'add', label: 'add' },
            ]}
            onChoose={(blend) => {
              set('how a light is laid', { blend });
            }}
          />
        </div>
      </Fold>
    </section>
  );
}
