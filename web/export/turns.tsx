/** Ranges to take away. */
import { shotOf, type ShotDocument } from '@tallow/core/document';

import type { ExportSettings } from '@tallow/core/formats';
import { elementLength, outerFrame, placedElements, nameOfUse } from '@tallow/core/timing';

/** Ranges of one turn of each cycle, and the whole shot: what one mostly wants to loop. */
export function Turns({
  doc,
  onTake,
}: {
  doc: ShotDocument;
  onTake: (range: Pick<ExportSettings, 'from' | 'to'>) => void;
}) {
  const { length } = shotOf(doc);
  const named = new Set<string>();
  const turns = placedElements(doc).flatMap(({ element, placement }) => {
    const turn = elementLength(doc, element);
    const [from, to] = [0, 1].map((each) => outerFrame({ ...placement, phase: 0 }, element, turn, 0, each)) as [
      number,
      number,
    ];
    const fits = element.time === 'cycle' && from >= 0 && to <= length && !named.has(nameOfUse(doc, placement));
    named.add(nameOfUse(doc, placement));
    return fits ? [{ label: `one turn of ${nameOfUse(doc, placement)}`, from, to }] : [];
  });
  return (
    <div className="!mt-2 flex flex-wrap gap-x-4 text-[13px]">
      {[{ label: 'whole shot', from: 0, to: length }, ...turns].map(({ label, from, to }) => (
        <button
          key={label}
          type="button"
          className="moves h-8 text-wax-300 underline decoration-soot-700 underline-offset-4 hover:text-wax-100"
          onClick={() => {
            onTake({ from, to });
          }}
        >
          {label}
        </button>
      ))}
    </div>
  );
}
