/** Reshaping, in the column: how far a pull reaches, and what is done at the taken points. */
import type { Fall } from '@tallow/core/marks';
import { controlPointsOf } from '@tallow/core/marks';
import { Words } from '../../parts/choice.tsx';
import { Line, Small, Panel } from '../../parts/panel.tsx';
import { Slider } from '../../parts/slider.tsx';
import { useSelection } from '../../selection/selection.ts';
import { useDocument } from '../../shot/document.ts';
import { SpreadRow } from '../pick/spread-row.tsx';
import {
  addControlPoints,
  cutAtControlPoints,
  removeControlPoints,
  smooth,
  whyNotReshape,
  widen,
} from './line-edits.ts';
import { selectedControlPoints, setReshape, shapedMarks, thinning, useReshape, type Along } from './reshape.ts';
import { ActionWords } from '../../actions/action-button.tsx';
import { PICK_ACTIONS } from '../pick/actions.ts';
import { drawingsToEdit } from '../../selection/to-edit.ts';
import { showPanel } from '../../screen/panels.ts';

/** Takes all points of the lines that have one taken. */
function takeWhole(): void {
  const ids = new Set(selectedControlPoints().map(({ markId }) => markId));
  setReshape({
    controlPoints: shapedMarks()
      .filter((m) => ids.has(m.id))
      .flatMap((mark) => controlPointsOf(mark, thinning())),
  });
}

export function ReshapePanel() {
  const { radius, fall, along, redraws } = useReshape();
  useReshape((s) => s.controlPoints);
  useDocument((s) => s.serial);
  useSelection((s) => s.frame);
  useSelection((s) => s.selectedRuns);
  const taken = selectedControlPoints().length;
  const drawings = drawingsToEdit().length;
  const why = whyNotReshape();
  const deeds: readonly { label: string; title: string; run: () => void }[] = [
    { label: 'Whole line', title: 'All points of the lines that have one taken', run: takeWhole },
    { label: 'Smooth', title: 'Evens out what the points reach', run: smooth },
    {
      label: 'Widen',
      title: 'Presses harder where the points reach',
      run: () => {
        widen(1.25);
      },
    },
    {
      label: 'Thin',
      title: 'Presses lighter where the points reach',
      run: () => {
        widen(0.8);
      },
    },
    { label: 'Add points', title: 'A node after each taken one of a shape', run: addControlPoints },
    { label: 'Remove', title: 'The line goes straight past the taken points', run: removeControlPoints },
    { label: 'Cut here', title: 'Parts the strokes at the taken points', run: cutAtControlPoints },
  ];
  return (
    <Panel
      label="Reshape"
      testId="reshape-panel"
      heading={
        <span data-testid="taken-count">
          {taken === 0 ? 'Reshape' : `${taken} ${taken === 1 ? 'point' : 'points'}`}
          {drawings > 1 ? ` in ${drawings} drawings` : ''}
        </span>
      }
      onBack={() => {
        showPanel(null);
      }}
    >
      <Words
        label="What the pen does"
        value={redraws ? 'redraw' : 'pull'}
        choices={[
          { value: 'pull', label: 'Pull', tip: 'Takes points and pulls them' },
          { value: 'redraw', label: 'Redraw', tip: 'A line drawn over a stroke replaces the stretch it follows' },
        ]}
        onChoose={(what) => {
          setReshape({ redraws: what === 'redraw' });
        }}
      />
      {redraws ? (
        <p className="py-2 text-[13px] text-wax-500">Draw over a stroke, beginning and ending on it.</p>
      ) : (
        <>
          <div className="flex items-center justify-between text-[13px] text-wax-300">
            Along comes
            <Words<Along>
              label="What comes along"
              value={along}
              choices={[
                { value: 'line', label: 'this line', tip: 'Only the lines that have a taken point' },
                { value: 'piece', label: 'this piece', tip: 'All marks of its piece that are within reach' },
                { value: 'all', label: 'all', tip: 'Everything that is within reach' },
              ]}
              onChoose={(next) => {
                setReshape({ along: next });
              }}
            />
          </div>
          <Slider
            label="Reach"
            unit="px"
            min={1}
            max={400}
            value={Math.round(radius)}
            title="How far a pull is felt; its edge can be dragged on the picture"
            onMove={(px) => {
              setReshape({ radius: px });
            }}
          />
          <div className="flex items-center justify-between text-[13px] text-wax-300">
            The pull goes
            <Words<Fall>
              label="How the pull goes"
              value={fall}
              choices={[
                { value: 'soft', label: 'soft', tip: 'Round and even' },
                { value: 'spike', label: 'to a point', tip: 'Comes to a point' },
              ]}
              onChoose={(next) => {
                setReshape({ fall: next });
              }}
            />
          </div>
          {drawings > 1 ? <SpreadRow /> : null}
          <Line />
          <div className="flex flex-wrap gap-1 py-1">
            {deeds.map(({ label, title, run }) => (
              <Small key={label} title={title} whyNot={why} onClick={run}>
                {label}
              </Small>
            ))}
            {(['joinStraight', 'joinArc', 'openLine'] as const).map((name) => (
              <ActionWords
                key={name}
                action={PICK_ACTIONS[name]}
                label={{ joinStraight: 'Join straight', joinArc: 'Join by an arc', openLine: 'Open' }[name]}
              />
            ))}
          </div>
          <p className="py-1 text-[13px] text-wax-500">
            Points are those of what is picked up, or of all that is drawn. Press anywhere on a line for a point of its
            own; draw round some to take them together.
          </p>
        </>
      )}
    </Panel>
  );
}
