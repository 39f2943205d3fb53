/** The column on the right: the active element, its wheel, the buttons under it and its layers. */
import type { Element, ElementTime } from '@tallow/core/document';
import { setElement } from '@tallow/core/edit';
import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { memo, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { Menu, MenuLine } from '../parts/menu.tsx';
import { Words } from '../parts/choice.tsx';
import { NameField } from '../parts/name-field.tsx';
import { useOfCurrent } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { formOf, WHEEL_FORMS, seeAs, type SeenAs } from '../time/forms.ts';
import { ColumnPanel } from './column-panel.tsx';
import { Divider } from './divider.tsx';
import { Wheel } from '../wheel/wheel.tsx';
import { BrushPanel } from '../brush/brush-panel.tsx';
import { useToolState } from '../hand/tool-state.ts';
import { useScreen } from '../screen/screen.ts';
import { ReferencesPanel } from '../tools/plate/references-panel.tsx';
import { useReferences } from '../references/references.ts';
import { seenOf } from '../tools/index.ts';
import { Layers } from '../layers/layers.tsx';
import { TimeButtons } from './time-buttons.tsx';
import { ActionItem } from '../actions/action-item.tsx';
import { TIME_ACTIONS } from '../time/actions.ts';

const TIMES: Record<ElementTime, { word: string; does: string; step: string }> = {
  open: { word: 'open', does: 'Open: it grows as drawings are added', step: 'open the element' },
  cycle: { word: 'cycle', does: 'Close into a cycle: the last drawing leads to the first', step: 'close into a cycle' },
  'one-shot': { word: 'one-shot', does: 'End as a one-shot: it plays once and is over', step: 'end as a one-shot' },
};

const Head = memo(function Head({ element, length, form }: { element: Element; length: number; form: SeenAs }) {
  const [naming, setNaming] = useState(false);
  return (
    <div className="flex h-11 shrink-0 items-center gap-1 px-4 pt-1">
      {naming ? (
        <NameField
          label="Element name"
          value={element.name}
          onDone={(name) => {
            setNaming(false);
            if (name && name !== element.name) edit('element name', (doc) => setElement(doc, element.id, { name }));
          }}
        />
      ) : (
        <h1 className="min-w-0 flex-1">
          <button
            type="button"
            className="font-name block max-w-full truncate text-left text-[17px]"
            data-tip={`${element.name} · click to rename`}
            onClick={() => {
              setNaming(true);
            }}
          >
            {element.name}
          </button>
        </h1>
      )}
      <Words
        label="How time is seen"
        value={form}
        choices={WHEEL_FORMS.map(({ form: value, label, does }) => ({ value, label, tip: does }))}
        each="h-8 px-1"
        onChoose={seeAs}
      />
      <Menu
        testId="element-time"
        label={`${TIMES[element.time].word}, ${length}: close, end or open this element`}
        className="flex h-8 shrink-0 items-center gap-1 rounded-lg px-1.5 text-[13px] text-wax-300 hover:bg-soot-800"
        trigger={
          <>
            {TIMES[element.time].word}, <span className="font-mono text-xs">{length}</span> <ChevronDown size={14} />
          </>
        }
      >
        <DropdownMenu.RadioGroup
          value={element.time}
          onValueChange={(value) => {
            const time = value as ElementTime;
            edit(TIMES[time].step, (doc) => (element.time === time ? doc : setElement(doc, element.id, { time })));
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
        <MenuLine />
        <ActionItem action={TIME_ACTIONS.cycle} label="Its seam, length and beginning" />
      </Menu>
    </div>
  );
});

/** The place below the wheel: the layers, or the settings of what is active. */
const Below = memo(function Below() {
  const tool = useToolState((s) => s.activeTool);
  const brushShown = useToolState((s) => s.brushShown);
  const panel = useScreen((s) => s.panel);
  const referencesShown = useReferences((s) => s.shown);
  const { Panel } = seenOf(tool);
  if (Panel) return <Panel />;
  if (brushShown) return <BrushPanel />;
  if (referencesShown) return <ReferencesPanel />;
  return panel ? <ColumnPanel panel={panel} /> : <Layers />;
});

interface ColumnProps {
  /** Whether its upper half is put up; before that the column only keeps its room. */
  readonly isUp: boolean;
  /** Whether its lower half is. */
  readonly areLayersUp: boolean;
}

export function Column({ isUp, areLayersUp }: ColumnProps) {
  const seen = useOfCurrent(useShallow((now) => ({ element: now.element, length: now.length, form: formOf(now) })));
  if (!seen) return null;
  const { element, length, form } = seen;
  return (
    <aside
      aria-label="Element"
      className="flex w-[368px] shrink-0 flex-col gap-0.5 overflow-hidden border-x border-soot-700 bg-soot-900 pb-2"
    >
      {isUp ? (
        <>
          <Head key={element.id} element={element} length={length} form={form} />
          <Wheel key={`${element.id}-wheel`} />
        </>
      ) : null}
      {areLayersUp ? (
        <>
          <TimeButtons />
          <Divider />
          <Below />
        </>
      ) : null}
    </aside>
  );
}
