/** Settings on the shelf: variants of brushes, presets, palettes, patterns of holds. The server has them. */
import { randomId } from '@tallow/core/document';
import { readKept, type KeptThing, type KeptKindName, type KeptWhat } from '@tallow/core/shelf';
import { useEffect } from 'react';
import { create } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { request } from '../api/client.ts';
import { say } from '../shot/document.ts';

export const useKept = create<{ items: readonly KeptThing[]; asked: boolean }>(() => ({ items: [], asked: false }));
const setItems = (change: (items: readonly KeptThing[]) => readonly KeptThing[]): void => {
  useKept.setState(({ items }) => ({ items: change(items) }));
};

const inWords = (error: unknown): string => (error instanceof Error ? error.message : String(error));
const isOf = <K extends KeptKindName>(kind: K, each: KeptThing): each is KeptThing<K> => each.kind === kind;

/** Asks the server for what is kept; what cannot be read is left out. It is asked again where it could not be reached. */
async function loadKept(): Promise<void> {
  if (useKept.getState().asked) return;
  useKept.setState({ asked: true });
  try {
    const items = await request<KeptThing[]>('GET', '/kept');
    const read = items.filter(({ kind, what }) => 'ok' in readKept(kind, what));
    // What was kept while they came is there too.
    setItems((here) => [...read.filter((each) => !here.some((own) => areSame(own, each))), ...here]);
  } catch {
    useKept.setState({ asked: false });
  }
}

/** What is kept of a kind, asked for when it is first wanted. */
export function useKeptOf<K extends KeptKindName>(kind: K): readonly KeptThing<K>[] {
  useEffect(() => {
    void loadKept();
  }, []);
  return useKept(useShallow(({ items }) => items.filter((each): each is KeptThing<K> => isOf(kind, each))));
}

/** Whether two would take one place on the shelf. */
function areSame(a: KeptThing, b: KeptThing): boolean {
  const ofBoth = [a, b].map(({ kind, what }) => readKept(kind, what)).map((read) => ('ok' in read ? read.ok.of : null));
  return a.kind === b.kind && a.name === b.name && ofBoth[0] === ofBoth[1];
}

/** Keeps settings under a name, in place of those of the same name. What the server does not take is reported, and not there. @returns whether they are kept. */
export async function keep<K extends KeptKindName>(kind: K, name: string, what: KeptWhat<K>): Promise<boolean> {
  const kept = { id: randomId(), kind, name, what } as KeptThing;
  const { items: before } = useKept.getState();
  setItems((items) => [...items.filter((each) => !areSame(each, kept)), kept]);
  try {
    await request('PUT', `/kept/${kept.id}`, { kind, name, what });
    return true;
  } catch (error) {
    setItems(() => before);
    say(`“${name}” could not be kept: ${inWords(error)}`);
    return false;
  }
}

/** Forgets settings, and offers to have them back. */
export async function forget(kept: KeptThing): Promise<void> {
  const { items: before } = useKept.getState();
  setItems((items) => items.filter(({ id }) => id !== kept.id));
  try {
    await request('DELETE', `/kept/${kept.id}`);
    say(`“${kept.name}” is off the shelf.`, {
      label: 'Undo',
      run: () => void keep(kept.kind, kept.name, kept.what),
    });
  } catch (error) {
    setItems(() => before);
    say(`“${kept.name}” could not be taken off: ${inWords(error)}`);
  }
}

/** Calls settings something else. */
export async function rename(kept: KeptThing, name: string): Promise<void> {
  const renamed = { ...kept, name };
  const { items: before } = useKept.getState();
  setItems((items) =>
    items
      .filter((each) => each.id === kept.id || !areSame(each, renamed))
      .map((each) => (each.id === kept.id ? renamed : each)),
  );
  try {
    await request('PUT', `/kept/${kept.id}`, { kind: kept.kind, name, what: kept.what });
  } catch (error) {
    setItems(() => before);
    say(`“${kept.name}” could not be renamed: ${inWords(error)}`);
  }
}
