/** Actions of time: playing, stepping, drawings and their holds. */
import { moveSelectedRuns } from '@tallow/core/edit';
import { alt, ctrl, key, of, shift, named } from '../actions/action.ts';
import { current } from '../selection/current.ts';
import { playback, setPlayback, stopPlaying } from '../playback/playback.ts';
import { playsShot } from '../playback/shot-time.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { toolState, setToolState } from '../hand/tool-state.ts';
import { onScreen, setScreen } from '../screen/screen.ts';
import { say } from '../shot/document.ts';
import {
  flip,
  goTo,
  goToEnd,
  roll,
  stepDrawing,
  stepFrame,
  stepPose,
  unflip,
  whyNotPose,
} from '../playback/playhead.ts';
import {
  addBlank,
  addDrawing,
  addDrawingHere,
  copySelected,
  cutSelected,
  deleteSelected,
  duplicateDrawing,
  editTime,
  moveLastToNewDrawing,
  longestSelected,
  paste,
  selectAll,
  toggleCycle,
  shiftActive,
  whyNotDrawing,
  whyNotPaste,
  whyNotRuns,
  whyNotTime,
} from './time-edits.ts';
import { togglePanel } from '../screen/panels.ts';
import { layHere, whyNotBetween } from './between.ts';
import { goOnward } from './going-on.ts';
import {
  duplicateSelected,
  goToBare,
  insertBefore,
  own,
  pushBy,
  reverse,
  rollBy,
  split,
  stretchToEdit,
  swap,
  whyNotBare,
  whyNotOwn,
  whyNotRoll,
  whyNotStretch,
} from './stretch-edits.ts';
import { showNextVariant, whyNotNextVariant } from './variants.ts';
import { nextForm } from './forms.ts';
import { toggleFull } from '../view/viewing.ts';
import { openEngine } from '../picture/open-engine.ts';
import { selectedNow } from '../selection/to-edit.ts';

const time = of('Time');
const drawings = of('Drawings');

function togglePlay(): void {
  if (playback().playing) stopPlaying();
  else void openEngine()?.player.play();
}

/** Plays from the playhead to the end of what is played, and no further. */
function playOnce(): void {
  if (playback().playing) stopPlaying();
  else void openEngine()?.player.play(false);
}

/** Moves what is picked one drawing along, else steps a frame. */
const nudge = (by: 1 | -1) => () => {
  const selected = selectedNow();
  const runs = current()?.active?.list.runs.length ?? 0;
  if (!selected) {
    goTo(selection().frame + by);
    return;
  }
  const first = selected.first + by;
  if (first < 0 || first + selected.count > runs) {
    say('What is picked lies at the end of the layer already. Drag it across the seam on the wheel.');
    return;
  }
  editTime('move drawings', (doc, layer) =>
    moveSelectedRuns(doc, layer, selected, by < 0 ? first : first + selected.count),
  );
  setSelection({ selectedRuns: { ...selected, first } });
};

export const TIME_ACTIONS = named({
  play: time('Play or stop', [key('Space')], togglePlay),
  full: time('Full screen without controls', [shift('Space')], toggleFull),
  halfSpeed: time('Half speed', [key('KeyH')], () => {
    setPlayback({ speed: playback().speed === 0.5 ? 1 : 0.5 });
  }),
  doubleSpeed: time('Double speed', [alt('KeyP')], () => {
    setPlayback({ speed: playback().speed === 2 ? 1 : 2 });
  }),
  pingPong: time('Play to and fro', [alt('KeyH')], () => {
    setPlayback({ pingPong: !playback().pingPong });
  }),
  playsShot: time('Play all of the shot, or the element alone', [shift('Backquote')], () => {
    if (playback().playing) stopPlaying();
    setPlayback({ playsShot: !playsShot() });
  }),
  playOnce: time('Play once from here', [shift('KeyP')], playOnce),
  range: time(
    'Play this range only, or all again',
    [shift('KeyO')],
    () => {
      const stretch = stretchToEdit();
      setPlayback({ range: playback().range ? null : stretch && { from: stretch.from, length: stretch.length } });
    },
    {
      whyNot: () => (playback().range || selectedNow() ? null : 'Nothing is picked: drag over drawings on the wheel.'),
    },
  ),
  playLayers: time('Play only the picked layers', [shift('KeyI')], () => {
    setPlayback({ playsLayers: !playback().playsLayers });
  }),
  nextVariant: time('Show the next variant (A, B …)', [alt('KeyV')], showNextVariant, { whyNot: whyNotNextVariant }),
  onward: time('On to the next drawing, a new one past the last', [alt('KeyD')], goOnward, { whyNot: whyNotTime }),
  goesOn: time('Go on by itself after each stroke', [shift('KeyJ')], () => {
    setToolState({ goesOn: !toolState().goesOn });
  }),
  nextBare: time('Next slot still to be drawn', [shift('KeyN')], goToBare, { whyNot: whyNotBare }),
  form: time('Wheel, straight or sheet', [shift('KeyM')], nextForm),
  timing: time('Timing of what is picked', [alt('KeyT'), key('Semicolon')], () => {
    togglePanel('timing');
  }),
  between: time('In-betweens', [alt('KeyB'), key('Quote')], () => {
    togglePanel('between');
  }),
  betweenHere: time('Lay the in-between here', [{ code: 'KeyB', alt: true, shift: true }], layHere, {
    whyNot: whyNotBetween,
  }),
  cycle: time('Close the cycle', [alt('KeyC')], () => {
    togglePanel('cycle');
  }),
  close: time('Close into a cycle, or open it again', [{ code: 'KeyC', alt: true, shift: true }], toggleCycle, {
    whyNot: whyNotTime,
  }),
  variants: time('Variants of the timing', [alt('KeyO')], () => {
    togglePanel('variants');
  }),
  values: time('Opacity and place over time', [alt('KeyI')], () => {
    togglePanel('values');
  }),
  pieces: time('Follow one piece or one point', [alt('KeyF')], () => {
    togglePanel('piece');
  }),
  loop: time('Play round and round, or once', [shift('KeyH')], () => {
    setPlayback({ loops: !playback().loops });
  }),
  playPicked: time(
    'Play only what is picked',
    [key('KeyP')],
    () => {
      setPlayback({ playsSelected: !playback().playsSelected });
    },
    {
      whyNot: () =>
        playback().playsSelected || selectedNow() ? null : 'Nothing is picked: drag over drawings on the wheel.',
    },
  ),
  previous: time('Previous drawing', [key('KeyA')], () => {
    stepDrawing(-1);
  }),
  next: time('Next drawing', [key('KeyD')], () => {
    stepDrawing(1);
  }),
  previousPose: time(
    'Previous key or breakdown',
    [{ code: 'KeyA', alt: true, shift: true }],
    () => {
      stepPose(-1);
    },
    { whyNot: whyNotPose },
  ),
  nextPose: time(
    'Next key or breakdown',
    [{ code: 'KeyE', alt: true, shift: true }],
    () => {
      stepPose(1);
    },
    { whyNot: whyNotPose },
  ),
  previousFrame: time('Previous frame', [shift('KeyA')], () => {
    stepFrame(-1);
  }),
  nextFrame: time('Next frame', [shift('KeyD')], () => {
    stepFrame(1);
  }),
  firstFrame: time('First frame', [key('Home')], () => {
    goToEnd(-1);
  }),
  lastFrame: time('Last frame', [key('End')], () => {
    goToEnd(1);
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
    if (now) setScreen({ wheelTurn: (-2 * Math.PI * (selection().frame + 0.5)) / now.length });
  }),
  phaseBack: time(
    'Shift this ring a frame earlier',
    [key('Comma')],
    () => {
      shiftActive(-1);
    },
    { whyNot: whyNotTime },
  ),
  phaseOn: time(
    'Shift this ring a frame later',
    [key('Period')],
    () => {
      shiftActive(1);
    },
    { whyNot: whyNotTime },
  ),

  newDrawing: drawings('New drawing after this', [key('KeyS')], addDrawing, { whyNot: whyNotTime }),
  copy: drawings('Copy of this drawing', [shift('KeyS')], duplicateDrawing, { whyNot: () => whyNotDrawing('copy') }),
  blank: drawings('Blank after this', [alt('KeyS')], addBlank, { whyNot: whyNotTime }),
  newHere: drawings('New drawing from this frame of the hold', [key('KeyN')], addDrawingHere, { whyNot: whyNotRuns }),
  lift: drawings(
    'Lift the last stroke into a new drawing',
    [key('KeyL')],
    () => {
      moveLastToNewDrawing(1);
    },
    { whyNot: () => whyNotDrawing('lift strokes from') },
  ),
  longer: drawings(
    'Hold longer',
    [key('KeyG')],
    () => {
      pushBy(1);
    },
    { whyNot: whyNotRuns },
  ),
  shorter: drawings(
    'Hold shorter',
    [shift('KeyG')],
    () => {
      pushBy(-1);
    },
    {
      whyNot: () => whyNotRuns() ?? (longestSelected() === 1 ? 'It is held for one frame already.' : null),
    },
  ),
  rollOn: drawings(
    'Longer, nothing else moves',
    [alt('KeyG')],
    () => {
      rollBy(1);
    },
    { whyNot: whyNotRoll },
  ),
  rollBack: drawings(
    'Shorter, nothing else moves',
    [{ code: 'KeyG', alt: true, shift: true }],
    () => {
      rollBy(-1);
    },
    { whyNot: whyNotRoll },
  ),
  split: drawings('Split the hold here', [alt('KeyN')], split, { whyNot: whyNotRuns }),
  reverse: drawings('Turn what is picked round', [alt('KeyR')], reverse, { whyNot: whyNotStretch }),
  swap: drawings('Swap with the next, or first with last', [alt('KeyX')], swap, { whyNot: whyNotRoll }),
  own: drawings('Make this one its own', [alt('KeyJ')], own, { whyNot: whyNotOwn }),
  insertBefore: drawings('New drawing before this', [{ code: 'KeyS', alt: true, shift: true }], insertBefore, {
    whyNot: whyNotRuns,
  }),
  duplicate: drawings('Copies of what is picked', [alt('KeyL')], duplicateSelected, { whyNot: whyNotRuns }),
  together: drawings('Change all layers together', [alt('KeyU')], () => {
    setSelection({ together: !selection().together });
  }),
  remove: drawings(
    'Delete, later ones close up',
    [key('Delete')],
    () => {
      deleteSelected('close up');
    },
    { whyNot: whyNotRuns },
  ),
  removeHold: drawings(
    'Delete, the one before is held on',
    [shift('Delete')],
    () => {
      deleteSelected('hold before');
    },
    { whyNot: whyNotRuns },
  ),
  copyDrawings: drawings(
    'Copy drawings',
    [ctrl('KeyC')],
    () => {
      copySelected();
    },
    { whyNot: whyNotRuns },
  ),
  cutDrawings: drawings('Cut drawings', [ctrl('KeyX')], cutSelected, { whyNot: whyNotRuns }),
  paste: drawings('Paste after this', [ctrl('KeyV')], paste, {
    whyNot: whyNotPaste,
    // With nothing copied here, what the clipboard holds may be a picture: the browser is left to paste it.
    leavesKey: () => !selection().clip,
  }),
  pickAll: drawings('Pick all of this layer', [], selectAll, { whyNot: whyNotTime }),
  pickNone: drawings('Pick nothing', [key('Escape')], () => {
    if (onScreen().full) toggleFull();
    else {
      setSelection({ selectedRuns: null });
      setPlayback({ playsSelected: false });
    }
  }),
  newOnHeld: drawings('New drawing on held frames', [key('KeyJ')], () => {
    setToolState({ newOnHeld: !toolState().newOnHeld });
  }),
});
