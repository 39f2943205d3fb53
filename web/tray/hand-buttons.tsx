/** How the pen draws: the form of its strokes and where they go. */
import { FIGURE_FORMS, type FigureForm } from '@tallow/core/brush';
import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { CheckItem, ITEM, Menu, MenuLine, SubMenu } from '../parts/menu.tsx';
import { setToolState, useToolState, takeTool } from '../hand/tool-state.ts';
import { ActionButton } from '../actions/action-button.tsx';
import { act, type Action } from '../actions/action.ts';
import { PEN_ACTIONS } from '../pen/actions.ts';
import { BARREL, BARREL_NAMES } from '../pen/barrel.ts';
import { SCREEN_ACTIONS } from '../screen/actions.ts';
import { useScreen } from '../screen/screen.ts';
import { TOOLS } from '../tools/index.ts';
import { FORM_WORDS } from './form-words.ts';

const toggle = (action: Action) => () => {
  act(action);
};

export function HandButtons() {
  const activeTool = useToolState((s) => s.activeTool);
  const form = useToolState((s) => s.form);
  const exact = useToolState((s) => s.exact);
  const closes = useToolState((s) => s.closes);
  const behind = useToolState((s) => s.behind);
  const ruler = useToolState((s) => s.ruler !== null);
  const barrel = useToolState((s) => s.barrel);
  const otherHand = useScreen((s) => s.otherHand.shown);
  const { label, icon: Icon } = FORM_WORDS[form];
  const marked = form !== 'free' || exact || closes || behind || ruler;
  return (
    <div className="grid shrink-0 grid-cols-3 gap-0.5 [&_button[aria-pressed=false]]:!bg-transparent">
      {TOOLS.map(({ tool, Button }) =>
        Button ? (
          <Button key={tool.name} />
        ) : tool.Icon && tool.taking ? (
          <ActionButton key={tool.name} action={tool.taking} pressed={activeTool === tool}>
            <tool.Icon size={19} />
          </ActionButton>
        ) : null,
      )}
      <Menu
        label={`How the pen draws: ${label.toLowerCase()}`}
        testId="forms"
        className={`moves flex h-8 w-8 items-center justify-center rounded-lg hover:bg-soot-800 ${marked ? 'text-flame' : 'text-wax-300'}`}
        trigger={
          <>
            <Icon size={15} /> <ChevronDown size={10} />
          </>
        }
      >
        <DropdownMenu.RadioGroup
          value={form}
          onValueChange={(value) => {
            setToolState({ form: value as FigureForm });
            takeTool(null);
          }}
        >
          {FIGURE_FORMS.map((each) => {
            const { label: word, does, icon: Each } = FORM_WORDS[each];
            return (
              <DropdownMenu.RadioItem
                key={each}
                value={each}
                data-tip={does}
                className={`${ITEM} data-[state=checked]:text-flame`}
              >
                <Each size={15} /> {word}
              </DropdownMenu.RadioItem>
            );
          })}
        </DropdownMenu.RadioGroup>
        <MenuLine />
        <CheckItem checked={exact} onChange={toggle(PEN_ACTIONS.exact)}>
          Level, plumb, every 15°
        </CheckItem>
        <CheckItem checked={closes} onChange={toggle(PEN_ACTIONS.closes)}>
          Close what nearly closes
        </CheckItem>
        <CheckItem checked={behind} onChange={toggle(PEN_ACTIONS.behind)}>
          Behind what is there
        </CheckItem>
        <CheckItem checked={ruler} onChange={toggle(PEN_ACTIONS.ruler)}>
          Ruler
        </CheckItem>
        <MenuLine />
        <CheckItem checked={otherHand} onChange={toggle(SCREEN_ACTIONS.otherHand)}>
          Buttons for the other hand
        </CheckItem>
        <SubMenu label="The button on the pen">
          <DropdownMenu.RadioGroup
            value={barrel}
            onValueChange={(value) => {
              setToolState({ barrel: value });
            }}
          >
            {BARREL_NAMES.map((each) => (
              <DropdownMenu.RadioItem
                key={each}
                value={each}
                data-tip={BARREL[each].does}
                className={`${ITEM} data-[state=checked]:text-flame`}
              >
                {BARREL[each].label}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </SubMenu>
      </Menu>
    </div>
  );
}
