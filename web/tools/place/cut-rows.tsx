/** What a thing of the shot is seen within, or hidden by. */
import { findAll, shotOf, type CutBy, type Id, type ShotDocument } from '@tallow/core/document';
import { labelOfUse } from '@tallow/core/timing';
import { Words } from '../../parts/choice.tsx';
import { Check, SelectRow } from '../../parts/panel.tsx';

/** Everything of the shot that can cut another thing: uses on planes, and plates. */
function cutters(doc: ShotDocument, but: Id): { value: Id; label: string }[] {
  const { planes, plates } = shotOf(doc);
  const onPlanes = findAll(doc, 'plane', planes).flatMap(({ placements }) => placements);
  const uses = findAll(doc, 'placement', onPlanes).map((placement) => ({
    value: placement.id,
    label: labelOfUse(doc, placement),
  }));
  const all = [...new Set([...plates, ...onPlanes])];
  const pictures = findAll(doc, 'plate', all).map(({ id, name }) => ({ value: id, label: name }));
  return [...uses, ...pictures].filter(({ value }) => value !== but);
}

interface CutRowsProps {
  doc: ShotDocument;
  id: Id;
  cut: CutBy | null;
  onChange: (name: string, cut: CutBy | null) => void;
}

export function CutRows({ doc, id, cut, onChange }: CutRowsProps) {
  const options = cutters(doc, id);
  // What cut it may have been taken away since: then nothing does.
  const by = options.some(({ value }) => value === cut?.by) ? cut : null;
  if (options.length === 0) return null;
  return (
    <>
      <SelectRow
        label="Cut by"
        value={by?.by ?? ''}
        options={[{ value: '', label: 'nothing' }, ...options]}
        onChoose={(value) => {
          onChange('cut', value ? { within: true, passed: false, ...cut, by: value } : null);
        }}
      />
      {by ? (
        <>
          <div className="flex h-8 items-center justify-between text-[13px] text-wax-300">
            It is seen
            <Words
              label="Where it is seen"
              value={by.within ? 'within' : 'beside'}
              choices={[
                { value: 'within', label: 'within that' },
                { value: 'beside', label: 'but for that' },
              ]}
              onChoose={(where) => {
                onChange('cut', { ...by, within: where === 'within' });
              }}
            />
          </div>
          <Check
            label="by all it has passed over so far"
            title="What passes uncovers it, or covers it, for good"
            checked={by.passed}
            onChange={(passed) => {
              onChange('cut by what has passed', { ...by, passed });
            }}
          />
        </>
      ) : null}
    </>
  );
}
