/** The shelf as the server has it, with what of it is looked for. */
import type { Id } from '@tallow/core/document';
import { ASKED_NOTHING, isFound, type ShelfQuery, type ShelfKind } from '@tallow/core/shelf';
import { create } from 'zustand';
import { request } from '../api/client.ts';
import type { ShelfItem } from '../api/types.ts';
import { say } from '../shot/document.ts';

interface Shelf {
  /** Null until it has been asked for. */
  readonly items: readonly ShelfItem[] | null;
  readonly trouble: string | null;
  readonly asked: ShelfQuery;
  /** The element that is about to be kept, or null. */
  readonly keeping: Id | null;
}

export const useShelf = create<Shelf>(() => ({ items: null, trouble: null, asked: ASKED_NOTHING, keeping: null }));
const setShelf = useShelf.setState;

const inWords = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Looks at what stands on the shelf. */
export async function loadShelf(): Promise<void> {
  try {
    setShelf({ items: await request<ShelfItem[]>('GET', '/shelf'), trouble: null });
  } catch (error) {
    setShelf({ trouble: inWords(error) });
  }
}

export const askShelf = (more: Partial<ShelfQuery>): void => {
  setShelf(({ asked }) => ({ asked: { ...asked, ...more } }));
};

/** What of the shelf is what is looked for, the newest of one's own first, then what ships. */
export const foundOn = (items: readonly ShelfItem[], asked: ShelfQuery): ShelfItem[] =>
  items
    .filter((item) => isFound(item, asked))
    .toSorted(
      (a, b) => Number(a.shipped) - Number(b.shipped) || (a.shipped ? 0 : b.updatedAt.localeCompare(a.updatedAt)),
    );

export const startKeeping = (elementId: Id | null): void => {
  setShelf({ keeping: elementId });
};

/** What is said of an effect that is kept. */
export interface ShelfNotice {
  readonly name: string;
  readonly kind: ShelfKind;
  readonly tags: readonly string[];
  readonly note: string;
}

/** Tags as they are typed, with commas between. */
export const tagsFrom = (text: string): string[] => [
  ...new Set(
    text
      .split(',')
      .map((tag) => tag.trim().slice(0, 40))
      .filter((tag) => tag !== ''),
  ),
];

/** Tells something anew of an effect. */
export async function tellOf(id: Id, told: Partial<ShelfNotice>): Promise<void> {
  try {
    await request('PATCH', `/shelf/${id}`, told);
  } catch (error) {
    say(inWords(error));
  }
  await loadShelf();
}

/** Takes an effect off the shelf, and offers to put it back. Shots it was put into keep theirs. */
export async function takeOff({ id, name }: Pick<ShelfItem, 'id' | 'name'>): Promise<void> {
  try {
    await request('DELETE', `/shelf/${id}`);
    say(`“${name}” is off the shelf. Shots it was put into keep it.`, {
      label: 'Undo',
      run: () => {
        request('POST', `/shelf/${id}/restore`).then(loadShelf, (error: unknown) => {
          say(inWords(error));
        });
      },
    });
  } catch (error) {
    say(inWords(error));
  }
  await loadShelf();
}
