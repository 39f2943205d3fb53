/** A layer's own repeat, and when all repeats of its element meet. */
import { setRepeat } from '@tallow/core/edit';
import { meetingOf } from '@tallow/core/timing';
import { Small } from '../parts/panel.tsx';
import type { Current } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { whyNotTime } from './time-edits.ts';
import { NumberRow } from './number-row.tsx';

export function Repeats({ now }: { now: Current }) {
  const { active } = now;
  const meeting = meetingOf(now.doc, now.element);
  if (!active) return null;
  const { layer, list } = active;
  const own = list.period !== null && list.period > 1;
  const total = list.runs.reduce((sum, run) => sum + run.length, 0);
  return (
    <>
      <NumberRow
        key={`${layer.id}-${list.period}`}
        label={own ? `${layer.name} repeats every` : `Let ${layer.name} repeat every`}
        default={own ? list.period : Math.max(2, total)}
        min={2}
        max={10_000}
        verb="Repeat"
        whyNot={whyNotTime()}
        onDo={(n) => {
          edit('repeat of its own', (doc) => setRepeat(doc, layer.id, n));
        }}
      />
      {own ? (
        <Small
          onClick={() => {
            edit('runs with the element', (doc) => setRepeat(doc, layer.id, null));
          }}
        >
          Let it run with the element
        </Small>
      ) : null}
      {meeting.repeats.length > 0 ? (
        <p className="py-1 text-xs text-wax-500" data-testid="meeting">
          {meeting.repeats
            .map(({ timed, period, divides }) =>
              divides
                ? `${timed.layer.name} goes round ${meeting.turn / period} times in ${meeting.turn}.`
                : `${timed.layer.name}, ${period}, does not divide ${meeting.turn}.`,
            )
            .join(' ')}{' '}
          All meet again after {meeting.meets} frames.
        </p>
      ) : null}
    </>
  );
}
