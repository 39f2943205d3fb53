/** The timing of what is picked: holds, order, length, and what it is for. */
import { randomId, shotOf, type Pose } from '@tallow/core/document';
import { indicesOf, numberAnew, prepareSlots, setPose } from '@tallow/core/edit';
import { emptied, framesTyped, joinedEqual, repeatedRuns, stretchedTo, thinned } from '@tallow/core/timing';
import { useState } from 'react';
import { Words } from '../parts/choice.tsx';
import { Check, Fold, Line, Panel, Small } from '../parts/panel.tsx';
import { useCurrent } from '../selection/current.ts';
import { setSelection, useSelection } from '../selection/selection.ts';
import { setToolState, useToolState } from '../hand/tool-state.ts';
import { setScreen, useScreen } from '../screen/screen.ts';
import { edit } from '../shot/document.ts';
import { formOf } from './forms.ts';
import { showPanel } from '../screen/panels.ts';
import { change, layersToEdit, shownHere, stretchToEdit, whyNotStretch } from './stretch-edits.ts';
import { whyNotRuns, whyNotTime } from './time-edits.ts';
import { NumberRow } from './number-row.tsx';
import { ActionWords } from '../actions/action-button.tsx';
import { TIME_ACTIONS } from './actions.ts';
import { runsToEdit } from '../selection/to-edit.ts';
import { Holds } from './holds.tsx';

const POSES: readonly { value: Pose | 'none'; label: string }[] = [
  { value: 'key', label: 'key' },
  { value: 'breakdown', label: 'breakdown' },
  { value: 'none', label: 'in-between' },
];

export function TimingPanel() {
  const now = useCurrent();
  const together = useSelection((s) => s.together);
  const goesOn = useToolState((s) => s.goesOn);
  const pictures = useScreen((s) => s.sheetPictures);
  useSelection((s) => s.selectedRuns);
  useSelection((s) => s.frame);
  const [all, setAll] = useState(false);
  const stretch = stretchToEdit(all);
  const runs = runsToEdit();
  const list = now?.active?.list;
  const slot = runs && list?.runs[runs.first]?.slot;
  const pose = (slot && list?.poses[slot]) || 'none';
  const whyNot = all ? whyNotTime() : whyNotStretch();
  const times = now ? shownHere() : 0;
  const typed = (text: string): number => (now ? (framesTyped(text, shotOf(now.doc).rate) ?? NaN) : NaN);
  const deeds = [
    { label: 'Merge equal', title: 'Neighbours that show the same drawing become one hold', how: joinedEqual },
    {
      label: 'Leave a gap',
      title: 'Delete; their frames stay, empty',
      how: (each: Parameters<typeof emptied>[0]) => emptied(each, randomId),
    },
    { label: 'Pull together', title: 'Delete; what follows closes up', how: () => [] },
  ];
  return (
    <Panel
      label="Timing"
      testId="timing-panel"
      heading="Timing"
      onBack={() => {
        showPanel(null);
      }}
    >
      <div className="flex items-center justify-between">
        <Words
          label="What is changed"
          value={all ? 'all' : 'picked'}
          choices={[
            { value: 'picked', label: runs && runs.count > 1 ? `${runs.count} picked` : 'this one' },
            { value: 'all', label: 'whole layer' },
          ]}
          onChoose={(value) => {
            setAll(value === 'all');
          }}
        />
        <Check
          label="all layers"
          title="The same on every unlocked layer of the element"
          checked={together}
          onChange={(on) => {
            setSelection({ together: on });
          }}
        />
      </div>
      <Holds whole={all} />
      <NumberRow
        key={`stretch-${stretch?.length}`}
        label="Stretch to frames"
        read={typed}
        default={stretch?.length ?? 1}
        min={1}
        max={10_000}
        verb="Stretch"
        whyNot={whyNot}
        onDo={(n) => {
          change('stretch', (each) => stretchedTo(each, n), all);
        }}
      />
      <div className="flex h-9 items-center gap-1.5 text-[13px] text-wax-300">
        <span className="mr-auto">Hold, what follows moves</span>
        <ActionWords action={TIME_ACTIONS.shorter} label="Shorter" />
        <ActionWords action={TIME_ACTIONS.longer} label="Longer" />
      </div>
      <div className="flex h-9 items-center gap-1.5 text-[13px] text-wax-300">
        <span className="mr-auto">From the next, nothing moves</span>
        <ActionWords action={TIME_ACTIONS.rollBack} label="Give 1" />
        <ActionWords action={TIME_ACTIONS.rollOn} label="Take 1" />
      </div>
      <div className="flex h-9 items-center gap-1.5 text-[13px] text-wax-300">
        <span className="mr-auto" data-tip="Alt and drag its ring on the wheel does the same">
          Whole layer
        </span>
        <ActionWords action={TIME_ACTIONS.phaseBack} label="Earlier" />
        <ActionWords action={TIME_ACTIONS.phaseOn} label="Later" />
      </div>
      {times > 1 ? (
        <div className="flex h-9 items-center justify-between text-[13px] text-wax-300">
          <span>{times} exposures show this drawing</span>
          <ActionWords action={TIME_ACTIONS.own} label="Make this one its own" />
        </div>
      ) : null}
      <Line />
      <Fold label="Repeat, thin out, order, new ones">
        <NumberRow
          label="Repeat, times"
          default={2}
          min={2}
          max={100}
          verb="Repeat"
          whyNot={whyNot}
          onDo={(n) => {
            change('repeat', (each) => repeatedRuns(each, n, randomId), all);
          }}
        />
        <NumberRow
          label="Thin out, every"
          default={2}
          min={2}
          max={100}
          verb="Thin out"
          whyNot={whyNot}
          onDo={(n) => {
            change('thin out', (each) => thinned(each, n), all);
          }}
        />
        <div className="flex flex-wrap gap-1.5 py-1">
          {deeds.map(({ label, title, how }) => (
            <Small
              key={label}
              title={title}
              whyNot={whyNot}
              onClick={() => {
                change(label.toLowerCase(), how, all);
              }}
            >
              {label}
            </Small>
          ))}
          <ActionWords action={TIME_ACTIONS.reverse} label="Turn round" />
          <ActionWords action={TIME_ACTIONS.swap} label="Swap" />
          <ActionWords action={TIME_ACTIONS.split} label="Split here" />
          <ActionWords action={TIME_ACTIONS.insertBefore} label="New before" />
          <ActionWords action={TIME_ACTIONS.newDrawing} label="New after" />
          <ActionWords action={TIME_ACTIONS.duplicate} label="Copies" />
        </div>
      </Fold>
      <Fold label="Keys, slots to draw, numbers">
        <div className="flex items-center justify-between text-[13px] text-wax-300">
          It is a
          <Words
            label="Pose"
            value={pose}
            choices={POSES}
            onChoose={(value) => {
              if (!now?.active || !runs || whyNotRuns()) return;
              const indices = indicesOf(runs, list?.runs.length ?? 1);
              edit(value === 'none' ? 'in-between' : value, (doc) =>
                setPose(doc, now.active!.layer.id, indices, value === 'none' ? null : value),
              );
            }}
          />
        </div>
        <Prepare />
        <div className="flex flex-wrap items-center gap-1.5 py-1">
          <ActionWords action={TIME_ACTIONS.previousPose} label="Key before" />
          <ActionWords action={TIME_ACTIONS.nextPose} label="Key after" />
          <ActionWords action={TIME_ACTIONS.nextBare} label="Next slot to draw" />
          <Small
            title="Number the drawings in the order in which they show"
            whyNot={whyNotTime()}
            onClick={() => {
              const [layerId] = layersToEdit();
              if (layerId) edit('number anew', (doc) => numberAnew(doc, layerId));
            }}
          >
            Number anew
          </Small>
        </div>
        <Check
          label="Go on to the next drawing after each stroke"
          checked={goesOn}
          onChange={(on) => {
            setToolState({ goesOn: on });
          }}
        />
        {now && formOf(now) === 'sheet' ? (
          <Check
            label="Pictures on the sheet"
            checked={pictures}
            onChange={(on) => {
              setScreen({ sheetPictures: on });
            }}
          />
        ) : null}
      </Fold>
    </Panel>
  );
}

/** Empty slots for frames to come. */
function Prepare() {
  const now = useCurrent();
  const [every, setEvery] = useState(2);
  if (!now?.active) return null;
  const { id } = now.active.layer;
  return (
    <div className="flex items-center gap-2">
      <div className="min-w-0 flex-1">
        <NumberRow
          label="Prepare frames"
          read={(text) => framesTyped(text, shotOf(now.doc).rate) ?? NaN}
          default={24}
          min={1}
          max={5000}
          verb="Prepare"
          whyNot={whyNotTime()}
          onDo={(n) => {
            edit('prepare slots', (doc) => prepareSlots(doc, id, n, every, randomId));
          }}
        />
      </div>
      <label className="flex items-center gap-1 text-[13px] text-wax-300">
        on
        <input
          className="field !h-8 w-12 text-right font-mono"
          aria-label="Frames to a slot"
          inputMode="numeric"
          value={every}
          onChange={(event) => {
            const n = Number(event.target.value);
            if (Number.isInteger(n) && n >= 1 && n <= 1000) setEvery(n);
          }}
          onKeyDown={(event) => {
            event.stopPropagation();
          }}
        />
        s
      </label>
    </div>
  );
}
