/** Which frames are taken away, how many a second, and how large. */
import { SHOT_LIMITS, type Shot } from '@tallow/core/document';
import { EXPORT_FORMATS, type ExportSettings } from '@tallow/core/formats';
import { NumberField } from '../parts/number-field.tsx';
import { Select } from '../parts/select.tsx';

const SCALES = [0.25, 0.5, 1, 2] as const;

interface RangeFieldsProps {
  readonly shot: Shot;
  readonly settings: ExportSettings;
  readonly set: (more: Partial<ExportSettings>) => void;
}

function Size({ shot, settings, set }: RangeFieldsProps) {
  return (
    <label className="block">
      <span className="mb-1 block text-xs text-wax-500">Size</span>
      <Select
        label="Size"
        className="field w-full"
        value={String(settings.scale)}
        options={SCALES.map((each) => ({
          value: String(each),
          label: `${each * 100} % · ${Math.round(shot.width * each)} × ${Math.round(shot.height * each)}`,
        }))}
        onChoose={(chosen) => {
          set({ scale: Number(chosen) });
        }}
      />
    </label>
  );
}

export function RangeFields({ shot, settings, set }: RangeFieldsProps) {
  const { format, from, to } = settings;
  const { rates, words } = EXPORT_FORMATS[format];
  const rate = settings.rate ?? shot.rate;
  return (
    <div className={`grid gap-2 ${rates ? 'grid-cols-[60px_60px_60px_1fr]' : 'grid-cols-[1fr_1fr_2.1fr]'}`}>
      <NumberField
        key={`f${from}`}
        label="From"
        title="The first frame"
        value={from + 1}
        min={1}
        max={to}
        onTake={(frame) => {
          set({ from: frame - 1 });
        }}
      />
      <NumberField
        key={`t${to}`}
        label="To"
        title="The last frame"
        value={to}
        min={from + 1}
        max={shot.length}
        onTake={(frame) => {
          set({ to: frame });
        }}
      />
      {rates ? (
        <NumberField
          key={`r${rate}`}
          label="Per second"
          title="Frames a second. It lasts as long; at another rate than the shot’s, frames are left out or come twice"
          value={rate}
          {...SHOT_LIMITS.rate}
          onTake={(next) => {
            set({ rate: next === shot.rate ? null : next });
          }}
        />
      ) : null}
      {words ? null : <Size shot={shot} settings={settings} set={set} />}
    </div>
  );
}
