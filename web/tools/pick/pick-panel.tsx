/** What is picked up, in the column: by numbers, and all that can be done with it. */
import { useState } from 'react';
import { PieceName } from './piece-name.tsx';
import { ReachRow } from './reach-row.tsx';
import { SpreadRow } from './spread-row.tsx';
import { Words } from '../../parts/choice.tsx';
import { Check, Fold, Line, SelectRow, Small, Panel } from '../../parts/panel.tsx';
import { Slider } from '../../parts/slider.tsx';
import { shownNow, useCurrent } from '../../selection/current.ts';
import { useSelection } from '../../selection/selection.ts';
import { endGesture } from '../../shot/document.ts';
import {
  gestureName,
  mirrorPicked,
  pick,
  pickedCount,
  pickedMarks,
  pickUp,
  setPick,
  transformPicked,
  usePick,
  type Picking,
} from './pick.ts';
import { addOutline, addParallel, toLayer } from './actions.ts';
import { isOlder } from '@tallow/core/edit';
import type { Transform } from '@tallow/core/marks';
import { beginBend } from './bend-grid.tsx';
import { ActionWords } from '../../actions/action-button.tsx';
import { PICK_ACTIONS } from './actions.ts';
import { drawingsInHand } from '../../selection/in-hand.ts';
import { showPanel } from '../../screen/panels.ts';
import { RideRow } from '../point/ride-row.tsx';

const DEGREES = 180 / Math.PI;

/** Rows for the numbers of a transform, all counted from when the marks were picked up. */
const ROWS: readonly {
  key: keyof Transform;
  label: string;
  unit: string;
  min: number;
  max: number;
  shown: (value: number) => number;
  meant: (shown: number) => number;
}[] = [
  { key: 'x', label: 'Right', unit: 'px', min: -400, max: 400, shown: (v) => v, meant: (v) => v },
  { key: 'y', label: 'Down', unit: 'px', min: -400, max: 400, shown: (v) => v, meant: (v) => v },
  {
    key: 'scaleX',
    label: 'Width',
    unit: '%',
    min: -300,
    max: 300,
    shown: (v) => v * 100,
    meant: (v) => v / 100 || 1e-3,
  },
  {
    key: 'scaleY',
    label: 'Height',
    unit: '%',
    min: -300,
    max: 300,
    shown: (v) => v * 100,
    meant: (v) => v / 100 || 1e-3,
  },
  {
    key: 'angle',
    label: 'Turn',
    unit: '°',
    min: -180,
    max: 180,
    shown: (v) => v * DEGREES,
    meant: (v) => v / DEGREES,
  },
  { key: 'skew', label: 'Skew', unit: '°', min: -75, max: 75, shown: (v) => v * DEGREES, meant: (v) => v / DEGREES },
];

function Numbers() {
  const transform = usePick((s) => s.transform);
  const [gesture] = useState({ name: gestureName() });
  return (
    <>
      {ROWS.map(({ key, label, unit, min, max, shown, meant }) => (
        <Slider
          key={key}
          label={label}
          unit={unit}
          min={min}
          max={max}
          value={Math.round(shown(transform[key]) * 10) / 10}
          onMove={(value) => {
            transformPicked(label.toLowerCase(), { ...pick().transform, [key]: meant(value) }, gesture.name);
          }}
          onDone={() => {
            endGesture();
            gesture.name = gestureName();
          }}
        />
      ))}
    </>
  );
}

const PICKINGS: readonly { value: Picking; label: string; tip: string }[] = [
  { value: 'new', label: 'New', tip: 'Each pick begins anew' },
  { value: 'add', label: 'Add', tip: 'To what is picked up; or hold Shift' },
  { value: 'take', label: 'Take away', tip: 'From what is picked up; or hold Alt' },
];

/** Leaves bending: what is picked up is taken as it is now. */
function endBend(): void {
  pickUp(pick().sets);
}

function Bending() {
  const bend = usePick((s) => s.bend);
  return (
    <div className="flex items-center gap-1">
      <span className="w-[66px] shrink-0 text-[13px] text-wax-300">Bend</span>
      <Words
        label="Bend"
        value={String(bend ?? 0)}
        choices={[
          { value: '0', label: 'Off' },
          { value: '1', label: 'Four corners', tip: 'Each corner on its own' },
          { value: '3', label: 'Grid', tip: 'Sixteen points' },
        ]}
        onChoose={(cells) => {
          if (cells === '0') endBend();
          else beginBend(Number(cells));
        }}
      />
    </div>
  );
}

function Deeds() {
  return (
    <>
      <div className="flex flex-wrap gap-1 py-1">
        <Small
          title="Left to right"
          onClick={() => {
            mirrorPicked(true);
          }}
        >
          Mirror across
        </Small>
        <Small
          title="Top to bottom"
          onClick={() => {
            mirrorPicked(false);
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

/** What is done now and then. */
function Rarely() {
  const now = useCurrent();
  const [beside, setBeside] = useState(12);
  const [round, setRound] = useState(8);
  const others = now?.layers.filter(({ layer }) => layer.id !== now.active?.layer.id && !layer.locked) ?? [];
  return (
    <>
      <div className="flex flex-wrap gap-1 py-1">
        {(['toTop', 'up', 'down', 'toBottom'] as const).map((name) => (
          <ActionWords
            key={name}
            action={PICK_ACTIONS[name]}
            label={{ toTop: 'Top', up: 'Up', down: 'Down', toBottom: 'Bottom' }[name]}
          />
        ))}
        {(['joinStraight', 'joinArc', 'openLine'] as const).map((name) => (
          <ActionWords
            key={name}
            action={PICK_ACTIONS[name]}
            label={{ joinStraight: 'Join straight', joinArc: 'Join by an arc', openLine: 'Open' }[name]}
          />
        ))}
      </div>
      <div className="flex items-center gap-1">
        <div className="min-w-0 flex-1">
          <Slider
            label="Parallel line"
            unit="px"
            min={-120}
            max={120}
            value={beside}
            title="How far beside; below 0 on the other side"
            onMove={setBeside}
          />
        </div>
        <Small
          name="Add parallel line"
          title="A line beside each stroke picked up"
          onClick={() => {
            addParallel(beside);
          }}
        >
          Add
        </Small>
      </div>
      <div className="flex items-center gap-1">
        <div className="min-w-0 flex-1">
          <Slider
            label="Outline"
            unit="px"
            min={1}
            max={80}
            value={round}
            title="How wide a line round each shape is"
            onMove={setRound}
          />
        </div>
        <Small
          name="Add outline"
          title="A line round each shape picked up, in the palette’s outline swatch"
          onClick={() => {
            addOutline(Math.round(round));
          }}
        >
          Add
        </Small>
      </div>
      <Bending />
      <ActionWords action={PICK_ACTIONS.standIn} />
      <SelectRow
        label="To layer"
        value=""
        options={[
          { value: '', label: others.length > 0 ? 'choose' : 'there is no other' },
          ...others.map(({ layer }) => ({ value: layer.id, label: layer.name })),
        ]}
        onChoose={(id) => {
          if (id) toLayer(id);
        }}
      />
    </>
  );
}

/** What is picked up takes what is set in hand, and stays the same marks. */
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
  if (!pickedMarks().some(isOlder)) return null;
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
  const { sets, by, picking, cuts } = usePick();
  useSelection((s) => s.picked);
  useSelection((s) => s.frame);
  const count = pickedCount(sets);
  const drawings = drawingsInHand().length;
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
          <Numbers />
          <Deeds />
          <Takes />
          <OlderBrush />
          <PieceName />
          <Fold label="Order, joining, lines beside, bending, layers">
            <Rarely />
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
