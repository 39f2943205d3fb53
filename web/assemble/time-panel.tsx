/** When a use is seen: where it begins, for how long, how fast, with which drawing; what is cut off, with its mends. */
import { find, OUTSIDES, SPEED_LIMITS, type Outside, type Placement } from '@tallow/core/document';
import { cutOfPlacement, setPlacements } from '@tallow/core/edit';
import { cutOffText, elementLength, meetingLength, seenFrames } from '@tallow/core/timing';
import { NumberField } from '../parts/number-field.tsx';
import { Fold, SelectRow, Small } from '../parts/panel.tsx';
import { edit } from '../shot/document.ts';
import { usesOn, type Level } from '../tools/place/placing.ts';

const OUTSIDE_WORDS: Readonly<Record<Outside, string>> = {
  nothing: 'nothing',
  first: 'its first drawing',
  last: 'its last drawing',
};

/** Frames after which all cycles of a level begin together again; null where fewer than two loop. */
function meetsAfter(level: Level): number | null {
  const turns = usesOn(level).flatMap(({ placement, element }) => {
    if (element.time !== 'cycle') return [];
    const { over, of } = placement.speed;
    const turn = elementLength(level.doc, element) * of;
    // The frames after which a whole number of turns has gone by a whole number of frames.
    return [turn / gcd(turn, over)];
  });
  return turns.length > 1 ? meetingLength(turns) : null;
}
const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

export function CutOffLine({ level, placement }: { level: Level; placement: Placement }) {
  const cut = level.holder ? null : cutOfPlacement(level.doc, placement.id);
  const element = find(level.doc, 'element', placement.elementId);
  if (!cut || !element) return null;
  return (
    <div className="my-1.5 border-l-2 border-warn px-3 py-1 text-[13px]" data-testid="cut">
      <p className="text-warn first-letter:uppercase">
        {cutOffText(cut, element.time === 'cycle')}, {cut.missing} missing.
      </p>
      <div className="flex flex-wrap gap-1.5 pt-1.5">
        {cut.mends.map(({ label, edit: mend }) => (
          <Small
            key={label}
            onClick={() => {
              edit(label.toLowerCase(), mend);
            }}
          >
            {label}
          </Small>
        ))}
      </div>
    </div>
  );
}

export function TimePanel({ level, placement }: { level: Level; placement: Placement }) {
  const element = find(level.doc, 'element', placement.elementId)!;
  const length = elementLength(level.doc, element);
  const isCycle = element.time === 'cycle';
  const set = (name: string, settings: Partial<Placement>): void => {
    edit(name, (doc) => setPlacements(doc, [placement.id], settings));
  };
  const seen = seenFrames(placement, element, length);
  const meets = meetsAfter(level);
  return (
    <div className="space-y-1 pb-2">
      <div className="grid grid-cols-3 gap-2 pt-1">
        <NumberField
          key={`start-${placement.start}`}
          label="Begins on frame"
          value={placement.start + 1}
          min={-9999}
          max={99_999}
          onTake={(frame) => {
            set('start', { start: frame - 1 });
          }}
        />
        <NumberField
          key={`lasts-${placement.lasts}-${seen}`}
          label="Seen for frames"
          value={seen === Infinity ? Math.max(1, level.length - placement.start) : seen}
          min={1}
          max={99_999}
          onTake={(lasts) => {
            set('how long it is seen', { lasts });
          }}
        />
        {isCycle ? (
          <NumberField
            key={`repeats-${placement.repeats}`}
            label="Turns (0: all)"
            value={placement.repeats ?? 0}
            min={0}
            max={9999}
            onTake={(turns) => {
              set('turns', { repeats: turns === 0 ? null : turns });
            }}
          />
        ) : null}
      </div>
      {placement.lasts !== null ? (
        <Small
          onClick={() => {
            set('how long it is seen', { lasts: null });
          }}
        >
          As long as it is
        </Small>
      ) : null}
      <CutOffLine level={level} placement={placement} />
      {(['before', 'after'] as const).map((side) => (
        <SelectRow
          key={side}
          label={side === 'before' ? 'Before it, seen' : 'After it, seen'}
          value={placement[side]}
          options={OUTSIDES.map((value) => ({ value, label: OUTSIDE_WORDS[value] }))}
          onChoose={(value) => {
            set(`what is seen ${side} it`, { [side]: value as Outside });
          }}
        />
      ))}
      <Fold label="Speed, first drawing">
        <div className="grid grid-cols-3 gap-2 pb-1">
          <NumberField
            key={`over-${placement.speed.over}`}
            label="Its frames"
            value={placement.speed.over}
            {...SPEED_LIMITS}
            onTake={(over) => {
              set('speed', { speed: { ...placement.speed, over } });
            }}
          />
          <NumberField
            key={`of-${placement.speed.of}`}
            label="to the shot’s"
            value={placement.speed.of}
            {...SPEED_LIMITS}
            onTake={(of) => {
              set('speed', { speed: { ...placement.speed, of } });
            }}
          />
          <NumberField
            key={`phase-${placement.phase}`}
            label="Begins with its"
            value={placement.phase + 1}
            min={1}
            max={length}
            onTake={(frame) => {
              set('first drawing', { phase: frame - 1 });
            }}
          />
        </div>
      </Fold>
      {meets ? (
        <p className="text-xs text-wax-500" data-testid="meets">
          All cycles here begin together again after {meets} frames.
        </p>
      ) : null}
    </div>
  );
}
