/** Under the tall strip: playing the shot or the element, a start earlier or later, and what can be brought into the shot. */
import { placeElement, addPlane, addElement, whyNotInside, whyNotLight } from '@tallow/core/edit';
import { find, findAll, randomId, shotOf, type Id } from '@tallow/core/document';
import { Camera, ChevronLeft, ChevronRight, Pause, Play, Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { ActionButton } from '../actions/action-button.tsx';
import { ActionItem } from '../actions/action-item.tsx';
import { act } from '../actions/action.ts';
import { Words } from '../parts/choice.tsx';
import { ITEM, Menu } from '../parts/menu.tsx';
import { playback, setPlayback, stopPlaying, usePlayback } from '../playback/playback.ts';
import { playsShot, shotFrameNow } from '../playback/shot-time.ts';
import { setReferences } from '../references/references.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { SHELF_ACTIONS } from '../shelf/actions.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { PLACE_ACTIONS, whyNotSelected } from '../tools/place/actions.ts';
import { Heavy } from './heavy.tsx';
import { addLight } from './lights-list.tsx';
import { SoundMenu } from './sound-menu.tsx';
import { takeStill } from './still.ts';
import { frameOn, levelOf, openInside, selectUses, usePlacing, type Level } from '../tools/place/placing.ts';

const BUTTON =
  'moves flex h-9 items-center gap-1 whitespace-nowrap rounded-lg bg-soot-800 px-2.5 text-[13px] text-wax-300 hover:bg-soot-700 hover:text-wax-100';

/** What this frame can be taken as. */
const STILLS = [
  { to: 'clipboard', label: 'This frame to the clipboard' },
  { to: 'file', label: 'This frame as a PNG' },
  { to: 'plate', label: 'This frame as a still plate' },
] as const;

/** Uses an element once more, from the playhead on, in the middle of the picture. */
function use(level: Level, elementId: Id): void {
  const { doc, holder } = level;
  const { width, height, planes } = shotOf(doc);
  const planeId = planes[0];
  const into = holder ? { holderId: holder.id } : planeId ? { planeId } : null;
  if (!into) return;
  const why = holder ? whyNotInside(doc, elementId, holder.id) : null;
  if (why) {
    say(why);
    return;
  }
  const at = holder ? { x: 0, y: 0 } : { x: width / 2, y: height / 2 };
  let made: Id | null = null;
  edit('use an element', (now) => {
    const placed = placeElement(now, elementId, into, { start: frameOn(level, shotFrameNow()), ...at }, randomId);
    made = placed.placementId;
    return placed.doc;
  });
  if (made) selectUses([made]);
}

function UseMenu({ level }: { level: Level }) {
  const elements = findAll(level.doc, 'element', shotOf(level.doc).elements);
  return (
    <Menu
      label="Use an element"
      className={BUTTON}
      trigger={
        <>
          <Plus size={14} /> Element
        </>
      }
    >
      {elements.map(({ id, name }) => {
        const why = level.holder ? whyNotInside(level.doc, id, level.holder.id) : null;
        return (
          <DropdownMenu.Item
            key={id}
            className={`${ITEM} ${why ? 'text-wax-500' : ''}`}
            data-tip={why ?? undefined}
            onSelect={() => {
              use(level, id);
            }}
          >
            {name}
          </DropdownMenu.Item>
        );
      })}
      <DropdownMenu.Separator className="my-1 h-px bg-soot-700" />
      <ActionItem action={SHELF_ACTIONS.shelf} label="From the shelf …" />
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          let made: Id | undefined;
          edit('add element', (doc) => {
            const added = addElement(doc, `Element ${shotOf(doc).elements.length + 1}`, shotFrameNow(), randomId);
            made = find(added.doc, 'plane', shotOf(added.doc).planes[0])?.placements[0];
            return added.doc;
          });
          openInside(null);
          if (made) selectUses([made]);
        }}
      >
        A new, empty one
      </DropdownMenu.Item>
    </Menu>
  );
}

export function Foot() {
  const doc = useDocument((s) => s.doc);
  const { inside, selected, plane } = usePlacing();
  const playing = usePlayback((s) => s.playing);
  const reached = usePlayback((s) => s.reached);
  usePlayback((s) => s.playsShot);
  if (!doc) return null;
  const level = levelOf(doc, inside);
  const whole = playsShot();
  const why = selected.length > 0 ? null : whyNotSelected();
  const onUse = selected.length === 1;
  const noLight = level.holder ? 'Light is of the shot: go back out first.' : whyNotLight(doc);
  const choose = (shot: boolean): void => {
    if (playback().playing) stopPlaying();
    setPlayback({ playsShot: shot });
  };
  return (
    <div
      className="flex h-12 shrink-0 items-center gap-2 border-t border-soot-700 bg-soot-950 px-3"
      data-testid="assemble-foot"
    >
      <ActionButton action={TIME_ACTIONS.play} pressed={playing}>
        {playing ? <Pause size={16} /> : <Play size={16} />}
      </ActionButton>
      <Words
        label="What is played"
        value={whole}
        choices={[
          { value: true, label: 'shot' },
          { value: false, label: 'element' },
        ]}
        each="h-9 px-2.5"
        className=""
        onChoose={choose}
      />
      <span className="w-20 shrink-0 font-mono text-xs text-wax-500" data-testid="reached">
        {reached === null ? '' : `${reached.toFixed(1)} of ${shotOf(doc).rate}`}
      </span>
      {(
        [
          [PLACE_ACTIONS.earlier, 'Earlier', <ChevronLeft key="i" size={16} />],
          [PLACE_ACTIONS.later, 'Later', <ChevronRight key="i" size={16} />],
        ] as const
      ).map(([action, label, icon]) => (
        <button
          key={label}
          type="button"
          aria-label={label}
          aria-disabled={why ? true : undefined}
          data-tip={why ?? action.label}
          className={`${BUTTON} ${why ? 'opacity-45' : ''}`}
          onClick={() => {
            act(action);
          }}
        >
          {label === 'Earlier' ? icon : null}
          <span className="hidden min-[1440px]:inline">{label}</span>
          {label === 'Later' ? icon : null}
        </button>
      ))}
      {/* Its place is kept: what lies beside it stays where it is. */}
      <span className="w-[72px] shrink-0">
        <Heavy />
      </span>
      <div className="ml-auto flex gap-1.5">
        <Menu label="This frame as a picture" className={BUTTON} trigger={<Camera size={15} />}>
          {STILLS.map(({ to, label }) => (
            <DropdownMenu.Item
              key={to}
              className={ITEM}
              onSelect={() => {
                void takeStill(to);
              }}
            >
              {label}
            </DropdownMenu.Item>
          ))}
        </Menu>
        <UseMenu level={level} />
        <button
          type="button"
          className={BUTTON}
          data-tip="Pictures and footage behind, between or before the planes"
          onClick={() => {
            setReferences({ shown: true });
          }}
        >
          <Plus size={14} /> Plate
        </button>
        <button
          type="button"
          aria-disabled={noLight ? true : undefined}
          className={`${BUTTON} ${noLight ? 'opacity-45' : ''}`}
          data-tip={
            noLight ?? (onUse ? 'It shines from what is picked, and flickers with it' : 'In the middle of the picture')
          }
          onClick={() => {
            const planeId = plane ?? shotOf(doc).planes[0];
            if (noLight) say(noLight);
            else if (onUse && selected[0]) addLight({ placementId: selected[0] });
            else if (planeId) addLight({ planeId });
          }}
        >
          <Plus size={14} /> Light
        </button>
        <SoundMenu className={BUTTON} />
        <button
          type="button"
          className={BUTTON}
          data-tip="In front of all others"
          onClick={() => {
            edit('add plane', (d) => addPlane(d, `Plane ${shotOf(d).planes.length + 1}`, null, randomId).doc);
          }}
        >
          <Plus size={14} /> Plane
        </button>
      </div>
    </div>
  );
}
