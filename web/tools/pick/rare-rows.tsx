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

/** Something that is added so far away or so wide. */
function AddRow({
  label,
  limits,
  first,
  does,
  adds,
  onAdd,
}: {
  label: string;
  /** px. */
  limits: { readonly min: number; readonly max: number };
  first: number;
  does: string;
  adds: string;
  onAdd: (px: number) => void;
}) {
  const [px, setPx] = useState(first);
  return (
    <div className="flex items-center gap-1">
      <div className="min-w-0 flex-1">
        <Slider label={label} unit="px" {...limits} value={px} title={does} onMove={setPx} />
      </div>
      <Small
        name={`Add ${label.toLowerCase()}`}
        title={adds}
        onClick={() => {
          onAdd(px);
        }}
      >
        Add
      </Small>
    </div>
  );
}

export function RareRows() {
  const now = useCurrent();
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
      <AddRow
        label="Parallel line"
        limits={{ min: -120, max: 120 }}
        first={12}
        does="How far beside; below 0 on the other side"
        adds="A line beside each stroke picked up"
        onAdd={addParallel}
      />
      <AddRow
        label="Outline"
        limits={{ min: 1, max: 80 }}
        first={8}
        does="How wide a line round each shape is"
        adds="A line round each shape picked up, in the palette’s outline swatch"
        onAdd={(px) => {
          addOutline(Math.round(px));
        }}
      />
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
