/** One number of a use over its time: a dot sets it on this frame, from then on it changes; dragged or typed. */
import { EASES, keysIn, valueAt, type Placement } from '@tallow/core/document';
import { dropKey, setKey, setValue, valueOf, type LayerValue } from '@tallow/core/edit';
import { Words } from '../parts/panel.tsx';
import { KeyDot } from '../parts/key-dot.tsx';
import { Slider } from '../parts/slider.tsx';
import { edit, endGesture } from '../shot/document.ts';
import { changePicked } from '../tools/place/actions.ts';
import { placing } from '../tools/place/placing.ts';

interface ValueRowProps {
  placement: Placement;
  /** Frames since it began. */
  since: number;
  which: LayerValue;
  label: string;
  unit: string;
  least: number;
  most: number;
  /** What is seen for one of what is kept. */
  per: number;
}

/** What is kept of a place beside its value over time: where it stands. */
const baseOf = (placement: Placement, which: LayerValue): number =>
  which === 'x' ? placement.x : which === 'y' ? placement.y : 0;

export function ValueRow({ placement, since, which, label, unit, least, most, per }: ValueRowProps) {
  const value = valueOf(placement, which);
  const keys = keysIn(value);
  const here = keys.some(({ frame }) => frame === since);
  const name = label.toLowerCase();
  const base = baseOf(placement, which);
  const set = (shown: number): void => {
    const kept = shown / per - base;
    const gesture = `use-${which}-${placement.id}`;
    if ((which === 'x' || which === 'y') && keys.length === 0)
      changePicked(
        name,
        (each) => (each.id === placement.id ? { [which]: shown / per - valueAt(value, since, null) } : {}),
        gesture,
      );
    else
      edit(name, (doc) => placing().picked.reduce((next, id) => setValue(next, id, which, since, kept), doc), gesture);
  };
  const key = keys.find(({ frame }) => frame === since);
  const row = (
    <div className="flex items-center" data-value={which}>
      <KeyDot
        label={label}
        here={here}
        keyed={keys.length > 0}
        slim
        onPress={() => {
          edit(here ? `${name} not set here` : `${name} set here`, (doc) =>
            here ? dropKey(doc, placement.id, which, since) : setKey(doc, placement.id, which, since, null, 'soft'),
          );
        }}
      />
      <div className="min-w-0 flex-1 [&_span:first-child]:!w-[72px]">
        <Slider
          label={label}
          unit={unit}
          least={least}
          most={most}
          value={(base + valueAt(value, since, null)) * per}
          onMove={set}
          onDone={endGesture}
        />
      </div>
    </div>
  );
  if (!key) return row;
  return (
    <>
      {row}
      <div className="flex items-center justify-between pl-6 text-xs text-wax-500">
        goes on
        <Words
          label={`How ${label} goes on`}
          value={key.ease}
          words={EASES.map((ease) => ({ value: ease, label: ease }))}
          onChoose={(ease) => {
            edit(`${name} ${ease}`, (doc) => setKey(doc, placement.id, which, since, null, ease));
          }}
        />
      </div>
    </>
  );
}
