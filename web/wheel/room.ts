/** How much room the wheel has: it shrinks where settings stand under it and the window is low. */
import { useSyncExternalStore } from 'react';

import { useReferences } from '../references/references.ts';
import { useScreen } from '../screen/screen.ts';
import { useHeld } from '../hand/held.ts';

/** Heights of the window under which the wheel makes room, CSS px. */
const LOW = '(max-height: 940px)';
const SMALL = 0.7;

const watch = (told: () => void): (() => void) => {
  const query = matchMedia(LOW);
  query.addEventListener('change', told);
  return () => {
    query.removeEventListener('change', told);
  };
};

/** The wheel's size against its usual one. */
export function useWheelScale(): number {
  const low = useSyncExternalStore(watch, () => matchMedia(LOW).matches);
  const inHand = useHeld((s) => s.brushShown || (s.tool?.hasPanel ?? false));
  const panel = useScreen((s) => s.panel !== null);
  const settings = inHand || panel;
  const references = useReferences((s) => s.shown);
  return low && (settings || references) ? SMALL : 1;
}
