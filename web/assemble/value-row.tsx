/** One number of a use over its time. */
import { keysIn, valueAt, type Placement } from '@tallow/core/document';
import { dropKey, setKey, setValue, valueOf, type LayerValue } from '@tallow/core/edit';
import { edit } from '../shot/document.ts';
import { changeSelectedUses } from '../tools/place/actions.ts';
import { placing } from '../tools/place/placing.ts';
import { KeyedRow, type Measure } from './keyed-row.tsx';

interface ValueRowProps extends Measure {
  placement: Placement;
  /** Frames since it began. */
  since: number;
  which: LayerValue;
}

/** What is kept of a place beside its value over time: where it stands. */
const baseOf = (placement: Placement, which: LayerValue): number =>
  which === 'x' ? placement.x : which === 'y' ? placement.y : 0;

export function ValueRow({ placement, since, which, ...measure }: ValueRowProps) {
  const value = valueOf(placement, which);
  const { id } = placement;
  const name = measure.label.toLowerCase();
  const base = baseOf(placement, which);
  const set = (shown: number): void => {
    const gesture = `use-${which}-${id}`;
    if ((which === 'x' || which === 'y') && keysIn(value).length === 0)
      changeSelectedUses(
        name,
        (each) => (each.id === id ? { [which]: shown - valueAt(value, since, null) } : {}),
        gesture,
      );
    else
      edit(
        name,
        (doc) => placing().selected.reduce((next, each) => setValue(next, each, which, since, shown - base), doc),
        gesture,
      );
  };
  return (
    <KeyedRow
      {...measure}
      which={which}
      value={value}
      frame={since}
      shown={base + valueAt(value, since, null)}
      onSet={set}
      onKey={(ease) => {
        edit(`${name} set here`, (doc) => setKey(doc, id, which, since, null, ease));
      }}
      onDrop={() => {
        edit(`${name} not set here`, (doc) => dropKey(doc, id, which, since));
      }}
    />
  );
}
