/**
 * What the pen drags on the wheel: the playhead, what is picked, its ends, a ring's phase, the onion skin's
 * reach, the disc. Every drag is one undo step, worked out anew from where it began.
 */
import { modulo } from '@tallow/core/geometry';
import { randomId } from '@tallow/core/document';
import { isSelected, moveSelectedRuns, rollStart, shiftPhase, spanOf, stretchSelectedRuns } from '@tallow/core/edit';
import { exposures, exposureAt, listFrame, neighbours, runStart, totalLength } from '@tallow/core/timing';
import { current, type Current } from '../selection/current.ts';
import { type SelectedRuns, selection, setSelection } from '../selection/selection.ts';
import { type Onion, setShowing, showing } from '../picture/showing.ts';
import { onScreen, setScreen } from '../screen/screen.ts';
import { playback } from '../playback/playback.ts';
import { endGesture, reEdit, say, takeBack } from '../shot/document.ts';
import { goTo } from '../playback/playhead.ts';
import { copyTo } from '../time/stretch-edits.ts';
import { whyNotTime } from '../time/time-edits.ts';
import type { WheelSpot, Zone } from './form.ts';
import { selectedNow } from '../selection/to-edit.ts';

/** How near an end of what is picked the pen takes hold of it, CSS px. */
const GRIP = 9;

/** What a drag does as it goes on and ends, and how it is taken back. */
export interface Drag {
  /** Follows the pen. Returns what is said beside it. */
  readonly move: (spot: WheelSpot) => string | null;
  readonly up: (moved: boolean) => void;
  readonly back: () => void;
}

const framesText = (first: number, count: number): string =>
  count === 1 ? `frame ${first + 1}` : `frames ${first + 1}–${first + count}`;

/** The way from one place to another on the element's time, the short way round a cycle. */
function wayOf(now: Current, from: number, to: number): number {
  const way = to - from;
  if (now.element.time !== 'cycle') return way;
  return modulo(way + now.length / 2, now.length) - now.length / 2;
}

function scrub(now: Current, from: WheelSpot): Drag {
  const { frame, turn } = selection();
  let last = Math.floor(from.time);
  goTo(last);
  return {
    move: (spot) => {
      const next = Math.floor(spot.time);
      // Over the seam the pen goes on into the next turn.
      const way = Math.round(wayOf(now, last, next));
      if (way !== 0) goTo(selection().frame + way);
      last = next;
      return null;
    },
    up: () => undefined,
    back: () => {
      setSelection({ frame, turn });
    },
  };
}

function phase(now: Current, layerId: string, from: WheelSpot): Drag {
  const gesture = `phase-${randomId()}`;
  let [last, passed] = [from.time, 0];
  return {
    move: (spot) => {
      passed += wayOf(now, last, spot.time);
      last = spot.time;
      const by = Math.round(passed);
      reEdit('phase', (doc) => shiftPhase(doc, layerId, by, randomId), gesture);
      return by === 0
        ? 'as it was'
        : `${Math.abs(by)} ${Math.abs(by) === 1 ? 'frame' : 'frames'} ${by > 0 ? 'later' : 'earlier'}`;
    },
    up: endGesture,
    back: () => {
      takeBack(gesture);
    },
  };
}

/** The run of the active layer at a place on the element's time. */
const runAt = (now: Current, time: number): number | null =>
  now.active ? (exposureAt(now.active.list, Math.floor(time), now.length)?.index ?? null) : null;

function pick(now: Current, layerId: string, from: WheelSpot): Drag {
  const before = selection().selectedRuns;
  const first = runAt(now, from.time);
  const runs = now.active!.list.runs.length;
  const closed = goesRound(now);
  let [last, span] = [first, 0];
  const range = (): SelectedRuns => ({
    layerId,
    first: modulo(first! + Math.min(0, span), runs),
    count: Math.abs(span) + 1,
  });
  return {
    move: (spot) => {
      const run = runAt(now, spot.time);
      if (first === null || last === null || run === null) return null;
      const way = closed ? modulo(run - last + runs / 2, runs) - runs / 2 : run - last;
      span = Math.max(1 - runs, Math.min(runs - 1, span + Math.round(way)));
      last = run;
      const selected = range();
      setSelection({ selectedRuns: selected });
      return `${selected.count} picked`;
    },
    up: (moved) => {
      if (moved || first === null) return;
      const isAgain = before?.layerId === layerId && before.first === first && before.count === 1;
      setSelection({ selectedRuns: isAgain ? null : range() });
      goTo(runStart(now.active!.list, first, now.length));
    },
    back: () => {
      setSelection({ selectedRuns: before });
    },
  };
}

/** Whether the active layer's drawings lead round without a gap, so that picking may cross the seam. */
const goesRound = (now: Current): boolean =>
  now.element.time === 'cycle' &&
  now.active !== undefined &&
  totalLength(now.active.list) === (now.active.list.period ?? now.length);

const lengthOf = (now: Current, selected: SelectedRuns): number =>
  spanOf(now.active!.list, selected, now.length).length;

function movePick(now: Current, selected: SelectedRuns, from: WheelSpot): Drag {
  const gesture = `move-${randomId()}`;
  const { list } = now.active!;
  const starts = exposures(list);
  const { frame, turn } = selection();
  return {
    move: (spot) => {
      // Where the pen is, on the list's own time as it was: before the first run whose middle lies beyond it.
      const local = listFrame(list, Math.floor(spot.time), now.length) + (spot.time % 1);
      const inside = starts.findIndex((e) => local < e.start + e.run.length);
      const under = inside < 0 ? starts.length - 1 : inside;
      const isOwn = isSelected(selected, under, list.runs.length);
      const to = isOwn ? selected.first : under < selected.first ? under : under + 1;
      let at = 0;
      reEdit(
        'move drawings',
        (doc) => {
          const timed = moveSelectedRuns(doc, selected.layerId, selected, to);
          at = timed.frame;
          return timed.doc;
        },
        gesture,
      );
      const start = isOwn ? runStart(list, selected.first, now.length) : at;
      const moved = current();
      const first = moved?.active && exposureAt(moved.active.list, start, moved.length)?.index;
      setSelection({ selectedRuns: { ...selected, first: first ?? selected.first } });
      goTo(isOwn ? frame : at);
      return framesText(start, lengthOf(now, selected));
    },
    up: (moved) => {
      endGesture();
      // A tap on what is picked goes there, and lets go of it when it was all there was.
      if (!moved) setSelection({ selectedRuns: null });
      if (!moved) goTo(Math.floor(from.time));
    },
    back: () => {
      takeBack(gesture);
      setSelection({ selectedRuns: selected, frame, turn });
    },
  };
}

/** Copies of what is picked, put where the pen lifts. */
function copyPick(now: Current, selected: SelectedRuns): Drag {
  const { list } = now.active!;
  let to: number | null = null;
  return {
    move: (spot) => {
      const under = runAt(now, spot.time);
      to = under === null ? list.runs.length : under;
      return `copies before frame ${under === null ? now.length + 1 : runStart(list, under, now.length) + 1}`;
    },
    up: (moved) => {
      if (moved && to !== null) copyTo(selected, to);
    },
    back: () => undefined,
  };
}

function stretch(now: Current, selected: SelectedRuns, end: 'start' | 'end', from: WheelSpot): Drag {
  const gesture = `stretch-${randomId()}`;
  const { list } = now.active!;
  const { frame, turn } = selection();
  const length = lengthOf(now, selected);
  const start = runStart(list, selected.first, now.length);
  let [last, passed] = [from.time, 0];
  return {
    move: (spot) => {
      passed += wayOf(now, last, spot.time);
      last = spot.time;
      const by = Math.round(passed);
      if (end === 'start') {
        reEdit('start of drawing', (doc) => rollStart(doc, selected.layerId, selected.first, by).doc, gesture);
        const moved = current()?.active;
        const at = moved ? runStart(moved.list, selected.first, current()!.length) : start;
        return `from frame ${at + 1}`;
      }
      const wanted = Math.max(selected.count, length + by);
      reEdit('stretch drawings', (doc) => stretchSelectedRuns(doc, selected.layerId, selected, wanted).doc, gesture);
      // Across the seam the list begins anew with the first of them.
      if (selected.first + selected.count > list.runs.length) setSelection({ selectedRuns: { ...selected, first: 0 } });
      return `${framesText(start, wanted)}, ${wanted} f`;
    },
    up: () => {
      endGesture();
      goTo(selection().frame);
    },
    back: () => {
      takeBack(gesture);
      setSelection({ frame, turn });
    },
  };
}

function reach(now: Current, side: 'before' | 'after'): Drag {
  const { onion } = showing();
  const { frame } = selection();
  const set = (settings: Partial<Onion>) => {
    setShowing({ onion: { ...showing().onion, ...settings } });
  };
  return {
    move: (spot) => {
      // The reach goes to the drawing under the pen, counted in drawings, across the seam too.
      const all = neighbours(
        now.active!,
        frame,
        now.length,
        now.element.time === 'cycle',
        side === 'before' ? 5 : 0,
        side === 'after' ? 5 : 0,
      );
      const under = runAt(now, spot.time);
      const own = runAt(now, frame);
      const found = all.find((n) => n.index === under);
      const count = under === own ? 0 : found?.distance;
      if (count !== undefined) set({ [side]: count });
      return `${showing().onion[side]} ${side}`;
    },
    up: () => undefined,
    back: () => {
      set(onion);
    },
  };
}

function turnDisc(from: WheelSpot): Drag {
  const { wheelTurn } = onScreen();
  return {
    move: (spot) => {
      setScreen({ wheelTurn: wheelTurn + spot.angle - from.angle });
      return null;
    },
    up: (moved) => {
      // A tap turns it back, the seam on top.
      if (!moved) setScreen({ wheelTurn: 0 });
    },
    back: () => {
      setScreen({ wheelTurn });
    },
  };
}

/** Keys held as the pen comes down: one moves a whole layer in time, one drags copies. */
export interface Keys {
  readonly alt: boolean;
  readonly ctrl: boolean;
}

/** What a pen begins that comes down on a place of the wheel, or null when all is done by that. */
export function beginDrag(now: Current, zone: Zone, spot: WheelSpot, keys: Keys): Drag | null {
  if (zone.kind === 'scrub') return scrub(now, spot);
  if (zone.kind === 'turn') return now.element.time === 'cycle' ? turnDisc(spot) : null;
  if (zone.kind === 'reach') return now.active ? reach(now, zone.side) : null;
  const { layerId } = zone;
  if (playback().playing || keys.alt) {
    const trouble = whyNotTime(layerId);
    if (trouble) say(trouble);
    return trouble ? null : phase(now, layerId, spot);
  }
  if (layerId !== now.active?.layer.id) {
    setSelection({ layerId, selectedRuns: null });
    return null;
  }
  const selected = selectedNow();
  const run = runAt(now, spot.time);
  if (!selected || run === null || !isSelected(selected, run, now.active.list.runs.length))
    return pick(now, layerId, spot);
  const trouble = whyNotTime();
  if (trouble) {
    say(trouble);
    return null;
  }
  const { list } = now.active;
  const start = runStart(list, selected.first, now.length);
  const length = lengthOf(now, selected);
  const into = modulo(spot.time - start, now.length);
  const grip = Math.min(GRIP / zone.pxPerFrame, length / 3);
  if (length - into < grip) return stretch(now, selected, 'end', spot);
  if (into < grip && (selected.first > 0 || now.element.time === 'cycle')) return stretch(now, selected, 'start', spot);
  return keys.ctrl ? copyPick(now, selected) : movePick(now, selected, spot);
}
