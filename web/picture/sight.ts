/** What of the shot the desk shows now. */
import type { DrawOptions } from '@tallow/core/render';
import type { Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { playback } from '../playback/playback.ts';
import { playsShot } from '../playback/shot-time.ts';
import { showing } from './showing.ts';

/** @param playing as it is played, in place of as it is drawn on. */
export function sightOptions(now: Current, playing = playback().playing): DrawOptions {
  // As it will be taken away, but for pictures it is drawn to.
  const { assembling, planeAlone, filming } = showing();
  if (assembling)
    return { guides: false, guidePlates: true, looks: 'all', plane: planeAlone, still: filming && !playing };
  const { alone, dimOthers, without, looks } = showing();
  const { playsLayers } = playback();
  const { selectedRuns } = selection();
  const wanted = new Set([now.active?.layer.id, ...(selectedRuns?.also ?? [])]);
  const others =
    playing && playsLayers ? now.layers.flatMap(({ layer }) => (wanted.has(layer.id) ? [] : [layer.id])) : [];
  return {
    guides: true,
    alone,
    place: alone ? now.place : null,
    // What the pen is on lies flat under it.
    flat: playing ? null : now.place,
    // So does the picture: the camera goes only where the shot is played.
    still: !(playing && playsShot()),
    dimPlaceBut: dimOthers ? now.place : null,
    without: [...without, ...others],
    dimBut: dimOthers ? (now.active?.layer.id ?? null) : null,
    looks: !looks ? 'none' : playing ? 'all' : 'for drawing',
  };
}
