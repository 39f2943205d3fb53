/** What of the picture is taken: which layers, and how much of it. */
import type { Shot } from '@tallow/core/document';
import { EXPORT_LAYERS, type ExportSettings } from '@tallow/core/formats';
import { NumberField } from '../parts/number-field.tsx';
import { Check, Fold, Select } from '../parts/panel.tsx';

const LAYERS: Readonly<Record<ExportSettings['layers'], string>> = {
  all: 'all of them',
  lines: 'lines only',
  'no lines': 'all but lines',
};

interface WhatIsInProps {
  readonly shot: Pick<Shot, 'width' | 'height'>;
  readonly settings: ExportSettings;
  readonly set: (more: Partial<ExportSettings>) => void;
}

export function WhatIsIn({ shot, settings, set }: WhatIsInProps) {
  const { layers, crop } = settings;
  const whole = { left: 0, top: 0, width: shot.width, height: shot.height };
  const { left, top, width, height } = crop ?? whole;
  const cropTo = (more: Partial<typeof whole>): void => {
    const next = { left, top, width, height, ...more };
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
      <Select
        label="Layers"
        value={layers}
        options={EXPORT_LAYERS.map((value) => ({ value, label: LAYERS[value] }))}
        onChoose={(value) => {
          set({ layers: value as ExportSettings['layers'] });
        }}
      />
      <Fold label={crop ? `Cropped to ${width} × ${height}` : 'Crop'}>
        <Check
          label="Only a part of the picture"
          checked={crop !== null}
          onChange={(on) => {
            set({ crop: on ? whole : null });
          }}
        />
        {crop ? (
          <div className="grid grid-cols-4 gap-2 pt-1">
            <NumberField
              key={`l${left}`}
              label="From left"
              value={left}
              least={0}
              most={shot.width - 1}
              onTake={(value) => {
                cropTo({ left: value });
              }}
            />
            <NumberField
              key={`t${top}`}
              label="From top"
              value={top}
              least={0}
              most={shot.height - 1}
              onTake={(value) => {
                cropTo({ top: value });
              }}
            />
            <NumberField
              key={`w${width}`}
              label="Width"
              value={width}
              least={1}
              most={shot.width - left}
              onTake={(value) => {
                cropTo({ width: value });
              }}
            />
            <NumberField
              key={`h${height}`}
              label="Height"
              value={height}
              least={1}
              most={shot.height - top}
              onTake={(value) => {
                cropTo({ height: value });
              }}
            />
          </div>
        ) : null}
      </Fold>
    </div>
  );
}
