/** What else a layer does: where the pen draws on it, what it clips to, its tint, and joining. */
import { find, findAll, shotOf, type Layer, type RunList } from '@tallow/core/document';
import { starterOf } from '@tallow/core/starters';
import { deleteLayer, setLayer } from '@tallow/core/edit';
import { Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { memo, useState } from 'react';
import { CheckItem, ITEM, Menu, MenuLine, SubMenu } from '../parts/menu.tsx';
import { current } from '../selection/current.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { setLooks } from '../looks/look-panel.ts';
import { togglePanel } from '../screen/panels.ts';
import { useNavigate } from 'react-router';
import { ActionItem } from '../actions/action-item.tsx';
import { act } from '../actions/action.ts';
import { selectPlanned } from '../plan/plan.ts';
import { LAYER_ACTIONS } from './actions.ts';
import { duplicateLayer } from './duplicate.ts';
import { LayerTime } from './layer-time.tsx';
import { TAGS } from './tags.ts';
import { withDrawings } from '../saving/drawings.ts';
import { joinDown, joinHere, joinAll } from './joining.ts';

/** Deletes a layer unless it is the only one. */
function remove(layer: Layer, only: boolean): void {
  if (only) {
    say('This is the only layer. Add another before deleting it.');
    return;
  }
  withDrawings(Object.values(layer.slots), () => {
    edit('delete layer', (doc) => deleteLayer(doc, layer.id));
  });
}

/** The way to the settings of the starter that laid a layer. */
function StarterItem({ layer }: { layer: Layer }) {
  const starter = useDocument((s) => (s.doc ? find(s.doc, 'starter', layer.starterId) : undefined));
  const navigate = useNavigate();
  if (!starter) return null;
  return (
    <DropdownMenu.Item
      className={ITEM}
      onSelect={() => {
        selectPlanned({ kind: 'starter', id: starter.id });
        void navigate('../plan', { relative: 'path', replace: true });
      }}
    >
      Settings of {starterOf(starter.effect).name}, in Plan
    </DropdownMenu.Item>
  );
}

interface LayerMenuProps {
  layer: Layer;
  list: RunList;
  only: boolean;
}

interface ItemsProps extends LayerMenuProps {
  /** Whether unjoined copies are kept. */
  keeps: boolean;
  onKeeps: (keeps: boolean) => void;
}

/** What stands in the menu: worked out while it is open only. */
function Items({ layer, list, only, keeps, onKeeps }: ItemsProps) {
  const doc = useDocument((s) => s.doc);
  const set = (name: string, settings: Parameters<typeof setLayer>[2]): void => {
    edit(name, (each) => setLayer(each, layer.id, settings));
  };
  const all = current()?.layers.flatMap((timed) => Object.values(timed.layer.slots)) ?? [];
  const joins = (run: () => void) => () => {
    withDrawings(all, run);
  };
  const tied = current()?.layers.some(({ layer: other }) => other !== layer && other.runListId === layer.runListId);
  return (
    <>
      <CheckItem
        checked={layer.onion}
        onChange={(onion) => {
          set(onion ? 'onion skin on layer' : 'no onion skin on layer', { onion });
        }}
      >
        Onion skin while it is drawn on
      </CheckItem>
      <CheckItem
        checked={list.period === 1}
        onChange={() => {
          act(LAYER_ACTIONS.still);
        }}
      >
        Still: one drawing throughout
      </CheckItem>
      <CheckItem
        checked={layer.inside}
        onChange={(inside) => {
          set(inside ? 'draw inside only' : 'draw anywhere', { inside });
        }}
      >
        Draw only inside what is there
      </CheckItem>
      <CheckItem
        checked={layer.clip}
        onChange={(clip) => {
          set(clip ? 'clip to the layer below' : 'clip no more', { clip });
        }}
      >
        Clip to the layer below
      </CheckItem>
      <CheckItem
        checked={layer.forWork}
        onChange={(forWork) => {
          set(forWork ? 'layer for work only' : 'layer in the finished look', { forWork });
        }}
      >
        For work only: not in the finished look
      </CheckItem>
      {layer.role === 'matte' ? (
        <>
          <CheckItem
            checked={layer.matte.shot}
            onChange={(shot) => {
              set(shot ? 'matte for the whole shot' : 'matte for its element', { matte: { ...layer.matte, shot } });
            }}
          >
            Hides what lies behind its element too
          </CheckItem>
          <CheckItem
            checked={layer.matte.inverted}
            onChange={(inverted) => {
              set(inverted ? 'matte turned about' : 'matte as drawn', { matte: { ...layer.matte, inverted } });
            }}
          >
            Hides all but what it covers
          </CheckItem>
        </>
      ) : null}
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          setLooks({ of: 'layer', open: null });
          togglePanel('looks');
        }}
      >
        Looks: glow, blur, texture …
      </DropdownMenu.Item>
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          togglePanel('tone');
        }}
      >
        Tone: shade and light …
      </DropdownMenu.Item>
      <StarterItem layer={layer} />
      <SubMenu label="Colour mark">
        <DropdownMenu.RadioGroup
          value={String(layer.tag)}
          onValueChange={(tag) => {
            set('colour mark', { tag: Number(tag) });
          }}
        >
          {TAGS.map((colour, i) => (
            <DropdownMenu.RadioItem
              key={colour}
              value={String(i)}
              className={`${ITEM} data-[state=checked]:text-flame`}
            >
              <span
                className={`size-3.5 rounded-full ${i === 0 ? 'border border-wax-500' : ''}`}
                style={{ background: colour }}
              />
              {i === 0 ? 'none' : i}
            </DropdownMenu.RadioItem>
          ))}
        </DropdownMenu.RadioGroup>
      </SubMenu>
      <SubMenu label="Tint">
        <DropdownMenu.RadioGroup
          value={layer.tint ?? ''}
          onValueChange={(id) => {
            const tint = id || null;
            if (tint !== layer.tint) set(tint ? 'tint layer' : 'no tint', { tint });
          }}
        >
          <DropdownMenu.RadioItem value="" className={`${ITEM} data-[state=checked]:text-flame`}>
            each mark’s own
          </DropdownMenu.RadioItem>
          {doc
            ? findAll(doc, 'swatch', shotOf(doc).swatches).map((swatch) => (
                <DropdownMenu.RadioItem
                  key={swatch.id}
                  value={swatch.id}
                  className={`${ITEM} data-[state=checked]:text-flame`}
                >
                  <span className="size-4 rounded" style={{ background: swatch.colour }} />
                  {swatch.name}
                </DropdownMenu.RadioItem>
              ))
            : null}
        </DropdownMenu.RadioGroup>
      </SubMenu>
      <MenuLine />
      <LayerTime layer={layer} />
      <SubMenu label="Join">
        <DropdownMenu.Item
          className={ITEM}
          onSelect={joins(() => {
            joinHere(layer.id);
          })}
        >
          Join this drawing with the layer below
        </DropdownMenu.Item>
        <DropdownMenu.Item
          className={ITEM}
          onSelect={joins(() => {
            joinDown(layer.id, keeps);
          })}
        >
          Join with the layer below
        </DropdownMenu.Item>
        <DropdownMenu.Item
          className={ITEM}
          onSelect={joins(() => {
            joinAll(keeps);
          })}
        >
          Join all layers that are seen
        </DropdownMenu.Item>
        <CheckItem stays checked={keeps} onChange={onKeeps}>
          Keep unjoined copies, hidden
        </CheckItem>
      </SubMenu>
      <SubMenu label="Copies">
        <DropdownMenu.Item
          className={ITEM}
          onSelect={() => {
            duplicateLayer(layer.id, false);
          }}
        >
          Duplicate this layer
        </DropdownMenu.Item>
        {tied ? (
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              duplicateLayer(layer.id, true);
            }}
          >
            Duplicate with what is tied to it
          </DropdownMenu.Item>
        ) : null}
        <MenuLine />
        <ActionItem action={LAYER_ACTIONS.copyLayer} />
        {tied ? <ActionItem action={LAYER_ACTIONS.copyTied} /> : null}
        <ActionItem action={LAYER_ACTIONS.pasteLayers} />
      </SubMenu>
      <MenuLine />
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          remove(layer, only);
        }}
      >
        Delete this layer
      </DropdownMenu.Item>
    </>
  );
}

const TRIGGER = <Ellipsis size={15} />;

export const LayerMenu = memo(function LayerMenu({ layer, list, only }: LayerMenuProps) {
  const [keeps, setKeeps] = useState(false);
  const marked = layer.inside || layer.clip || layer.tint !== null || layer.forWork;
  return (
    <Menu
      label={`More for ${layer.name}`}
      testId="layer-more"
      beside
      className={`moves grid size-8 shrink-0 place-items-center rounded-md hover:bg-soot-800 ${marked ? 'text-flame' : ''}`}
      trigger={TRIGGER}
    >
      <Items layer={layer} list={list} only={only} keeps={keeps} onKeeps={setKeeps} />
    </Menu>
  );
});
