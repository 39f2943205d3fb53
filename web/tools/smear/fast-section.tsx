/** The fast ones: all of a range smeared at once, each by its own speed, and how far this may stretch. */
import { REACHES } from '@tallow/core/document';
import { SMEARS } from '@tallow/core/smears';
import { Words } from '../../parts/choice.tsx';
import { SelectRow, Small } from '../../parts/panel.tsx';
import { smearingOf } from '../../smears/smear.ts';
import { Slider } from '../../parts/slider.tsx';
import type { Current } from '../../selection/current.ts';
import { selectedNow } from '../../selection/to-edit.ts';
import { useSelection } from '../../selection/selection.ts';
import { REACH_WORDS, setFraction, setSmearing, smearFast, stopFast, useFast, whyNotFast } from '../../smears/fast.ts';

export function FastSection({ now }: { now: Current }) {
  const { share, working } = useFast();
  useSelection((s) => s.selectedRuns);
  const piece = useSelection((s) => s.piece);
  const selected = selectedNow();
  const smearing = smearingOf(now);
  return (
    <>
      <div className="flex items-center justify-between text-[13px] text-wax-300">
        {piece === null ? 'It may stretch' : `${piece} may stretch`}
        <Words
          label="How far it may stretch"
          value={smearing.reach}
          choices={REACHES.map((value) => ({ value, label: REACH_WORDS[value] }))}
          onChoose={(reach) => {
            setSmearing({ reach });
          }}
        />
      </div>
      <SelectRow
        label="Usually by"
        value={smearing.form ?? ''}
        options={[
          { value: '', label: 'what was last used' },
          ...SMEARS.map(({ form, name }) => ({ value: form, label: name.toLowerCase() })),
        ]}
        onChoose={(form) => {
          setSmearing({ form: SMEARS.find((kind) => kind.form === form)?.form ?? null });
        }}
      />
      <Slider
        label="How much"
        title="Of what each drawing’s own speed asks for"
        unit="%"
        min={20}
        max={200}
        step={5}
        value={share * 100}
        onMove={(next) => {
          setFraction(next / 100, false);
        }}
        onDone={(next) => {
          setFraction(next / 100, true);
        }}
      />
      <div className="flex min-h-9 items-center gap-2">
        {working ? (
          <>
            <progress className="h-1.5 flex-1" value={working.done} max={working.of} />
            <span className="text-xs text-wax-500">
              {working.done} of {working.of}
            </span>
            <button type="button" className="text-[13px] text-flame underline" onClick={stopFast}>
              Stop
            </button>
          </>
        ) : (
          <Small
            title="Only where two steps or more in a row lose the form to the eye"
            whyNot={whyNotFast()}
            onClick={() => void smearFast()}
          >
            {selected && selected.count > 1 ? `Smear the fast ones of ${selected.count}` : 'Smear the fast ones'}
          </Small>
        )}
      </div>
    </>
  );
}
