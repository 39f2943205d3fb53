/** One number over time: a dot sets it on this frame, from then on it changes; dragged or typed; how it goes on in words. */
import { EASES, keysIn, type Ease, type Value } from '@tallow/core/document';
import { KeyDot } from '../parts/key-dot.tsx';
import { Words } from '../parts/choice.tsx';
import { Slider } from '../parts/slider.tsx';
import { endGesture } from '../shot/document.ts';

export interface Measure {
  readonly label: string;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  /** What is seen for one of what is kept. */
  readonly per: number;
  /** What may be typed, as it is seen, where that goes farther than what is dragged. */
  readonly typed?: { readonly min: number; readonly max: number };
}

interface KeyedRowProps extends Measure {
  /** What makes it one of its own. */
  readonly which: string;
  readonly value: Value;
  /** The frame it is looked at, in frames of what it belongs to. */
  readonly frame: number;
  /** What is shown, in what is kept. */
  readonly shown: number;
  readonly onSet: (kept: number) => void;
  readonly onKey: (ease: Ease) => void;
  readonly onDrop: () => void;
}

export function KeyedRow(props: KeyedRowProps) {
  const { which, label, unit, min, max, per, typed, value, frame, shown, onSet, onKey, onDrop } = props;
  const keys = keysIn(value);
  const key = keys.find((each) => each.frame === frame);
  return (
    <>
      <div className="flex items-center" data-value={which}>
        <KeyDot
          label={label}
          here={key !== undefined}
          keyed={keys.length > 0}
          slim
          onPress={() => {
            if (key) onDrop();
            else onKey('soft');
          }}
        />
        <div className="min-w-0 flex-1 [&_span:first-child]:!w-[72px]">
          <Slider
            label={label}
            unit={unit}
            min={min}
            max={max}
            {...(typed ? { typed } : {})}
            value={shown * per}
            onMove={(to) => {
              onSet(to / per);
            }}
            onDone={endGesture}
          />
        </div>
      </div>
      {key ? (
        <div className="flex items-center justify-between pl-6 text-xs text-wax-500">
          goes on
          <Words
            label={`How ${label} goes on`}
            value={key.ease}
            choices={EASES.map((ease) => ({ value: ease, label: ease }))}
            onChoose={onKey}
          />
        </div>
      ) : null}
    </>
  );
}
