/** Which layers picking up acts on. */
import { DropdownMenu } from 'radix-ui';
import { ChevronDown } from 'lucide-react';
import { CheckItem, DoneItem, ITEM, Menu, MenuLine } from '../../parts/menu.tsx';
import { useCurrent, type Current } from '../../selection/current.ts';
import { followDesk } from './pick.ts';
import { othersReached, setReach, usePickReach, type ReachName } from './reach.ts';

const WORDS: Readonly<Record<ReachName, string>> = {
  layer: 'this layer',
  tied: 'what is tied to it',
  folder: 'its folder',
  element: 'all of the element',
  chosen: 'chosen layers',
};

function choose(reach: ReachName): void {
  setReach({ reach });
  followDesk();
}

/** Why a way is not open now, or null. */
function whyNot(now: Current, name: ReachName): string | null {
  const { active } = now;
  if (name === 'folder' && !active?.folder) return 'The layer lies in no folder.';
  const tied = now.layers.filter(({ layer }) => layer.runListId === active?.layer.runListId);
  return name === 'tied' && tied.length < 2 ? 'No layer is tied to this one in time.' : null;
}

/** The other layers, to be ticked. */
function Ticks({ now, chosen }: { now: Current; chosen: readonly string[] }) {
  return now.layers
    .filter(({ layer }) => layer.id !== now.active?.layer.id)
    .map(({ layer }) => (
      <CheckItem
        key={layer.id}
        stays
        checked={chosen.includes(layer.id)}
        onChange={(on) => {
          setReach({ reach: 'chosen', chosen: on ? [...chosen, layer.id] : chosen.filter((id) => id !== layer.id) });
          followDesk();
        }}
      >
        {layer.name}
      </CheckItem>
    ));
}

export function ReachRow() {
  const now = useCurrent();
  const { reach, chosen } = usePickReach();
  if (!now || now.layers.length < 2) return null;
  const others = othersReached(now).length;
  return (
    <div className="flex h-9 items-center gap-1 text-[13px] text-wax-300">
      <span className="w-[66px] shrink-0">On</span>
      <Menu
        label="Which layers are picked up from"
        testId="pick-reach"
        beside
        align="start"
        className="flex h-8 min-w-0 items-center gap-1 rounded-lg bg-soot-800 px-2 text-wax-100"
        trigger={
          <>
            <span className="truncate">
              {WORDS[reach]}
              {reach === 'layer' ? '' : ` · ${others + 1} ${others === 0 ? 'layer' : 'layers'}`}
            </span>
            <ChevronDown size={14} className="shrink-0" />
          </>
        }
      >
        <DropdownMenu.RadioGroup
          value={reach}
          onValueChange={(value) => {
            choose(value as ReachName);
          }}
        >
          {(['layer', 'tied', 'folder', 'element'] as const).map((name) => {
            const why = whyNot(now, name);
            return (
              <DropdownMenu.RadioItem
                key={name}
                value={name}
                disabled={why !== null}
                data-tip={why ?? undefined}
                className={`${ITEM} data-[disabled]:text-wax-500 data-[state=checked]:text-flame`}
              >
                {WORDS[name]}
                {why ? <span className="ml-auto pl-3 text-xs">{why}</span> : null}
              </DropdownMenu.RadioItem>
            );
          })}
        </DropdownMenu.RadioGroup>
        <MenuLine />
        <Ticks now={now} chosen={chosen} />
        <DoneItem />
      </Menu>
    </div>
  );
}
