/** Pictures from outside, in the column: brought in, placed, faded, shown over a range, under or beside the picture. */
import { findAll, shotOf, type Plate } from '@tallow/core/document';
import { deletePlate, setPlate, type PlateSettings } from '@tallow/core/edit';
import { Eye, EyeOff, Lock, LockOpen, Trash2 } from 'lucide-react';
import { useRef } from 'react';
import { Line, Panel, Small } from '../../parts/panel.tsx';
import { showPanel } from '../../screen/panels.ts';
import { edit, useDocument } from '../../shot/document.ts';
import { ACCEPTED, bringIn, setReferences, stopBringing, useReferences } from '../../references/references.ts';
import { Settings } from './plate-settings.tsx';

const SQUARE =
  'moves grid size-8 shrink-0 place-items-center rounded-md text-wax-500 hover:bg-soot-800 hover:text-wax-100';

function Row({ plate, chosen }: { plate: Plate; chosen: boolean }) {
  const set = (name: string, settings: PlateSettings): void => {
    edit(name, (doc) => setPlate(doc, plate.id, settings));
  };
  return (
    <div
      className={`flex h-11 items-center gap-2 rounded-lg px-1.5 ${chosen ? 'bg-flame-deep/60' : ''}`}
      data-testid="plate"
    >
      <button
        type="button"
        aria-pressed={chosen}
        className="flex min-w-0 flex-1 items-center gap-2 text-left text-[13px]"
        onClick={() => {
          setReferences({ plateId: chosen ? null : plate.id });
        }}
      >
        <img
          src={`/api/assets/${plate.assets[0]!}`}
          alt=""
          className="h-8 w-11 shrink-0 rounded bg-soot-950 object-contain"
        />
        <span className="min-w-0 truncate">{plate.name}</span>
        <span className="shrink-0 text-xs text-wax-500">
          {plate.assets.length > 1 ? `${plate.assets.length} f` : ''}{' '}
          {plate.beside ? 'beside' : plate.guide ? 'guide' : plate.assets.length > 1 ? 'moves' : 'still'}
        </span>
      </button>
      <button
        type="button"
        aria-label={plate.visible ? `Hide ${plate.name}` : `Show ${plate.name}`}
        className={SQUARE}
        onClick={() => {
          set(plate.visible ? 'hide picture' : 'show picture', { visible: !plate.visible });
        }}
      >
        {plate.visible ? <Eye size={15} /> : <EyeOff size={15} />}
      </button>
      <button
        type="button"
        aria-label={plate.locked ? `Unlock ${plate.name}` : `Lock ${plate.name}`}
        className={SQUARE}
        onClick={() => {
          set(plate.locked ? 'unlock picture' : 'lock picture', { locked: !plate.locked });
        }}
      >
        {plate.locked ? <Lock size={14} /> : <LockOpen size={14} />}
      </button>
      <button
        type="button"
        aria-label={`Delete ${plate.name}`}
        className={SQUARE}
        onClick={() => {
          edit('delete picture', (doc) => deletePlate(doc, plate.id));
        }}
      >
        <Trash2 size={14} />
      </button>
    </div>
  );
}

export function ReferencesPanel() {
  const doc = useDocument((s) => s.doc);
  const { plateId, coming } = useReferences();
  const file = useRef<HTMLInputElement>(null);
  if (!doc) return null;
  const plates = findAll(doc, 'plate', shotOf(doc).plates);
  const plate = plates.find(({ id }) => id === plateId);
  return (
    <Panel
      label="References"
      testId="references"
      heading={<>References</>}
      onBack={() => {
        showPanel(null);
      }}
    >
      <input
        ref={file}
        type="file"
        multiple
        accept={ACCEPTED}
        className="hidden"
        data-testid="reference-file"
        onChange={(event) => {
          void bringIn([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      {coming ? (
        <div className="flex h-9 items-center gap-2 text-[13px] text-wax-300" role="status">
          <progress className="h-1.5 flex-1" max={coming.of} value={coming.done} />
          {coming.done} of {coming.of}
          <Small onClick={stopBringing}>Stop</Small>
        </div>
      ) : (
        <Small
          title="A still picture, numbered pictures or a zip of them, a video; or drop or paste them on the picture"
          onClick={() => {
            file.current?.click();
          }}
        >
          Bring in pictures…
        </Small>
      )}
      <div className="py-1">
        {plates.map((each) => (
          <Row key={each.id} plate={each} chosen={each.id === plateId} />
        ))}
      </div>
      {plates.length === 0 && !coming ? (
        <p className="text-[13px] text-wax-500">
          A look to aim for, a background, or a character’s frames to draw to. PNG, JPEG, WebP, SVG, GIF, video, or
          OpenRaster by its layers.
        </p>
      ) : null}
      {plate ? (
        <>
          <Line />
          <Settings doc={doc} plate={plate} />
        </>
      ) : null}
    </Panel>
  );
}
