/** What this browser remembers between visits: what is in hand, and how the work is seen and played. */
import type { StoreApi } from 'zustand';
import { BRUSH_NAMES, type BrushName } from '../hand/brushes.ts';
import { useHeld, type Held } from '../hand/held.ts';
import { recall, remember } from '../memory/memory.ts';
import { useShowing, type Showing } from '../picture/showing.ts';
import { usePlayback } from '../playback/playback.ts';
import { useScreen } from '../screen/screen.ts';

const NAME = 'tallow-desk';

/** What of a store is remembered. */
interface Remembered {
  readonly take: () => Record<string, unknown>;
  readonly put: (kept: Readonly<Record<string, unknown>>) => void;
  readonly follow: (changed: () => void) => void;
}

/** @param mend makes what was remembered whole where more has been added since. */
function remembered<S extends object>(
  store: Pick<StoreApi<S>, 'getState' | 'setState' | 'subscribe'>,
  keys: readonly (keyof S & string)[],
  mend: (kept: Partial<S>, preset: S) => Partial<S> = (kept) => kept,
): Remembered {
  return {
    take: () => Object.fromEntries(keys.map((key) => [key, store.getState()[key]])),
    put: (kept) => {
      const own = Object.fromEntries(keys.flatMap((key) => (key in kept ? [[key, kept[key]]] : []))) as Partial<S>;
      store.setState(mend(own, store.getState()));
    },
    follow: (changed) => {
      store.subscribe((now, before) => {
        if (keys.some((key) => now[key] !== before[key])) changed();
      });
    },
  };
}

const mendBrushes = (kept: Partial<Held>, preset: Held): Partial<Held> => ({
  ...kept,
  brushes: Object.fromEntries(
    BRUSH_NAMES.map((name) => [name, { ...preset.brushes[name], ...kept.brushes?.[name] }]),
  ) as Record<BrushName, Held['brushes'][BrushName]>,
});

const mendOnion = (kept: Partial<Showing>, preset: Showing): Partial<Showing> => ({
  ...kept,
  onion: { ...preset.onion, ...kept.onion },
});

const ALL: readonly Remembered[] = [
  remembered(useHeld, ['brushName', 'form', 'closes', 'brushes', 'shapeLine', 'newOnHeld', 'barrel'], mendBrushes),
  remembered(useShowing, ['onion', 'looks'], mendOnion),
  remembered(usePlayback, ['hubRuns', 'loops', 'speed', 'pingPong']),
  remembered(useScreen, ['sheetPictures', 'otherHand', 'wheelScale']),
];

/** Takes what was remembered and goes on remembering. What cannot be read is passed over. */
export function rememberDesk(): void {
  const kept = (recall(NAME) ?? {}) as Record<string, unknown>;
  for (const each of ALL) each.put(kept);
  for (const each of ALL)
    each.follow(() => {
      remember(NAME, Object.assign({}, ...ALL.map(({ take }) => take())));
    });
}
