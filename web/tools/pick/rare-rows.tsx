/** What is done with what is picked up now and then: its order, joining, lines beside it, bending, another layer. */
import { useState } from 'react';
import { ActionWords } from '../../actions/action-button.tsx';
import { Words } from '../../parts/choice.tsx';
import { SelectRow, Small } from '../../parts/panel.tsx';
import { Slider } from '../../parts/slider.tsx';
import { useCurrent } from '../../selection/current.ts';
import { addOutline, addParallel, PICK_ACTIONS, toLayer } from './actions.ts';
import { beginBend } from './bend-grid.tsx';
import { pick, pickUp, usePick } from './pick.ts';

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

export function RareRows() {
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
