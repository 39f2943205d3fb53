/** What of the picture is taken: which layers, and how much of it. */
import type { Shot } from '@tallow/core/document';
import { EXPORT_LAYERS, type ExportCrop, type ExportSettings } from '@tallow/core/formats';
import { NumberField } from '../parts/number-field.tsx';
import { Check, Fold, SelectRow } from '../parts/panel.tsx';

const LAYERS: Readonly<Record<ExportSettings['layers'], string>> = {
  all: 'all of them',
  lines: 'lines only',
  'no lines': 'all but lines',
};

const SIDES = [
  { side: 'left', label: 'From left', min: 0 },
  { side: 'top', label: 'From top', min: 0 },
  { side: 'width', label: 'Width', min: 1 },
  { side: 'height', label: 'Height', min: 1 },
] as const satisfies readonly { side: keyof ExportCrop; label: string; min: number }[];

interface WhatIsInProps {
  readonly shot: Pick<Shot, 'width' | 'height'>;
  readonly settings: ExportSettings;
  readonly set: (more: Partial<ExportSettings>) => void;
}

export function WhatIsIn({ shot, settings, set }: WhatIsInProps) {
  const { layers, crop } = settings;
  const whole = { left: 0, top: 0, width: shot.width, height: shot.height };
  const now = crop ?? whole;
  const maxOf = (side: keyof ExportCrop): number =>
    ({
      left: shot.width - 1,
      top: shot.height - 1,
      width: shot.width - now.left,
      height: shot.height - now.top,
    })[side];
  const cropTo = (side: keyof ExportCrop, value: number): void => {
    const next = { ...now, [side]: value };
    // What no longer fits is cut.
    set({
      crop: {
        ...next,
        width: Math.min(next.width, shot.width - next.left),
        height: Math.min(next.height, shot.height - next.top),
      },
    });
  };
  return (
    <div>
      <SelectRow
        label="Layers"
        value={layers}
        options={EXPORT_LAYERS.map((value) => ({ value, label: LAYERS[value] }))}
        onChoose={(value) => {
          set({ layers: value as ExportSettings['layers'] });
        }}
      />
      <Fold label={crop ? `Cropped to ${crop.width} × ${crop.height}` : 'Crop'}>
        <Check
          label="Only a part of the picture"
          checked={crop !== null}
          onChange={(on) => {
            set({ crop: on ? whole : null });
          }}
        />
        {crop ? (
          <div className="grid grid-cols-4 gap-2 pt-1">
            {SIDES.map(({ side, label, min }) => (
              <NumberField
                key={`${side}${now[side]}`}
                label={label}
                value={now[side]}
                min={min}
                max={maxOf(side)}
                onTake={(value) => {
                  cropTo(side, value);
                }}
              />
            ))}
          </div>
        ) : null}
      </Fold>
    </div>
  );
}
