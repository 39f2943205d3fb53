/** The camera: where it looks over the shot's time, a path it goes along, its shakes, the air between. */
import { findAll, shotOf, valueAt, ZOOM_LIMITS, type Shake, type Shot, type ShotDocument } from '@tallow/core/document';
import {
  CAMERA_VALUES,
  dropCameraKey,
  removeShake,
  setCamera,
  setCameraKey,
  setCameraPath,
  setShake,
  type CameraValue,
} from '@tallow/core/edit';
import { nextSeed } from '@tallow/core/geometry';
import { Dices, Trash2 } from 'lucide-react';
import { act } from '../actions/action.ts';
import { titleOf } from '../actions/key-text.ts';
import { Check, Line, SelectRow, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { setShowing, useShowing } from '../picture/showing.ts';
import { useReadFrame } from '../playback/read-frame.ts';
import { goToShotFrame } from '../playback/shot-time.ts';
import { edit, endGesture } from '../shot/document.ts';
import { CAMERA_ACTIONS } from '../tools/camera/actions.ts';
import { filmCamera } from '../tools/camera/filming.ts';
import { KeyedRow, type Measure } from './keyed-row.tsx';

const DEGREES = 180 / Math.PI;
const FAR = { min: -100_000, max: 100_000 } as const;

/** What of the camera is dragged how far: over the picture's own size to each side; farther is typed. */
const measuresFor = ({ width, height }: Pick<Shot, 'width' | 'height'>): Readonly<Record<CameraValue, Measure>> => ({
  x: { label: 'Across', unit: 'px', min: -width, max: width, per: 1, typed: FAR },
  y: { label: 'Down', unit: 'px', min: -height, max: height, per: 1, typed: FAR },
  zoom: {
    label: 'Zoom',
    unit: '%',
    min: 20,
    max: 400,
    per: 100,
    typed: { min: 100 * ZOOM_LIMITS.min, max: 100 * ZOOM_LIMITS.max },
  },
  angle: { label: 'Turn', unit: '°', min: -180, max: 180, per: DEGREES, typed: { min: -3600, max: 3600 } },
});

function CameraRow({ doc, which, frame }: { doc: ShotDocument; which: CameraValue; frame: number }) {
  const value = shotOf(doc).camera[which];
  const measure = measuresFor(shotOf(doc))[which];
  const name = `camera ${measure.label.toLowerCase()}`;
  return (
    <KeyedRow
      {...measure}
      which={which}
      value={value}
      frame={frame}
      shown={valueAt(value, frame, null)}
      onSet={(to) => {
        edit(name, (now) => setCamera(now, which, frame, to), `camera-${which}`);
      }}
      onKey={(ease) => {
        edit(`${name} set here`, (now) => setCameraKey(now, which, frame, ease));
      }}
      onDrop={() => {
        edit(`${name} not set here`, (now) => dropCameraKey(now, which, frame));
      }}
    />
  );
}

const SHAKE_FIELDS = [
  { field: 'lasts', label: 'Dies down in', unit: 'fr', min: 1, max: 96, per: 1 },
  { field: 'amount', label: 'Amount', unit: 'px', min: 0, max: 200, per: 1 },
  { field: 'turn', label: 'Turns', unit: '°', min: 0, max: 10, per: DEGREES },
  { field: 'frequency', label: 'Swings a second', unit: '', min: 1, max: 24, per: 1 },
] as const;

function ShakeCard({ shake, frame, isOpen }: { shake: Shake; frame: number; isOpen: boolean }) {
  const set = (settings: Partial<Shake>, gesture?: string): void => {
    edit('shake', (doc) => setShake(doc, shake.id, settings), gesture);
  };
  return (
    <section
      aria-label={`Shake from frame ${shake.from + 1}`}
      className="my-1 rounded-lg bg-soot-800 px-2 py-0.5"
      data-testid="shake"
    >
      <div className="flex h-8 items-center text-[13px]">
        <button
          type="button"
          className="moves flex-1 text-left text-wax-100"
          data-tip="Go to where it begins"
          onClick={() => {
            goToShotFrame(shake.from);
          }}
        >
          from frame {shake.from + 1}
        </button>
        <Small
          title="It begins at the playhead"
          whyNot={shake.from === frame ? 'It begins here.' : null}
          onClick={() => {
            set({ from: frame });
          }}
        >
          Here
        </Small>
        <Small
          name="Another shake"
          title="Another seed: it shakes another way"
          onClick={() => {
            set({ seed: nextSeed(shake.seed) });
          }}
        >
          <Dices size={14} />
        </Small>
        <Small
          name="Take the shake away"
          title="Take the shake away"
          onClick={() => {
            edit('take a shake away', (doc) => removeShake(doc, shake.id));
          }}
        >
          <Trash2 size={14} />
        </Small>
      </div>
      {isOpen
        ? SHAKE_FIELDS.map(({ field, label, unit, min, max, per }) => (
            <Slider
              key={field}
              label={label}
              unit={unit}
              min={min}
              max={max}
              step={field === 'turn' ? 0.1 : 1}
              value={shake[field] * per}
              onMove={(to) => {
                set({ [field]: to / per }, `shake-${shake.id}-${field}`);
              }}
              onDone={endGesture}
            />
          ))
        : null}
    </section>
  );
}

export function CameraPanel({ doc }: { doc: ShotDocument }) {
  const frame = useReadFrame((s) => s.frame);
  const safe = useShowing((s) => s.safe);
  const { camera } = shotOf(doc);
  const paths = findAll(doc, 'element', shotOf(doc).elements).flatMap((element) =>
    findAll(doc, 'path', element.paths).map(({ id, name }) => ({ value: id, label: `${element.name}, ${name}` })),
  );
  const shown = camera.shakes.toSorted((a, b) => a.from - b.from);
  // The one that shakes here, or began last.
  const open = shown.findLast(({ from }) => from <= frame) ?? shown[0];
  return (
    <section aria-label="Camera" data-testid="camera-panel" className="pb-2">
      <div className="flex items-center justify-between">
        <h2 className="font-name text-[17px]">Camera</h2>
        <Small
          title={titleOf(CAMERA_ACTIONS.film, 'Look through it again')}
          onClick={() => {
            filmCamera(false);
          }}
        >
          Look through it
        </Small>
      </div>
      {CAMERA_VALUES.map((which) => (
        <CameraRow key={which} doc={doc} which={which} frame={frame} />
      ))}
      <div className="flex flex-wrap gap-1.5 py-1">
        <Small
          title={titleOf(CAMERA_ACTIONS.keyCamera)}
          onClick={() => {
            act(CAMERA_ACTIONS.keyCamera);
          }}
        >
          Set all here
        </Small>
        <Small
          title={titleOf(CAMERA_ACTIONS.shake)}
          onClick={() => {
            act(CAMERA_ACTIONS.shake);
          }}
        >
          Shake from here
        </Small>
      </div>
      {paths.length > 0 ? (
        <SelectRow
          label="Goes along"
          value={camera.pathId ?? ''}
          options={[{ value: '', label: 'no path' }, ...paths]}
          onChoose={(pathId) => {
            edit('camera along a path', (now) => setCameraPath(now, pathId || null));
          }}
        />
      ) : null}
      <Check
        label="Safe areas"
        title={titleOf(CAMERA_ACTIONS.safe, 'What is seen everywhere: 93 % for what happens, 90 % for lettering')}
        checked={safe}
        onChange={(on) => {
          setShowing({ safe: on });
        }}
      />
      {shown.length > 0 ? <Line /> : null}
      {shown.map((shake) => (
        <ShakeCard key={shake.id} shake={shake} frame={frame} isOpen={shake === open} />
      ))}
    </section>
  );
}
