/** Afterwards: squash and settle, and a contact tried three ways. */
import type { Smear } from '@tallow/core/document';
import { Small } from '../../parts/panel.tsx';
import { contactThreeWays, layArrival, whyNotArrival, whyNotContact } from '../../smears/after.ts';

export function AfterSection({ smear }: { smear: Smear | null }) {
  return (
    <div className="flex flex-wrap gap-1.5 py-1">
      <Small
        title="The first frame of the drawing that arrives, flattened against where it came to"
        whyNot={whyNotArrival(smear)}
        onClick={() => {
          layArrival(smear, 'squash');
        }}
      >
        Squash on arrival
      </Small>
      <Small
        title="One drawing a little drawn out again, before it rests"
        whyNot={whyNotArrival(smear)}
        onClick={() => {
          layArrival(smear, 'settle');
        }}
      >
        One settle drawing
      </Small>
      <Small
        title="Without, with one drawing more, and stretched: kept as variants and played in turn"
        whyNot={whyNotContact()}
        onClick={contactThreeWays}
      >
        The contact three ways
      </Small>
    </div>
  );
}
