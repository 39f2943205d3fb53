/** The line under the buttons of time: what is picked, or what is worth a look. */
import { spanOf } from '@tallow/core/edit';
import { act } from '../actions/action.ts';
import { goTo } from '../playback/playhead.ts';
import { shownNow, type Current } from '../selection/current.ts';
import { selectedNow } from '../selection/to-edit.ts';
import { selection, setSelection, useSelection } from '../selection/selection.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { useFindings } from '../time/findings.ts';

/** What is picked, or what is worth a look: always one line, so that nothing jumps. */
export function StatusLine({ now }: { now: Current }) {
  const selected = useSelection((s) => s.selectedRuns);
  const frame = useSelection((s) => s.frame);
  const found = useFindings(now);
  const own = selected && selectedNow();
  if (own && now.active) {
    const { from, length } = spanOf(now.active.list, own, now.length);
    const first = from + 1;
    const last = now.element.time === 'cycle' ? ((first + length - 2) % now.length) + 1 : first + length - 1;
    return (
      <>
        <span data-testid="picked">
          {own.count === 1 ? '1 drawing' : `${own.count} drawings`} picked,{' '}
          {length === 1 ? `frame ${first}` : `frames ${first}–${last}`}
        </span>
        <button
          type="button"
          className="moves ml-auto rounded px-2 hover:text-wax-100"
          onClick={() => {
            act(TIME_ACTIONS.pickNone);
          }}
        >
          let go
        </button>
      </>
    );
  }
  // A drawing just added is empty because it is about to be drawn.
  const telling = found.filter((f) => !(f.kind === 'empty' && f.frame <= frame && shownHere(now, f.layerId, f.index)));
  const next = telling.find((f) => f.frame > frame) ?? telling[0];
  if (!next) return null;
  return (
    <button
      type="button"
      data-testid="finding"
      className="moves flex min-w-0 items-center gap-2 rounded px-1 text-left hover:text-wax-100"
      data-tip="Go there"
      onClick={() => {
        setSelection({ layerId: next.layerId, selectedRuns: null });
        goTo(next.frame);
      }}
    >
      <span className="size-1.5 shrink-0 rounded-full bg-warn" />
      <span className="truncate">{next.text}</span>
      {telling.length > 1 ? <span className="shrink-0 text-wax-500">and {telling.length - 1} more</span> : null}
    </button>
  );
}

const shownHere = (now: Current, layerId: string, index: number): boolean =>
  now.active?.layer.id === layerId && shownNow(now, selection().frame)?.exposure.index === index;
