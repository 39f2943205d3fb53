/** The column on the right: the active element, its wheel, the buttons under it and its layers. */
import type { ElementTime } from '@tallow/core/document';
import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { setTime } from '../state/actions.ts';
import { useCurrent } from '../state/current.ts';
import { Wheel } from '../wheel/wheel.tsx';
import { Layers } from './layers.tsx';
import { TimeButtons } from './time-buttons.tsx';

const TIMES: Record<ElementTime, { word: string; does: string }> = {
  open: { word: 'open', does: 'Open: it grows as drawings are added' },
  cycle: { word: 'cycle', does: 'Close into a cycle: the last drawing leads to the first' },
  'one-shot': { word: 'one-shot', does: 'End as a one-shot: it plays once and is over' },
};

export function Column() {
  const now = useCurrent();
  if (!now) return null;
  const { time, name } = now.element;
  return (
    <aside className="flex w-[368px] shrink-0 flex-col gap-2 overflow-hidden border-l border-soot-700 bg-soot-900 pb-2">
      <div className="flex h-11 shrink-0 items-center gap-2 px-4 pt-1">
        <h1 className="font-name min-w-0 flex-1 truncate text-[17px]">{name}</h1>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger
            data-testid="element-time"
            className="moves flex h-8 items-center gap-1 rounded-lg px-2 text-[13px] text-wax-300 hover:bg-soot-800"
            title="Close, end or open this element"
          >
            {TIMES[time].word}, <span className="font-mono text-xs">{now.length}</span> <ChevronDown size={14} />
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="end"
              className="z-40 rounded-[10px] border border-soot-700 bg-soot-800 p-1.5 shadow-2xl"
            >
              <DropdownMenu.RadioGroup
                value={time}
                onValueChange={(value) => {
                  setTime(value as ElementTime);
                }}
              >
                {(Object.keys(TIMES) as ElementTime[]).map((each) => (
                  <DropdownMenu.RadioItem
                    key={each}
                    value={each}
                    className="flex h-8 cursor-pointer items-center rounded-md px-2 outline-none data-[highlighted]:bg-soot-700 data-[state=checked]:text-flame"
                  >
                    {TIMES[each].does}
                  </DropdownMenu.RadioItem>
                ))}
              </DropdownMenu.RadioGroup>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      <Wheel />
      <TimeButtons />
      <div className="mx-2 h-px shrink-0 bg-soot-700" />
      <Layers />
    </aside>
  );
}
