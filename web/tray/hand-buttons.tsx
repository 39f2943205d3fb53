/** How the pen draws: the form of its strokes and where they go. */
import { FORMS, type Form } from '@tallow/core/brush';
import {
  Circle,
  CircleDotDashed,
  ChevronDown,
  Lasso,
  PaintBucket,
  Pencil,
  RectangleHorizontal,
  Slash,
  Spline,
  VectorSquare,
  Waypoints,
  type LucideIcon,
} from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { ActionButton } from '../parts/button.tsx';
import { CheckItem, ITEM, Menu, MenuLine } from '../parts/menu.tsx';
import { act, type ActionName } from '../state/actions.ts';
import { setDesk, useDesk } from '../state/desk.ts';

const FORM_WORDS: Readonly<Record<Form, { label: string; does: string; icon: LucideIcon }>> = {
  free: { label: 'Freehand', does: 'The stroke follows the pen', icon: Pencil },
  line: { label: 'Straight line', does: 'From where the pen lands to where it lifts', icon: Slash },
  polyline: {
    label: 'Polyline',
    does: 'Point by point; the last one twice, the first one, or Enter ends it',
    icon: Waypoints,
  },
  rectangle: { label: 'Rectangle', does: 'From corner to corner', icon: RectangleHorizontal },
  ellipse: { label: 'Ellipse', does: 'From corner to corner of its box', icon: CircleDotDashed },
  circle: { label: 'Circle', does: 'From its middle outwards, always round', icon: Circle },
  arc: { label: 'Arc', does: 'First its ends, then a place it passes', icon: Spline },
};

const toggle = (name: ActionName) => () => {
  act(name);
};

export function HandButtons() {
  const hand = useDesk((s) => s.hand);
  const form = useDesk((s) => s.form);
  const exact = useDesk((s) => s.exact);
  const closes = useDesk((s) => s.closes);
  const behind = useDesk((s) => s.behind);
  const ruler = useDesk((s) => s.ruler !== null);
  const { label, icon: Icon } = FORM_WORDS[form];
  const marked = form !== 'free' || exact || closes || behind || ruler;
  return (
    <div className="grid shrink-0 grid-cols-2 gap-0.5 [&_button[aria-pressed=false]]:!bg-transparent">
      <ActionButton name="pickUp" pressed={hand === 'pick'}>
        <Lasso size={17} />
      </ActionButton>
      <ActionButton name="reshape" pressed={hand === 'reshape'}>
        <VectorSquare size={17} />
      </ActionButton>
      <ActionButton name="fill" pressed={hand === 'fill'}>
        <PaintBucket size={17} />
      </ActionButton>
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
            setDesk({ form: value as Form, hand: 'draw' });
          }}
        >
          {FORMS.map((each) => {
            const { label: word, does, icon: Each } = FORM_WORDS[each];
            return (
              <DropdownMenu.RadioItem
                key={each}
                value={each}
                title={does}
                className={`${ITEM} data-[state=checked]:text-flame`}
              >
                <Each size={15} /> {word}
              </DropdownMenu.RadioItem>
            );
          })}
        </DropdownMenu.RadioGroup>
        <MenuLine />
        <CheckItem checked={exact} onChange={toggle('exact')}>
          Level, plumb, every 15°
        </CheckItem>
        <CheckItem checked={closes} onChange={toggle('closes')}>
          Close what nearly closes
        </CheckItem>
        <CheckItem checked={behind} onChange={toggle('behind')}>
          Behind what is there
        </CheckItem>
        <CheckItem checked={ruler} onChange={toggle('ruler')}>
          Ruler
        </CheckItem>
      </Menu>
    </div>
  );
}
