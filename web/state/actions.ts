/** Everything that can be done by a button and by a key: one list, from which both are made. */
import { ctrl, key, of, shift, alt, type Action } from './action.ts';
import { current, shownNow } from './current.ts';
import { desk, setDesk, type Onion } from './desk.ts';
import { fittedView } from './view.ts';
import { redo, say, undo, useDocument } from './document.ts';
import { toggleAlone, toggleDim, toggleLockOthers } from './one-layer.ts';
import { PICK_ACTIONS } from './pick-actions.ts';
import { ranges } from './onion.ts';
import { TIME_ACTIONS } from './time-actions.ts';
import { ghostsBack, whyNotBack } from './trace.ts';
import { TOOL_ACTIONS } from './tool-actions.ts';
import { setActiveStill } from './time-edits.ts';
import { holding, shotSize, turnBy, zoomBy } from './viewing.ts';

const onion = of('Onion skin');
const layers = of('Layers');
const picture = of('Picture');
const tools = of('Tools');
const general = of('General');

const historyWhyNot = (which: 'done' | 'undone') => () =>
  useDocument.getState()[which].length > 0 ? null : `There is nothing to ${which === 'done' ? 'undo' : 'redo'}.`;

const setOnion = (settings: Partial<Onion>): void => {
  setDesk({ onion: { ...desk().onion, ...settings } });
};

const pinHere = (): void => {
  const now = current();
  const shown = now && shownNow(now, desk().frame);
  if (!shown) return;
  const { pinned } = desk();
  const { drawingId } = shown;
  setDesk({ pinned: pinned.includes(drawingId) ? pinned.filter((id) => id !== drawingId) : [...pinned, drawingId] });
};

export const ACTIONS = {
  ...TIME_ACTIONS,
  onion: onion('On or off', [key('KeyW')], () => {
    setOnion({ on: !desk().onion.on });
  }),
  onionRange: onion('Range: before only, one each side, three each side', [shift('KeyW')], () => {
    setOnion({ on: true, ...ranges.next(desk().onion) });
  }),
  onionLook: onion('Outline only or full', [alt('KeyW')], () => {
    setOnion({ on: true, look: desk().onion.look === 'full' ? 'outline' : 'full' });
  }),
  trace: onion('Move ghosts for tracing', [shift('KeyQ')], () => {
    setDesk({ hand: desk().hand === 'trace' ? 'draw' : 'trace' });
  }),
  ghostsBack: onion('Put all ghosts back', [alt('KeyK')], ghostsBack, { whyNot: whyNotBack }),
  pin: onion('Pin this drawing as a ghost, or unpin it', [key('KeyK')], pinHere, {
    whyNot: () => (current() && shownNow(current()!, desk().frame) ? null : 'There is no drawing here to pin.'),
  }),

  alone: layers('Show this layer alone', [key('KeyI')], toggleAlone),
  dim: layers('Dim all others', [key('KeyO')], toggleDim),
  lockOthers: layers('Lock all others', [key('KeyU')], toggleLockOthers),
  still: layers(
    'Still layer: one drawing throughout',
    [],
    () => {
      setActiveStill(current()?.active?.list.period !== 1);
    },
    { whyNot: () => (current()?.active?.layer.locked ? 'The layer is locked. Unlock it first.' : null) },
  ),

  planMarks: picture(
    'Hold for Plan’s marks while drawing',
    [key('KeyY')],
    () => {
      setDesk({ planHeld: true });
    },
    {
      release: () => {
        setDesk({ planHeld: false });
      },
    },
  ),
  silhouette: picture(
    'Hold for the silhouette',
    [key('KeyB')],
    () => {
      setDesk({ silhouette: true });
    },
    {
      release: () => {
        setDesk({ silhouette: false });
      },
    },
  ),
  looks: picture('Looks on or off while drawing', [alt('KeyZ')], () => {
    setDesk({ looks: !desk().looks });
  }),
  finished: picture('Finished look: what will be taken away', [shift('KeyY')], () => {
    setDesk({ finished: !desk().finished });
  }),
  panels: picture('Hide or show column, strip and tray', [key('Backquote')], () => {
    setDesk({ panels: !desk().panels });
  }),
  zoomIn: picture('Zoom in', [key('Equal')], zoomBy(1.25)),
  zoomOut: picture('Zoom out', [key('Minus')], zoomBy(0.8)),
  turnLeft: picture('Turn left', [key('BracketLeft')], turnBy(-15)),
  turnRight: picture('Turn right', [key('BracketRight')], turnBy(15)),
  upright: picture('Upright', [shift('KeyR')], () => {
    setDesk({ fitted: false, view: { ...desk().view, angle: 0 } });
  }),
  mirror: picture('Mirror', [key('KeyM')], () => {
    const { view: v } = desk();
    setDesk({ view: { ...v, mirrored: !v.mirrored, angle: -v.angle, panX: -v.panX } });
  }),
  fit: picture('Fit', [key('Digit0')], () => {
    setDesk({ fitted: true, view: fittedView(shotSize(), desk().area) });
  }),
  pan: picture('Hold to move the picture', [key('KeyT')], holding('pan').run, { release: holding('pan').release }),
  turn: picture('Hold to turn the picture', [key('KeyR')], holding('turn').run, { release: holding('turn').release }),

  ...TOOL_ACTIONS,
  ...PICK_ACTIONS,
  width: tools('Hold and drag sideways for width', [key('KeyZ')], holding('width').run, {
    release: holding('width').release,
  }),

  undo: general('Undo', [ctrl('KeyZ')], undo, { whyNot: historyWhyNot('done') }),
  redo: general('Redo', [key('KeyZ', { ctrl: true, shift: true }), ctrl('KeyY')], redo, {
    whyNot: historyWhyNot('undone'),
  }),
  keys: general('Show the keys', [shift('Slash')], () => {
    setDesk({ keysShown: !desk().keysShown });
  }),
} as const satisfies Record<string, Action>;

export type ActionName = keyof typeof ACTIONS;
export const ACTION_NAMES = Object.keys(ACTIONS) as ActionName[];

/** Runs an action, or says why it cannot be done. */
export function act(name: ActionName): void {
  const action: Action = ACTIONS[name];
  const trouble = action.whyNot?.() ?? null;
  if (trouble) say(trouble);
  else action.run();
}
