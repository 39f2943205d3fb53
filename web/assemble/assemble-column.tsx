/** The column while the shot is assembled: what stands in it, and the settings of what is picked. */
import { find, type Placement } from '@tallow/core/document';
import { setElement, setPlacements } from '@tallow/core/edit';
import { placementsOf } from '@tallow/core/timing';
import { useState } from 'react';
import { NameField } from '../parts/name-field.tsx';
import { Words } from '../parts/choice.tsx';
import { Line, Small } from '../parts/panel.tsx';
import { edit, useDocument } from '../shot/document.ts';
import { useShowing } from '../picture/showing.ts';
import { useReadFrame } from '../playback/read-frame.ts';
import { act } from '../actions/action.ts';
import { PLACE_ACTIONS } from '../tools/place/actions.ts';
import { frameOn, levelOf, selectedUses, selectUses, usePlacing, type Level } from '../tools/place/placing.ts';
import { CameraPanel } from './camera-panel.tsx';
import { Cone } from './cone.tsx';
import { CopiesPanel } from './copies-panel.tsx';
import { LightPanel } from './light-panel.tsx';
import { LightsList } from './lights-list.tsx';
import { LooksPanel } from './looks-panel.tsx';
import { PlanePanel } from './plane-panel.tsx';
import { PlacePanel } from './place-panel.tsx';
import { SoundPanel } from './sound-panel.tsx';
import { CutOffLine, TimePanel } from './time-panel.tsx';
import { UsesList } from './uses-list.tsx';
import { ShotValuesPanel } from './values-panel.tsx';

const TABS = ['place', 'time', 'copies', 'light', 'looks'] as const;
type Tab = (typeof TABS)[number];
const TAB_WORDS: Readonly<Record<Tab, string>> = {
  place: 'Place',
  time: 'Time',
  copies: 'Copies',
  light: 'Light',
  looks: 'Looks',
};

/** What can be done with what is picked, whichever settings are open. */
const OFFERED = [
  { action: PLACE_ACTIONS.oneMore, label: 'One more' },
  { action: PLACE_ACTIONS.scatter, label: 'Three copies' },
  { action: PLACE_ACTIONS.splitUse, label: 'Split here' },
  { action: PLACE_ACTIONS.toFront, label: 'Nearer' },
  { action: PLACE_ACTIONS.toBack, label: 'Farther' },
  { action: PLACE_ACTIONS.takeUseAway, label: 'Take away' },
] as const;

function Name({ placement, elementName, uses }: { placement: Placement; elementName: string; uses: number }) {
  const [naming, setNaming] = useState(false);
  const name = placement.name ?? elementName;
  if (naming)
    return (
      <NameField
        label="Name of this use"
        value={name}
        onDone={(typed) => {
          setNaming(false);
          if (!typed || typed === name) return;
          if (uses > 1 || placement.name !== null)
            edit('name of a use', (doc) => setPlacements(doc, [placement.id], { name: typed }));
          else edit('element name', (doc) => setElement(doc, placement.elementId, { name: typed }));
        }}
      />
    );
  return (
    <button
      type="button"
      className="font-name block w-full truncate text-left text-[17px]"
      data-tip={`${name} · click to rename`}
      onClick={() => {
        setNaming(true);
      }}
    >
      {name}
    </button>
  );
}

function Selected({ level, placement, count }: { level: Level; placement: Placement; count: number }) {
  const [tab, setTab] = useState<Tab>('place');
  const shotFrame = useReadFrame((s) => s.frame);
  const element = find(level.doc, 'element', placement.elementId);
  if (!element) return null;
  const since = Math.max(0, frameOn(level, shotFrame) - placement.start);
  const uses = placementsOf(level.doc, element.id);
  const which = uses.findIndex(({ id }) => id === placement.id) + 1;
  return (
    <section aria-label="What is picked" data-testid="use-panel">
      {count > 1 ? (
        <h2 className="font-name text-[17px]">{count} picked</h2>
      ) : (
        <>
          <Name key={placement.id} placement={placement} elementName={element.name} uses={uses.length} />
          <p className="truncate text-xs text-wax-500">
            a use of {element.name}
            {uses.length > 1 ? ` · ${which} of ${uses.length}` : ''}
          </p>
        </>
      )}
      <div className="flex items-center justify-between">
        <Words
          label="Settings"
          value={tab}
          choices={TABS.map((value) => ({ value, label: TAB_WORDS[value] }))}
          onChoose={setTab}
        />
        <Small
          title="All that stands in the shot"
          onClick={() => {
            selectUses([]);
          }}
        >
          All
        </Small>
      </div>
      <Line />
      {tab === 'time' ? null : <CutOffLine level={level} placement={placement} />}
      {tab === 'place' ? <PlacePanel level={level} placement={placement} since={since} /> : null}
      {tab === 'time' ? <TimePanel level={level} placement={placement} /> : null}
      {tab === 'copies' ? <CopiesPanel level={level} placement={placement} /> : null}
      {tab === 'light' ? (
        <LightsList
          doc={level.doc}
          source={{ placementId: placement.id }}
          whyNot={level.holder ? 'Light shines from what stands on a plane: go back to the shot.' : null}
        />
      ) : null}
      {tab === 'looks' ? <LooksPanel level={level} placement={placement} since={since} /> : null}
      <Line />
      <div className="flex flex-wrap gap-1.5 pb-2">
        {OFFERED.map(({ action, label }) => (
          <Small
            key={action.name}
            title={action.label}
            onClick={() => {
              act(action);
            }}
          >
            {label}
          </Small>
        ))}
      </div>
    </section>
  );
}

export function AssembleColumn() {
  const doc = useDocument((s) => s.doc);
  const { inside, selected, plane: planeId, light: lightId, sound: soundId } = usePlacing();
  const filming = useShowing((s) => s.filming);
  const [list, setList] = useState<'things' | 'values'>('things');
  if (!doc) return null;
  const level = levelOf(doc, inside);
  const uses = selectedUses(level, selected);
  const [first] = uses;
  const plane = find(doc, 'plane', planeId);
  const light = find(doc, 'light', lightId);
  const sound = find(doc, 'sound', soundId);
  return (
    <aside
      aria-label="Assemble"
      className="flex w-[368px] shrink-0 flex-col overflow-y-auto border-x border-soot-700 bg-soot-900 px-4 pt-2"
    >
      {level.holder ? null : (
        <>
          <Cone doc={doc} />
          <Line />
        </>
      )}
      {filming ? (
        <CameraPanel doc={doc} />
      ) : light && !level.holder ? (
        <LightPanel doc={doc} light={light} />
      ) : sound && !level.holder ? (
        <SoundPanel key={sound.id} doc={doc} sound={sound} />
      ) : plane && !level.holder ? (
        <PlanePanel doc={doc} plane={plane} />
      ) : first ? (
        <Selected level={level} placement={first} count={uses.length} />
      ) : (
        <>
          <div className="flex items-center justify-between pb-1">
            <h2 className="font-name text-[17px]">{level.holder ? `In ${level.holder.name}` : 'In the shot'}</h2>
            {level.holder ? null : (
              <Words
                label="What of the shot"
                value={list}
                choices={[
                  { value: 'things', label: 'Things' },
                  { value: 'values', label: 'Values', tip: 'All that changes over time, a curve each' },
                ]}
                onChoose={setList}
              />
            )}
          </div>
          {list === 'values' && !level.holder ? (
            <ShotValuesPanel doc={doc} />
          ) : (
            <UsesList level={level} selected={selected} />
          )}
        </>
      )}
    </aside>
  );
}
