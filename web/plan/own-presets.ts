/** The user's own presets of starters, kept in this browser. */
import type { Effect } from '@tallow/core/document';
import type { Preset } from '@tallow/core/starters';
import { create } from 'zustand';
import { recall, remember } from '../memory/memory.ts';

const NAME = 'tallow-presets';
type Own = Partial<Record<Effect, readonly Preset[]>>;

export const useOwnPresets = create<{ own: Own }>(() => ({ own: (recall(NAME) as Own | null) ?? {} }));

const write = (own: Own): void => {
  remember(NAME, own);
  useOwnPresets.setState({ own });
};

/** Keeps a preset, in place of one of the same name. */
export function keepPreset(effect: Effect, preset: Preset): void {
  const { own } = useOwnPresets.getState();
  const others = (own[effect] ?? []).filter((each) => each.name !== preset.name);
  write({ ...own, [effect]: [...others, preset] });
}

export function forgetPreset(effect: Effect, name: string): void {
  const { own } = useOwnPresets.getState();
  write({ ...own, [effect]: (own[effect] ?? []).filter((each) => each.name !== name) });
}
