/** What is picked up, moved, scaled and turned by numbers. */
import type { Transform } from '@tallow/core/marks';
import { useState } from 'react';
import { Slider } from '../../parts/slider.tsx';
import { endGesture } from '../../shot/document.ts';
import { gestureName, pick, transformSelected, usePick } from './pick.ts';

const DEGREES = 180 / Math.PI;

/** Rows for the numbers of a transform, all counted from when the marks were picked up. */
const ROWS: readonly {
  key: keyof Transform;
  label: string;
  unit: string;
  min: number;
  max: number;
  shown: (value: number) => number;
  meant: (shown: number) => number;
}[] = [
  { key: 'x', label: 'Right', unit: 'px', min: -400, max: 400, shown: (v) => v, meant: (v) => v },
  { key: 'y', label: 'Down', unit: 'px', min: -400, max: 400, shown: (v) => v, meant: (v) => v },
  {
    key: 'scaleX',
    label: 'Width',
    unit: '%',
    min: -300,
    max: 300,
    shown: (v) => v * 100,
    meant: (v) => v / 100 || 1e-3,
  },
  {
    key: 'scaleY',
    label: 'Height',
    unit: '%',
    min: -300,
    max: 300,
    shown: (v) => v * 100,
    meant: (v) => v / 100 || 1e-3,
  },
  {
    key: 'angle',
    label: 'Turn',
    unit: '°',
    min: -180,
    max: 180,
    shown: (v) => v * DEGREES,
    meant: (v) => v / DEGREES,
  },
  { key: 'skew', label: 'Skew', unit: '°', min: -75, max: 75, shown: (v) => v * DEGREES, meant: (v) => v / DEGREES },
];

export function TransformRows() {
  const transform = usePick((s) => s.transform);
  const [gesture] = useState({ name: gestureName() });
  return (
    <>
      {ROWS.map(({ key, label, unit, min, max, shown, meant }) => (
        <Slider
          key={key}
          label={label}
          unit={unit}
          min={min}
          max={max}
          value={Math.round(shown(transform[key]) * 10) / 10}
          onMove={(value) => {
            transformSelected(label.toLowerCase(), { ...pick().transform, [key]: meant(value) }, gesture.name);
          }}
          onDone={() => {
            endGesture();
            gesture.name = gestureName();
          }}
        />
      ))}
    </>
  );
}
