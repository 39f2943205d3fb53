/** How a change is spread over the drawings it is made to. */
import { Words } from '../../parts/choice.tsx';
import { Check } from '../../parts/panel.tsx';
import { growthPath } from './growth.ts';
import { pick, selectedCount, pickUp, setPick, usePick } from './pick.ts';

/** What is picked up is taken as it is now: what follows is spread in the new way. */
function anew(how: Partial<Pick<ReturnType<typeof pick>, 'spread' | 'byTicks'>>): void {
  setPick(how);
  if (selectedCount() > 0) pickUp(pick().sets);
}

export function SpreadRow() {
  const spread = usePick((s) => s.spread);
  const byTicks = usePick((s) => s.byTicks);
  const path = growthPath();
  return (
    <div className="flex flex-wrap items-center gap-x-1">
      <span className="w-[66px] shrink-0 text-[13px] text-wax-300">Change</span>
      <Words
        label="How a change is spread"
        value={spread}
        choices={[
          { value: 'same', label: 'all alike', tip: 'The same on every drawing' },
          { value: 'fades', label: 'fades', tip: 'The first and last drawings of the range change least' },
          { value: 'grows', label: 'grows', tip: 'From none on the first drawing to all of it on the last' },
        ]}
        onChoose={(next) => {
          anew({ spread: next });
        }}
      />
      {spread === 'grows' && path ? (
        <Check
          label={`by the ticks of ${path.name}`}
          title="Fast where the ticks of the path lie far apart, slow where they lie close"
          checked={byTicks}
          onChange={(on) => {
            anew({ byTicks: on });
          }}
        />
      ) : null}
    </div>
  );
}
