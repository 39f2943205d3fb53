/** What is picked up, in the column: by numbers, and all that can be done with it. */
import { PieceName } from './piece-name.tsx';
import { RareRows } from './rare-rows.tsx';
import { ReachRow } from './reach-row.tsx';
import { SpreadRow } from './spread-row.tsx';
import { TransformRows } from './transform-rows.tsx';
import { Words } from '../../parts/choice.tsx';
import { Check, Fold, Line, Small, Panel } from '../../parts/panel.tsx';
import { shownNow, useCurrent } from '../../selection/current.ts';
import { useSelection } from '../../selection/selection.ts';
import { mirrorSelected, selectedCount, selectedMarks, setPick, usePick, type Picking } from './pick.ts';
import { isOlder } from '@tallow/core/edit';
import { ActionWords } from '../../actions/action-button.tsx';
import { PICK_ACTIONS } from './actions.ts';
import { drawingsToEdit } from '../../selection/to-edit.ts';
import { showPanel } from '../../screen/panels.ts';
import { RideRow } from '../point/ride-row.tsx';

const PICKINGS: readonly { value: Picking; label: string; tip: string }[] = [
  { value: 'new', label: 'New', tip: 'Each pick begins anew' },
  { value: 'add', label: 'Add', tip: 'To what is picked up; or hold Shift' },
  { value: 'take', label: 'Take away', tip: 'From what is picked up; or hold Alt' },
];

function Deeds() {
  return (
    <>
      <div className="flex flex-wrap gap-1 py-1">
        <Small
          title="Left to right"
          onClick={() => {
            mirrorSelected(true);
          }}
        >
          Mirror across
        </Small>
        <Small
          title="Top to bottom"
          onClick={() => {
            mirrorSelected(false);
          }}
        >
          Mirror down
        </Small>
        {(['duplicateMarks', 'copyMarks', 'cutMarks', 'deleteMarks'] as const).map((name) => (
          <ActionWords key={name} action={PICK_ACTIONS[name]} />
        ))}
      </div>
    </>
  );
}

/** What is picked up takes the settings of the pen, and stays the same marks. */
function Takes() {
  return (
    <div className="flex h-9 items-center gap-1 text-[13px] text-wax-300">
      <span className="mr-auto">It takes</span>
      {(['takeSwatch', 'takeWidth', 'takeTaper', 'takeBrush'] as const).map((name) => (
        <ActionWords
          key={name}
          action={PICK_ACTIONS[name]}
          label={{ takeSwatch: 'swatch', takeWidth: 'width', takeTaper: 'tapers', takeBrush: 'brush' }[name]}
        />
      ))}
    </div>
  );
}

/** Strokes keep the version of the brush they were drawn with until the newest is asked for. */
function OlderBrush() {
  usePick((s) => s.base);
  if (!selectedMarks().some(isOlder)) return null;
  return (
    <div className="flex h-9 items-center gap-1 text-[13px] text-wax-300">
      <span className="mr-auto">Drawn with an older brush</span>
      <ActionWords action={PICK_ACTIONS.renewBrush} label="newest brush" />
    </div>
  );
}

/** What is picked of the drawing shown rides on a followed point. */
function Riding() {
  const now = useCurrent();
  const frame = useSelection((s) => s.frame);
  const sets = usePick((s) => s.sets);
  const shown = now && shownNow(now, frame)?.drawingId;
  return now ? <RideRow now={now} marks={shown ? (sets[shown] ?? []) : []} /> : null;
}

export function PickPanel() {
  const sets = usePick((s) => s.sets);
  const by = usePick((s) => s.by);
  const picking = usePick((s) => s.picking);
  const cuts = usePick((s) => s.cuts);
  useSelection((s) => s.selectedRuns);
  useSelection((s) => s.frame);
  const count = selectedCount(sets);
  const drawings = drawingsToEdit().length;
  return (
    <Panel
      label="Pick up"
      testId="pick-panel"
      heading={
        <span data-testid="picked-count">
          {count === 0 ? 'Pick up' : `${count} ${count === 1 ? 'mark' : 'marks'}`}
          {drawings > 1 ? ` in ${drawings} drawings` : ''}
        </span>
      }
      onBack={() => {
        showPanel(null);
      }}
    >
      <div className="flex items-center">
        <Words
          label="Pick up by"
          value={by}
          choices={[
            { value: 'lasso', label: 'Lasso' },
            { value: 'box', label: 'Box' },
          ]}
          onChoose={(next) => {
            setPick({ by: next });
          }}
        />
        <span className="mx-1 h-4 w-px bg-soot-700" />
        <Words
          label="What a pick does"
          value={picking}
          choices={PICKINGS}
          onChoose={(next) => {
            setPick({ picking: next });
          }}
        />
      </div>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <Check
          label="Cut what it crosses"
          title="A lasso or box across a stroke splits it there"
          checked={cuts}
          onChange={(on) => {
            setPick({ cuts: on });
          }}
        />
      </div>
      <ReachRow />
      {drawings > 1 ? <SpreadRow /> : null}
      <div className="flex flex-wrap gap-1 py-1">
        {(['allMarks', 'swatchMarks', 'pasteMarks', 'letGo'] as const).map((name) => (
          <ActionWords
            key={name}
            action={PICK_ACTIONS[name]}
            label={{ allMarks: 'All', swatchMarks: 'This swatch', pasteMarks: 'Paste', letGo: 'Let go' }[name]}
          />
        ))}
      </div>
      {count > 0 ? (
        <>
          <Line />
          <TransformRows />
          <Deeds />
          <Takes />
          <OlderBrush />
          <PieceName />
          <Fold label="Order, joining, lines beside, bending, layers">
            <RareRows />
          </Fold>
          <Fold label="Ride on a point">
            <Riding />
          </Fold>
        </>
      ) : (
        <p className="py-2 text-[13px] text-wax-500">
          Tap a mark, or draw round some. With drawings picked on the wheel, all of them are worked on at once.
        </p>
      )}
    </Panel>
  );
}
