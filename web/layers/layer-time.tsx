/** What a layer's time has to do with that of others: a line over it, tying, slots taken over, still layers. */
import { randomId, type Layer } from '@tallow/core/document';
import {
  addStill,
  lineOver,
  slotsOf,
  tiedTo,
  tieLayer,
  untieLayer,
  whyNotSlotsOf,
  whyNotTied,
} from '@tallow/core/edit';
import { DropdownMenu } from 'radix-ui';
import { madeBy } from '../hand/brushes.ts';
import { toolState, takeBrush } from '../hand/tool-state.ts';
import { ITEM, SubMenu } from '../parts/menu.tsx';
import { current } from '../selection/current.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, say } from '../shot/document.ts';
import { goToBare } from '../time/stretch-edits.ts';
import { ActionItem } from '../actions/action-item.tsx';
import { TIME_ACTIONS } from '../time/actions.ts';

/** What the line over a layer is called. */
function nameOver({ name }: Layer): string {
  const start = name.slice(0, 180).toWellFormed();
  return /\bline$/i.test(start) ? `${start}, clean` : `${start} line`;
}

/** Makes a line layer tied to another, above it, and stands on its first slot, a brush for lines active. */
function drawOver(layer: Layer): void {
  let made = '';
  edit('line over this', (doc) => {
    const over = lineOver(doc, layer.id, nameOver(layer), 'line', randomId);
    made = over.layerId;
    return over.doc;
  });
  setSelection({ layerId: made, selectedRuns: null, frame: current()?.length ? current()!.length - 1 : 0 });
  // A line is drawn with what draws lines.
  if (madeBy(toolState().brushName) !== 'stroke') takeBrush('ink');
  goToBare();
}

function addStillLayer(elementId: string, where: 'front' | 'behind'): void {
  let made = '';
  edit(`still layer ${where === 'front' ? 'in front' : 'behind'}`, (doc) => {
    const added = addStill(doc, elementId, where === 'front' ? 'Still in front' : 'Still behind', where, randomId);
    made = added.layerId;
    return added.doc;
  });
  setSelection({ layerId: made, selectedRuns: null });
}

/** A choice of another layer, those that cannot be chosen saying why. */
function Others({
  label,
  others,
  whyNot,
  onChoose,
}: {
  label: string;
  others: readonly Layer[];
  whyNot: (id: string) => string | null;
  onChoose: (id: string) => void;
}) {
  return (
    <SubMenu label={label}>
      {others.length === 0 ? <p className="px-2 py-1 text-wax-500">There is no other layer.</p> : null}
      {others.map(({ id, name }) => {
        const trouble = whyNot(id);
        return (
          <DropdownMenu.Item
            key={id}
            className={`${ITEM} ${trouble ? 'text-wax-500' : ''}`}
            data-tip={trouble ?? undefined}
            onSelect={() => {
              if (trouble) say(trouble);
              else onChoose(id);
            }}
          >
            {name}
          </DropdownMenu.Item>
        );
      })}
    </SubMenu>
  );
}

export function LayerTime({ layer }: { layer: Layer }) {
  const now = current();
  if (!now) return null;
  const others = now.layers.flatMap((timed) => (timed.layer.id === layer.id ? [] : [timed.layer]));
  const tied = tiedTo(now.doc, layer.runListId).filter(({ id }) => id !== layer.id);
  const locked = layer.locked ? 'The layer is locked. Unlock it first.' : null;
  return (
    <>
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          drawOver(layer);
        }}
      >
        Line over this
      </DropdownMenu.Item>
      <ActionItem action={TIME_ACTIONS.nextBare} />
      <Others
        label="Tie in time to"
        others={others}
        whyNot={(id) => locked ?? whyNotTied(now.doc, layer.id, id)}
        onChoose={(id) => {
          edit('tie in time', (doc) => tieLayer(doc, layer.id, id));
        }}
      />
      {tied.length > 0 ? (
        <DropdownMenu.Item
          className={ITEM}
          onSelect={() => {
            edit('untie', (doc) => untieLayer(doc, layer.id, randomId));
          }}
        >
          Untie from {tied.map(({ name }) => name).join(', ')}
        </DropdownMenu.Item>
      ) : null}
      <Others
        label="Take slots and holds of"
        others={others}
        whyNot={(id) => locked ?? whyNotSlotsOf(now.doc, layer.id, id)}
        onChoose={(id) => {
          edit('slots and holds of another', (doc) => slotsOf(doc, layer.id, id, randomId));
        }}
      />
      <ActionItem action={TIME_ACTIONS.values} />
      <SubMenu label="New still layer">
        {(['front', 'behind'] as const).map((where) => (
          <DropdownMenu.Item
            key={where}
            className={ITEM}
            onSelect={() => {
              addStillLayer(layer.elementId, where);
            }}
          >
            {where === 'front' ? 'In front of all' : 'Behind all'}
          </DropdownMenu.Item>
        ))}
      </SubMenu>
    </>
  );
}
