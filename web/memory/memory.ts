/** What this browser remembers between visits beside the work itself. It may refuse: then all goes on without. */
import type { PersistStorage, StorageValue } from 'zustand/middleware';

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

/** The same for a store that keeps itself. */
export const quietStorage = <S>(): PersistStorage<S> => ({
  getItem: (name) => recall(name) as StorageValue<S> | null,
  setItem: (name, value) => {
    remember(name, value);
  },
  removeItem: (name) => {
    remember(name, null);
  },
});
