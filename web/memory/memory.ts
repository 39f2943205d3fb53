/** What this browser remembers between visits beside the work itself. It may refuse: then all goes on without. */
import type { PersistOptions, StorageValue } from 'zustand/middleware';

/** What was remembered under a name, or null where nothing is or it cannot be read. */
export function recall(name: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(name) ?? 'null');
  } catch {
    return null;
  }
}

/** Remembers something under a name. @returns whether this browser takes it. */
export function remember(name: string, what: unknown): boolean {
  try {
    localStorage.setItem(name, JSON.stringify(what));
    return true;
  } catch {
    return false;
  }
}

/** All of it lay under this name until December 2026. */
const BEFORE = 'tallow-desk';

/**
 * How a store keeps some of its fields in this browser, with zustand's `persist`. They are written when one of them has changed,
 * not with whatever else the store holds.
 * @param mend makes what was remembered whole where more has been added since.
 */
export function keptAs<S extends object>(
  name: string,
  keys: readonly (keyof S & string)[],
  mend: (kept: Partial<S>, preset: S) => Partial<S> = (kept) => kept,
): PersistOptions<S, Partial<S>> {
  const fieldsOf = (from: Partial<S>): Partial<S> =>
    Object.fromEntries(keys.flatMap((key) => (key in from ? [[key, from[key]]] : []))) as Partial<S>;
  let written: Partial<S> = {};
  return {
    name,
    partialize: fieldsOf,
    storage: {
      getItem: (from) => (recall(from) ?? { state: recall(BEFORE) }) as StorageValue<Partial<S>>,
      setItem: (to, value) => {
        if (keys.every((key) => written[key] === value.state[key])) return;
        written = value.state;
        remember(to, value);
      },
      removeItem: (from) => {
        remember(from, null);
      },
    },
    merge: (kept, preset) => ({
      ...preset,
      ...mend(typeof kept === 'object' && kept !== null ? fieldsOf(kept) : {}, preset),
    }),
  };
}
