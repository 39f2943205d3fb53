/** Where a cycle would best be cut, and cutting it there. */
import { randomId } from '@tallow/core/document';
import type { Join } from '@tallow/core/checks';
import { cutCycle } from '@tallow/core/edit';
import { Small } from '../parts/panel.tsx';
import type { Current } from '../selection/current.ts';
import { setSelection } from '../selection/selection.ts';
import { edit } from '../shot/document.ts';
import { goTo } from '../playback/playhead.ts';
import type { SeamNow } from './seam.ts';
import { withDrawings } from '../saving/drawings.ts';

export function Joins({ now, seam }: { now: Current; seam: SeamNow }) {
  const good = seam.joins.filter(({ first, last }) => first > 0 || last < seam.drawings.length - 1);
  if (good.length === 0) return null;
  const end = (index: number) => seam.frames[index + 1] ?? now.length;
  const cut = ({ first, last }: Join) => {
    const from = seam.frames[first]!;
    withDrawings(
      now.layers.flatMap(({ layer }) => Object.values(layer.slots)),
      () => {
        setSelection({ selectedRuns: null });
        edit('cut the cycle', (doc) => cutCycle(doc, now.element.id, from, end(last) - from, randomId));
        goTo(0);
      },
    );
  };
  return (
    <>
      <p className="pt-1 text-xs text-wax-500">Drawings that join best, on all layers:</p>
      {good.map((join) => (
        <div key={`${join.first}-${join.last}`} className="flex h-9 items-center gap-2 text-[13px] text-wax-300">
          <button
            type="button"
            className="moves min-w-0 flex-1 truncate rounded px-1 text-left hover:text-wax-100"
            data-tip="Look at it"
            onClick={() => {
              goTo(seam.frames[join.last]!);
            }}
          >
            frames {seam.frames[join.first]! + 1}–{end(join.last)}, step {Math.round(join.step.distance)} px
          </button>
          <Small
            title="Keeps these frames and lets the others go"
            whyNot={seam.stale ? 'It is being worked out anew.' : null}
            onClick={() => {
              cut(join);
            }}
          >
            Cut here
          </Small>
        </div>
      ))}
    </>
  );
}
