/** Everything that can be done by a button and by a key: one list, from which both are made. */
import { fittedView, desk, setDesk, type Onion } from './desk.ts';
import { movePicked } from '@tallow/core/edit';
import { openEngine } from './session.ts';
import { current, shownNow } from './current.ts';
import { redo, say, undo, useDocument } from './document.ts';
import { flip, goTo, roll, stepDrawing, unflip } from './playhead.ts';
import { ranges } from './onion.ts';
import {
  addBlank,
  addDrawing,
  addDrawingHere,
  copyInHand,
  cutInHand,
  deleteInHand,
  duplicateDrawing,
  editTime,
  heldFor,
  hold,
  lift,
  paste,
  pickAll,
  pickedNow,
  setActiveStill,
  shiftActive,
  whyNotDrawing,
  whyNotPaste,
  whyNotPhase,
  whyNotRuns,
  whyNotTime,
} from './time-edits.ts';
import { holding, shotSize, toggleFull, turnBy, zoomBy } from './viewing.ts';
import { toggleAlone, toggleDim, toggleLockOthers } from './one-layer.ts';

export interface Key {
  /** Physical key, as in `KeyboardEvent.code`. */
  readonly code: string;
  readonly shift?: boolean;
  readonly ctrl?: boolean;
  readonly alt?: boolean;
}

export const GROUPS = ['Time', 'Drawings', 'Onion skin', 'Layers', 'Picture', 'Tools', 'General'] as const;

export interface Action {
  readonly label: string;
  readonly group: (typeof GROUPS)[number];
  /** Keys before any of the user's own. */
  readonly keys: readonly Key[];
  readonly run: () => void;
  /** What letting go of the key does, for actions that last as long as it is held. */
  readonly release?: () => void;
  /** Why it cannot be done now, said to the user, or null. */
  readonly whyNot?: () => string | null;
}

const key = (code: string, more: Omit<Key, 'code'> = {}): Key => ({ code, ...more });
const shift = (code: string): Key => ({ code, shift: true });
const ctrl = (code: string): Key => ({ code, ctrl: true });
const alt = (code: string): Key => ({ code, alt: true });

type Rest = Pick<Action, 'run' | 'release' | 'whyNot'>;
const of =
  (group: Action['group']) =>
  (label: string, keys: readonly Key[], run: () => void, more: Omit<Rest, 'run'> = {}): Action => ({
    label,
    group,
    keys,
    run,
    ...more,
  });
const time = of('Time');
const drawings = of('Drawings');
const onion = of('Onion skin');
const layers = of('Layers');
const picture = of('Picture');
const tools = of('Tools');
const general = of('General');

export function togglePlay(): void {
  const player = openEngine()?.player;
  if (desk().playing) player?.stop();
  else void player?.play();
}

const historyWhyNot = (which: 'done' | 'undone') => () =>
  useDocument.getState()[which].length > 0 ? null : `There is nothing to ${which === 'done' ? 'undo' : 'redo'}.`;

const setOnion = (settings: Partial<Onion>): void => {
  setDesk({ onion: { ...desk().onion, ...settings } });
};

/** Moves what is picked one drawing along, else steps a frame. */
const nudge = (by: 1 | -1) => () => {
  const picked = pickedNow();
  const runs = current()?.active?.list.runs.length ?? 0;
  if (!picked) {
    goTo(desk().frame + by);
    return;
  }
  const first = picked.first + by;
  if (first < 0 || first + picked.count > runs) {
    say('What is picked lies at the end of the layer already. Drag it across the seam on the wheel.');
    return;
  }
  editTime('move drawings', (doc, layer) => movePicked(doc, layer, picked, by < 0 ? first : first + picked.count));
  setDesk({ picked: { ...picked, first } });
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
  play: time('Play or stop', [key('Space')], togglePlay),
  full: time('Full screen without controls', [shift('Space')], toggleFull),
  halfSpeed: time('Half speed', [key('KeyH')], () => {
    setDesk({ speed: desk().speed === 1 ? 0.5 : 1 });
  }),
  loop: time('Play round and round, or once', [shift('KeyH')], () => {
    setDesk({ loops: !desk().loops });
  }),
  playPicked: time(
    'Play only what is picked',
    [key('KeyP')],
    () => {
      setDesk({ playsPicked: !desk().playsPicked });
    },
    {
      whyNot: () => (desk().playsPicked || pickedNow() ? null : 'Nothing is picked: drag over drawings on the wheel.'),
    },
  ),
  previous: time('Previous drawing', [key('KeyA')], () => {
    stepDrawing(-1);
  }),
  next: time('Next drawing', [key('KeyD')], () => {
    stepDrawing(1);
  }),
  previousFrame: time('Previous frame', [shift('KeyA')], () => {
    goTo(desk().frame - 1);
  }),
  nextFrame: time('Next frame', [shift('KeyD')], () => {
    goTo(desk().frame + 1);
  }),
  nudgeBack: time('Nudge what is picked back, else a frame back', [key('ArrowLeft')], nudge(-1)),
  nudgeOn: time('Nudge what is picked on, else a frame on', [key('ArrowRight')], nudge(1)),
  flipBefore: time(
    'Hold to see the drawing before',
    [key('KeyQ')],
    () => {
      flip(-1);
    },
    { release: unflip },
  ),
  flipAfter: time(
    'Hold to see the drawing after',
    [key('KeyE')],
    () => {
      flip(1);
    },
    { release: unflip },
  ),
  roll: time('Hold to roll through the neighbours', [shift('KeyE')], roll, { release: unflip }),
  wheelHere: time('Turn the wheel: this frame on top', [shift('KeyT')], () => {
    const now = current();
    if (now) setDesk({ wheelTurn: (-2 * Math.PI * (desk().frame + 0.5)) / now.length });
  }),
  phaseBack: time(
    'Shift this ring a frame earlier',
    [key('Comma')],
    () => {
      shiftActive(-1);
    },
    { whyNot: whyNotPhase },
  ),
  phaseOn: time(
    'Shift this ring a frame later',
    [key('Period')],
    () => {
      shiftActive(1);
    },
    { whyNot: whyNotPhase },
  ),

  newDrawing: drawings('New drawing after this', [key('KeyS')], addDrawing, { whyNot: whyNotTime }),
  copy: drawings('Copy of this drawing', [shift('KeyS')], duplicateDrawing, { whyNot: () => whyNotDrawing('copy') }),
  blank: drawings('Blank after this', [alt('KeyS')], addBlank, { whyNot: whyNotTime }),
  newHere: drawings('New drawing from this frame of the hold', [key('KeyN')], addDrawingHere, { whyNot: whyNotRuns }),
  lift: drawings(
    'Lift the last stroke into a new drawing',
    [key('KeyL')],
    () => {
      lift(1);
    },
    { whyNot: () => whyNotDrawing('lift strokes from') },
  ),
  longer: drawings(
    'Hold longer',
    [key('KeyG')],
    () => {
      hold((heldFor(current(), desk().frame) ?? 0) + 1);
    },
    { whyNot: whyNotRuns },
  ),
  shorter: drawings(
    'Hold shorter',
    [shift('KeyG')],
    () => {
      hold((heldFor(current(), desk().frame) ?? 2) - 1);
    },
    {
      whyNot: () =>
        whyNotRuns() ?? (heldFor(current(), desk().frame) === 1 ? 'It is held for one frame already.' : null),
    },
  ),
  remove: drawings(
    'Delete, later ones close up',
    [key('Delete')],
    () => {
      deleteInHand('close up');
    },
    { whyNot: whyNotRuns },
  ),
  removeHold: drawings(
    'Delete, the one before is held on',
    [shift('Delete')],
    () => {
      deleteInHand('hold before');
    },
    { whyNot: whyNotRuns },
  ),
  copyDrawings: drawings(
    'Copy drawings',
    [ctrl('KeyC')],
    () => {
      copyInHand();
    },
    { whyNot: whyNotRuns },
  ),
  cutDrawings: drawings('Cut drawings', [ctrl('KeyX')], cutInHand, { whyNot: whyNotRuns }),
  paste: drawings('Paste after this', [ctrl('KeyV')], paste, { whyNot: whyNotPaste }),
  pickAll: drawings('Pick all of this layer', [ctrl('KeyA')], pickAll, { whyNot: whyNotTime }),
  pickNone: drawings('Pick nothing', [key('Escape')], () => {
    if (desk().full) toggleFull();
    else setDesk({ picked: null, playsPicked: false });
  }),
  newOnHeld: drawings('New drawing on held frames', [key('KeyJ')], () => {
    setDesk({ newOnHeld: !desk().newOnHeld });
  }),

  onion: onion('On or off', [key('KeyW')], () => {
    setOnion({ on: !desk().onion.on });
  }),
  onionRange: onion('Range: before only, one each side, three each side', [shift('KeyW')], () => {
    setOnion({ on: true, ...ranges.next(desk().onion) });
  }),
  onionLook: onion('Outline only or full', [alt('KeyW')], () => {
    setOnion({ on: true, look: desk().onion.look === 'full' ? 'outline' : 'full' });
  }),
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

  ink: tools('Ink', [key('Digit1')], () => {
    setDesk({ tool: 'ink' });
  }),
  shape: tools('Shape', [key('Digit2')], () => {
    setDesk({ tool: 'shape' });
  }),
  rub: tools('Rub out', [key('Digit3'), key('KeyX')], () => {
    setDesk({ tool: 'rub' });
  }),
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
