/** Where the eye loses the form to the drawing shown, with what can be done about it; and what has grown too large or is held too long. */
import { settingsOf } from '@tallow/core/controls';
import { find, putEntities, type Smear } from '@tallow/core/document';
import { setHold as withHold } from '@tallow/core/timing';
import { rightAmount, smearOf, TOO_LARGE } from '@tallow/core/smears';
import { Small } from '../../parts/panel.tsx';
import { goTo } from '../../playback/playhead.ts';
import type { Current } from '../../selection/current.ts';
import { edit } from '../../shot/document.ts';
import { laySmearHere, relay, setSmear, smearDesk, smearingOf } from '../../smears/smear.ts';
import { setMeant, useVolume } from '../../smears/volume.ts';
import { layHere } from '../../time/between.ts';

/** Lays a smear of a kind here, of the amount that is right for its speed. */
function layAs(form: 'stretch' | 'trail', amount: number | null): void {
  const { settings } = smearDesk();
  const own = settingsOf(smearOf(form), settings[form] ?? {});
  setSmear({ form, settings: { ...settings, [form]: amount === null ? own : { ...own, amount } } });
  void laySmearHere();
}

export function OverlapLine({ now, slot, before }: { now: Current; slot: string | null; before: number | null }) {
  const lost = useVolume((s) => s.lost).filter(({ toSlot }) => toSlot === slot);
  const isMeant = slot !== null && now.element.meant.includes(slot);
  if (isMeant)
    return (
      <div className="flex min-h-8 items-center justify-between gap-2 text-[13px] text-wax-500">
        The jump to this drawing is meant.
        <Small
          onClick={() => {
            setMeant(slot, false);
          }}
        >
          It is not
        </Small>
      </div>
    );
  const [first] = lost;
  if (!first || slot === null) return null;
  const { reach } = smearingOf(now);
  const names = lost.flatMap(({ piece }) => piece ?? []);
  const who = names.length > 0 ? names.join(', ') : 'the form';
  return (
    <div className="py-1 text-[13px] text-wax-300" data-testid="overlap">
      <p>{`The eye loses ${who}: ${Math.round(first.overlap * 100)} % lies where it was.`}</p>
      <div className="flex flex-wrap gap-1.5 pt-1">
        <Small
          title="Drawn out until it overlaps where it was"
          whyNot={reach === 'stiff' ? 'This is stiff: it is not to be stretched.' : null}
          onClick={() => {
            layAs('stretch', Math.round(rightAmount(first, reach) * 100));
          }}
        >
          Stretch
        </Small>
        <Small
          onClick={() => {
            layAs('trail', null);
          }}
        >
          Trail
        </Small>
        <Small
          whyNot={before === null ? 'Nothing comes before it.' : null}
          onClick={() => {
            if (before === null) return;
            goTo(before);
            layHere();
          }}
        >
          In-between
        </Small>
        <Small
          title="It is left in peace"
          onClick={() => {
            setMeant(slot, true);
          }}
        >
          This is meant
        </Small>
      </div>
    </div>
  );
}

/** What of a smear is too much, with a mend of one press. */
export function TooMuch({ smear }: { smear: Smear }) {
  const { drawings, default: preset } = useVolume();
  const own = drawings.find(({ slot }) => slot === smear.slot);
  if (!own || preset === 0) return null;
  const times = own.area / preset;
  const isLarge = times > TOO_LARGE && smear.form === 'stretch';
  const isLong = own.hold > 1;
  if (!isLarge && !isLong) return null;
  return (
    <div className="flex min-h-8 flex-wrap items-center justify-between gap-2 text-[13px] text-warn">
      {isLarge ? `${times.toFixed(1)} times its own area.` : `Held for ${own.hold} frames.`}
      {isLarge ? (
        <Small
          title="Keeps its volume, and reaches back less far"
          onClick={() => {
            const amount = Math.max(5, Math.round((smear.settings['amount'] ?? 80) * (TOO_LARGE / times)));
            relay(smear.id, { settings: { ...smear.settings, volume: 100, amount } }, 'volume of the smear');
          }}
        >
          Less
        </Small>
      ) : (
        <Small
          title="One frame; the rest goes to the drawing that arrives"
          onClick={() => {
            edit('hold of the smear', (doc) => {
              const list = find(doc, 'runlist', find(doc, 'layer', smear.layerId)?.runListId);
              const at = list?.runs.findIndex(({ slot }) => slot === smear.slot) ?? -1;
              const next = list?.runs[at + 1];
              if (!list || at < 0) return doc;
              const short = withHold(list, at, 1);
              return putEntities(doc, next ? withHold(short, at + 1, next.length + own.hold - 1) : short);
            });
          }}
        >
          One frame
        </Small>
      )}
    </div>
  );
}
