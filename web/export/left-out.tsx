/** What is seen while drawing and stays behind, by name; what is for work can come along. */
import type { ShotDocument } from '@tallow/core/document';
import { leftOut } from '@tallow/core/formats';
import { Check } from '../parts/panel.tsx';

export function LeftOutNotes({
  doc,
  work,
  onWork,
}: {
  doc: ShotDocument;
  work: boolean;
  onWork: (work: boolean) => void;
}) {
  const out = leftOut(doc);
  const named = (why: 'guide' | 'for work') =>
    out
      .filter((each) => each.why === why)
      .map(({ name }) => `“${name}”`)
      .join(', ');
  const [guides, forWork] = [named('guide'), named('for work')];
  return (
    <div className="space-y-1 text-[13px] text-wax-500" data-testid="left-out">
      {forWork ? (
        <>
          <p>
            {work ? 'For work, and let in: ' : 'Left out, as for work only: '}
            {forWork}.
          </p>
          <Check label="Let in what is for work" checked={work} onChange={onWork} />
        </>
      ) : null}
      <p>{guides ? `Guides stay behind: ${guides}.` : ''} Guides, the onion skin and the backdrop are never in it.</p>
    </div>
  );
}
