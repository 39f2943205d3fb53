/** The buttons by which a drawing is judged: what lies behind it, and how it is seen for a moment. */
import { Eclipse, Images, Repeat2, Wallpaper, Sparkles } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { HoldButton } from '../actions/hold-button.tsx';
import { ITEM, Menu } from '../parts/menu.tsx';
import { setShowing, useShowing } from '../picture/showing.ts';
import { setToolState, takeTool } from '../hand/tool-state.ts';
import { setReferences, useReferences } from '../references/references.ts';
import { ActionButton } from '../actions/action-button.tsx';
import { PICTURE_ACTIONS } from '../picture/actions.ts';
import { TIME_ACTIONS } from '../time/actions.ts';

/** Colours to judge on in place of the background: never exported. */
const BACKDROPS = [
  { colour: '#262626', label: '15 % grey' },
  { colour: '#23427a', label: 'blue' },
  { colour: '#7f7f7f', label: 'mid grey' },
  { colour: '#f2f2f2', label: 'paper' },
] as const;

function Backdrop() {
  const backdrop = useShowing((s) => s.backdrop);
  return (
    <Menu
      label="Backdrop for judging"
      className={`grid size-8 place-items-center rounded-lg hover:bg-black/25 ${backdrop ? 'text-flame' : 'text-wax-300'}`}
      trigger={<Wallpaper size={15} />}
    >
      <p className="max-w-56 px-2 py-1 text-xs text-wax-500">
        In place of the background, for judging only. Never exported.
      </p>
      <DropdownMenu.RadioGroup
        value={backdrop ?? ''}
        onValueChange={(colour) => {
          setShowing({ backdrop: colour === '' ? null : colour });
        }}
      >
        {[{ colour: '', label: 'the shot’s own' }, ...BACKDROPS].map(({ colour, label }) => (
          <DropdownMenu.RadioItem key={colour} value={colour} className={`${ITEM} data-[state=checked]:text-flame`}>
            <span
              className="size-4 rounded border border-soot-700"
              style={{ background: colour || 'repeating-linear-gradient(45deg,#332b25 0 3px,#231c17 3px 6px)' }}
            />
            {label}
          </DropdownMenu.RadioItem>
        ))}
      </DropdownMenu.RadioGroup>
    </Menu>
  );
}

/** For judging the picture: rolling through neighbours, the silhouette, a backdrop. */
/** @param planning whether the column is Plan's, which has no place for references. */
export function Judging({ planning }: { planning: boolean }) {
  const shown = useReferences((s) => s.shown);
  const finished = useShowing((s) => s.finished);
  return (
    <div
      role="group"
      aria-label="For judging"
      className="absolute bottom-2 right-2 z-10 flex rounded-lg bg-surround/70 [&_button:hover]:!bg-black/25"
    >
      <HoldButton action={TIME_ACTIONS.roll}>
        <Repeat2 size={16} />
      </HoldButton>
      <HoldButton action={PICTURE_ACTIONS.silhouette}>
        <Eclipse size={15} />
      </HoldButton>
      <ActionButton action={PICTURE_ACTIONS.finished} pressed={finished}>
        <Sparkles size={15} />
      </ActionButton>
      <Backdrop />
      {planning ? null : (
        <button
          type="button"
          aria-label="References"
          aria-pressed={shown}
          data-tip="References: pictures to draw to, under or beside the picture"
          className={`grid size-8 place-items-center rounded-lg ${shown ? 'text-flame' : 'text-wax-300'}`}
          onClick={() => {
            setReferences({ shown: !shown });
            takeTool(null);
            setToolState({ brushShown: false });
          }}
        >
          <Images size={16} />
        </button>
      )}
    </div>
  );
}
