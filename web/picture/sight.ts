/** What of the shot the desk shows now. */
import type { SheetOptions } from '@tallow/core/render';
import type { Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { playback } from '../playback/playback.ts';
import { showing } from './showing.ts';

/** @param playing as it is played, in place of as it is drawn on. */
export function sightOptions(now: Current, playing = playback().playing): SheetOptions {
  const { alone, dimOthers, without, looks } = showing();
  const { playsLayers } = playback();
  const { picked } = selection();
  const wanted = new Set([now.active?.layer.id, ...(picked?.also ?? [])]);
  const others =
    playing && playsLayers ? now.layers.flatMap(({ layer }) => (wanted.has(layer.id) ? [] : [layer.id])) : [];
  return {
    guides: true,
    alone,
    without: [...without, ...others],
    dimBut: dimOthers ? (now.active?.layer.id ?? null) : null,
    looks: !looks ? 'none' : playing ? 'all' : 'for drawing',
  };
}
