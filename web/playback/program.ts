/** What is played: frames of the shot one after another, each as it is or with a kept variant shown. */
import { find, shotOf, type Id } from '@tallow/core/document';
import { spanOf, variantsOf } from '@tallow/core/edit';
import { withVariant } from '@tallow/core/render';
import { bounced, elementLength } from '@tallow/core/timing';
import { shotFrameOf, type Current } from '../selection/current.ts';
import type { SelectedRuns, Selection } from '../selection/selection.ts';
import type { Playback } from './playback.ts';

export interface PlaybackFrame {
  readonly shotFrame: number;
  /** Frame of the element and turn, for the playhead. */
  readonly frame: number;
  readonly turn: number;
  /** Whether the playhead on the shot goes along in place of that of the element. */
  readonly ofShot?: true;
  readonly variant: Id | null;
}

export type Playing = Pick<Selection, 'turn'> &
  Pick<Playback, 'range' | 'playsSelected' | 'pingPong' | 'inTurn'> & {
    /** Whether all of the shot is played. */
    readonly shot?: boolean;
  };

/** The stretch of a turn that is played, or null for all turns of the element. */
function stretchOf(
  now: Current,
  playing: Playing,
  selected: SelectedRuns | null,
): { from: number; length: number } | null {
  if (playing.playsSelected && selected && now.active) {
    const { from, length } = spanOf(now.active.list, selected, now.length);
    return { from, length: Math.min(length, now.length) };
  }
  const { range } = playing;
  return range && { from: Math.min(range.from, now.length - 1), length: Math.min(range.length, now.length) };
}

/** Frames from a place of the element's time on, through its turns. */
function playbackFramesFrom(
  now: Current,
  from: number,
  length: number,
  turn: number,
  variant: Id | null,
): PlaybackFrame[] {
  const whole = now.length * now.turns;
  return Array.from({ length }, (_, i) => {
    const at = (turn * now.length + from + i) % whole;
    const [frame, own] = [at % now.length, Math.floor(at / now.length)];
    return { shotFrame: shotFrameOf(now, frame, own), frame, turn: own, variant };
  });
}

/** One turn of each variant after another: the one shown now in its place among them. */
function variantsInTurn(now: Current): PlaybackFrame[] {
  return variantsOf(now.doc, now.element.id).flatMap(({ id, held }) => {
    if (!held) return playbackFramesFrom(now, 0, now.length, 0, null);
    const doc = withVariant(now.doc, id);
    const length = elementLength(doc, find(doc, 'element', now.element.id)!);
    return Array.from({ length }, (_, frame) => ({
      shotFrame: shotFrameOf(now, 0, 0) + frame,
      frame: Math.min(frame, now.length - 1),
      turn: 0,
      variant: id,
    }));
  });
}

/** All frames of the shot. */
function shotPlaybackFrames({ doc, length }: Current): PlaybackFrame[] {
  return Array.from({ length: shotOf(doc).length }, (_, shotFrame) => ({
    shotFrame,
    frame: shotFrame % length,
    turn: Math.floor(shotFrame / length),
    ofShot: true as const,
    variant: null,
  }));
}

/** All that is played before it begins again, at least one frame. */
export function programOf(now: Current, playing: Playing, selected: SelectedRuns | null): PlaybackFrame[] {
  const turns = playing.shot ? shotPlaybackFrames(now) : playing.inTurn ? variantsInTurn(now) : [];
  const stretch = stretchOf(now, playing, selected);
  const playbackFrames =
    turns.length > 0
      ? turns
      : stretch
        ? playbackFramesFrom(now, stretch.from, stretch.length, playing.turn, null)
        : playbackFramesFrom(now, 0, now.length * now.turns, 0, null);
  if (!playing.pingPong || playbackFrames.length < 2) return playbackFrames;
  return Array.from(
    { length: 2 * (playbackFrames.length - 1) },
    (_, i) => playbackFrames[bounced(i, playbackFrames.length)]!,
  );
}
