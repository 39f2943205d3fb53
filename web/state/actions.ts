/** Everything that can be done by a button and by a key: one list, from which both are made. */
import { randomId, type Id } from '@tallow/core/document';
import {
  copyDrawing,
  deleteExposure,
  holdFor,
  insertBlank,
  layerOn,
  newDrawing,
  setElementTime,
  type Timed,
} from '@tallow/core/edit';
import { exposureAt, exposures, runStart } from '@tallow/core/timing';
import type { ShotDocument } from '@tallow/core/document';
import { shotSize } from '../desk/pen.ts';
import { current, shownNow, type Current } from './current.ts';
import { desk, fittedView, setDesk, viewAbout } from './desk.ts';
import { edit, redo, say, undo, useDocument } from './document.ts';
import { openEngine, openSaver } from './session.ts';

export interface Key {
  /** Physical key, as in `KeyboardEvent.code`. */
  readonly code: string;
  readonly shift?: boolean;
  readonly ctrl?: boolean;
  readonly alt?: boolean;
}

export interface Action {
  readonly label: string;
  readonly group: 'Time' | 'Drawings' | 'View' | 'Drawing tools' | 'General';
  readonly keys: readonly Key[];
  readonly run: () => void;
  /** Why it cannot be done now, said to the user, or null. */
  readonly whyNot?: () => string | null;
}

const NO_LAYER = 'There is no layer. Add one first.';

/** Why the active layer's time cannot be changed now, or null. */
function whyNotTime(): string | null {
  const now = current();
  if (!now?.active) return NO_LAYER;
  const { layer, list } = now.active;
  if (layer.locked) return `“${layer.name}” is locked. Unlock it first.`;
  if (list.period === 1) return `“${layer.name}” is still: it shows one drawing throughout.`;
  return null;
}

function whyNotShown(): string | null {
  const now = current();
  return (
    whyNotTime() ??
    (now?.active && exposureAt(now.active.list, desk().frame, now.length) ? null : 'Nothing shows on this frame.')
  );
}

/** Goes to a frame of the active element, round and round on a cycle. */
export function goTo(frame: number): void {
  const now = current();
  if (!now) return;
  if (desk().playing) openEngine()?.player.stop();
  const wraps = now.element.time === 'cycle';
  const next = wraps ? ((frame % now.length) + now.length) % now.length : Math.min(now.length - 1, Math.max(0, frame));
  setDesk({ frame: next });
}

/** Goes to the drawing before (-1) or after (1) on the active layer. */
function stepDrawing(by: 1 | -1): void {
  const now = current();
  if (!now?.active) return;
  const { list } = now.active;
  const starts = exposures(list)
    .map(({ index }) => runStart(list, index, now.length))
    .sort((a, b) => a - b);
  const { frame } = desk();
  const wraps = now.element.time === 'cycle';
  const found =
    by === 1 ? starts.find((s) => s > frame) : starts.findLast((s) => s < (exposureStart(now, frame) ?? frame));
  const round = by === 1 ? starts[0] : starts.at(-1);
  const next = found ?? (wraps ? round : undefined);
  if (next !== undefined) goTo(next);
}

function exposureStart(now: Current, frame: number): number | undefined {
  const here = now.active && exposureAt(now.active.list, frame, now.length);
  return here && now.active ? runStart(now.active.list, here.index, now.length) : undefined;
}

/** Runs an edit of time on the active layer and puts the playhead where it belongs, in one step. */
function editTime(name: string, change: (doc: ShotDocument, layerId: Id, frame: number) => Timed): void {
  const now = current();
  if (!now?.active) return;
  let frame = desk().frame;
  edit(name, (doc) => {
    const timed = change(doc, now.active!.layer.id, frame);
    frame = timed.frame;
    return timed.doc;
  });
  goTo(frame);
}

/** Waits for the drawing on the playhead if it is still being fetched, then does something with it. */
function withDrawing(then: () => void): void {
  const now = current();
  const id = now && shownNow(now, desk().frame)?.drawingId;
  if (!id || !useDocument.getState().missing.has(id)) {
    then();
    return;
  }
  void openSaver()
    ?.load([id])
    .then(then, () => {
      say('This drawing is not loaded yet and the server cannot be reached. Try again when it can.');
    });
}

/** Holds what is shown for so many frames. */
export const hold = (length: number): void => {
  editTime(`hold ${length}s`, (doc, layer, frame) => holdFor(doc, layer, frame, length));
};
export const wholeLayerOn = (length: number): void => {
  editTime(`whole layer on ${length}s`, (doc, layer, frame) => layerOn(doc, layer, frame, length));
};

/** Frames the drawing on the playhead is held for, or null where nothing shows. */
export function heldFor(now: Current | null, frame: number): number | null {
  return (now?.active && exposureAt(now.active.list, frame, now.length)?.run.length) ?? null;
}

export function togglePlay(): void {
  const player = openEngine()?.player;
  if (desk().playing) player?.stop();
  else void player?.play();
}

const zoomBy = (factor: number) => () => {
  const { view, area } = desk();
  setDesk({ fitted: false, view: viewAbout(view, area, { x: area.width / 2, y: area.height / 2 }, factor) });
};
const turnBy = (degrees: number) => () => {
  const { view, area } = desk();
  setDesk({
    fitted: false,
    view: viewAbout(view, area, { x: area.width / 2, y: area.height / 2 }, 1, (degrees * Math.PI) / 180),
  });
};

const historyWhyNot = (which: 'done' | 'undone') => () =>
  useDocument.getState()[which].length > 0 ? null : `There is nothing to ${which === 'done' ? 'undo' : 'redo'}.`;

const time = (label: string, keys: Key[], run: () => void, whyNot?: () => string | null): Action => ({
  label,
  group: 'Time',
  keys,
  run,
  ...(whyNot ? { whyNot } : {}),
});
const drawings = (label: string, keys: Key[], run: () => void, whyNot: () => string | null): Action => ({
  label,
  group: 'Drawings',
  keys,
  run,
  whyNot,
});
const view = (label: string, keys: Key[], run: () => void): Action => ({ label, group: 'View', keys, run });

export const ACTIONS = {
  play: time('Play or stop', [{ code: 'Space' }], togglePlay),
  previous: time('Previous drawing', [{ code: 'KeyA' }], () => {
    stepDrawing(-1);
  }),
  next: time('Next drawing', [{ code: 'KeyD' }], () => {
    stepDrawing(1);
  }),
  previousFrame: time('Previous frame', [{ code: 'KeyA', shift: true }, { code: 'ArrowLeft' }], () => {
    goTo(desk().frame - 1);
  }),
  nextFrame: time('Next frame', [{ code: 'KeyD', shift: true }, { code: 'ArrowRight' }], () => {
    goTo(desk().frame + 1);
  }),
  onion: time('Onion skin on or off', [{ code: 'KeyW' }], () => {
    setDesk({ onion: { ...desk().onion, on: !desk().onion.on } });
  }),
  onionRange: time('Onion skin range', [{ code: 'KeyW', shift: true }], () => {
    const { before, after } = desk().onion;
    const next =
      before === 1 && after === 0
        ? { before: 1, after: 1 }
        : before === 1 && after === 1
          ? { before: 3, after: 3 }
          : { before: 1, after: 0 };
    setDesk({ onion: { on: true, ...next } });
  }),
  newDrawing: drawings(
    'New drawing after this',
    [{ code: 'KeyS' }],
    () => {
      editTime('new drawing', (doc, layer, frame) => newDrawing(doc, layer, frame, randomId));
    },
    whyNotTime,
  ),
  copy: drawings(
    'Copy of this drawing',
    [{ code: 'KeyS', shift: true }],
    () => {
      withDrawing(() => {
        editTime('copy of drawing', (doc, layer, frame) => copyDrawing(doc, layer, frame, randomId));
      });
    },
    () => {
      const now = current();
      return whyNotTime() ?? (now && shownNow(now, desk().frame) ? null : 'There is no drawing here to copy.');
    },
  ),
  blank: drawings(
    'Blank after this',
    [{ code: 'KeyS', alt: true }],
    () => {
      editTime('blank', (doc, layer, frame) => insertBlank(doc, layer, frame, randomId));
    },
    whyNotTime,
  ),
  remove: drawings(
    'Delete this drawing',
    [{ code: 'Delete' }],
    () => {
      withDrawing(() => {
        editTime('delete drawing', deleteExposure);
      });
    },
    whyNotShown,
  ),
  longer: drawings(
    'Hold longer',
    [{ code: 'KeyG' }],
    () => {
      hold((heldFor(current(), desk().frame) ?? 0) + 1);
    },
    whyNotShown,
  ),
  shorter: drawings(
    'Hold shorter',
    [{ code: 'KeyG', shift: true }],
    () => {
      hold((heldFor(current(), desk().frame) ?? 2) - 1);
    },
    () => whyNotShown() ?? (heldFor(current(), desk().frame) === 1 ? 'It is held for one frame already.' : null),
  ),
  ink: {
    label: 'Ink',
    group: 'Drawing tools',
    keys: [{ code: 'Digit1' }],
    run: () => {
      setDesk({ tool: 'ink' });
    },
  },
  rub: {
    label: 'Rub out',
    group: 'Drawing tools',
    keys: [{ code: 'Digit2' }, { code: 'KeyX' }],
    run: () => {
      setDesk({ tool: 'rub' });
    },
  },
  zoomIn: view('Zoom in', [{ code: 'Equal' }], zoomBy(1.25)),
  zoomOut: view('Zoom out', [{ code: 'Minus' }], zoomBy(0.8)),
  turnLeft: view('Turn left', [{ code: 'BracketLeft' }], turnBy(-15)),
  turnRight: view('Turn right', [{ code: 'BracketRight' }], turnBy(15)),
  upright: view('Upright', [{ code: 'KeyR', shift: true }], () => {
    setDesk({ fitted: false, view: { ...desk().view, angle: 0 } });
  }),
  mirror: view('Mirror', [{ code: 'KeyM' }], () => {
    const { view: v } = desk();
    setDesk({ view: { ...v, mirrored: !v.mirrored, angle: -v.angle, panX: -v.panX } });
  }),
  fit: view('Fit', [{ code: 'Digit0' }], () => {
    setDesk({ fitted: true, view: fittedView(shotSize(), desk().area) });
  }),
  undo: {
    label: 'Undo',
    group: 'General',
    keys: [{ code: 'KeyZ', ctrl: true }],
    run: undo,
    whyNot: historyWhyNot('done'),
  },
  redo: {
    label: 'Redo',
    group: 'General',
    keys: [
      { code: 'KeyZ', ctrl: true, shift: true },
      { code: 'KeyY', ctrl: true },
    ],
    run: redo,
    whyNot: historyWhyNot('undone'),
  },
  keys: {
    label: 'Show the keys',
    group: 'General',
    keys: [{ code: 'Slash', shift: true }],
    run: () => {
      setDesk({ keysShown: !desk().keysShown });
    },
  },
} as const satisfies Record<string, Action>;

export type ActionName = keyof typeof ACTIONS;

/** Runs an action, or says why it cannot be done. */
export function act(name: ActionName): void {
  const action: Action = ACTIONS[name];
  const trouble = action.whyNot?.() ?? null;
  if (trouble) say(trouble);
  else action.run();
}

/** Closes the active element into a cycle, ends it as a one-shot, or opens it again. */
export function setTime(value: 'open' | 'cycle' | 'one-shot'): void {
  const now = current();
  const names = { open: 'open the element', cycle: 'close into a cycle', 'one-shot': 'end as a one-shot' };
  if (now) edit(names[value], (doc) => setElementTime(doc, now.element.id, value));
}

/** Keys that act for as long as they are held. */
export const HELD: readonly { code: string; label: string; holding: 'pan' | 'turn' | 'width' }[] = [
  { code: 'KeyT', label: 'Hold to move the picture', holding: 'pan' },
  { code: 'KeyR', label: 'Hold to turn the picture', holding: 'turn' },
  { code: 'KeyZ', label: 'Hold and drag sideways for width', holding: 'width' },
];
