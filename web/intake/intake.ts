/** Files on their way in: what they can be taken for is said before anything changes. */
import { create } from 'zustand';
import { request } from '../api/client.ts';
import { isPicture, setReferences, underway } from '../references/references.ts';
import { useDocument } from '../shot/document.ts';
import { TAKINGS, takings, type TakingName } from './takings/index.ts';
import type { Files } from './taking.ts';

/** Files that belong together, with what they can be taken for and what they will be; null is left out. */
export interface Group {
  readonly files: Files;
  readonly fits: readonly TakingName[];
  readonly as: TakingName | null;
}

/** What waits for a word of the user; null for nothing. */
export const useIntake = create<{ groups: readonly Group[] | null }>(() => ({ groups: null }));

/** Pictures come in together, as most are numbered; what has marks or moves, and everything else, each by itself. */
async function groupsOf(files: readonly File[]): Promise<Group[]> {
  const alone: File[] = [];
  const together: File[] = [];
  for (const file of files) {
    const moves = await TAKINGS.moving.fits([file]);
    if (isPicture(file.name) && !/\.svg$/i.test(file.name) && !moves) together.push(file);
    else alone.push(file);
  }
  const [first, ...rest] = together;
  const sets: Files[] = [...(first ? [[first, ...rest] as const] : []), ...alone.map((file): Files => [file])];
  return Promise.all(
    sets.map(async (own): Promise<Group> => {
      const asked = await Promise.all(takings().map(async (name) => ({ name, fits: await TAKINGS[name].fits(own) })));
      const fits = asked.filter((each) => each.fits).map(({ name }) => name);
      const named = own[0].name.toLowerCase();
      const best = named.endsWith('.tallow.zip') ? 'archive' : fits[0];
      return { files: own, fits, as: best ?? null };
    }),
  );
}

/** Says what files are taken for, and waits. */
export async function offer(files: readonly File[]): Promise<void> {
  if (files.length > 0) useIntake.setState({ groups: await groupsOf(files) });
}

export const chooseIntake = (index: number, as: TakingName | null): void => {
  useIntake.setState(({ groups }) => ({
    groups: groups?.map((each, i) => (i === index ? { ...each, as } : each)) ?? null,
  }));
};

export const leaveAll = (): void => {
  useIntake.setState({ groups: null });
};

/** Names the shot as it is before things come in; where that cannot be, as without a server, they come in all the same. */
async function nameBefore(name: string): Promise<void> {
  const { doc } = useDocument.getState();
  if (doc)
    await request('POST', `/shots/${doc.shotId}/versions/before`, {
      name: `Before ${name} came in`.slice(0, 200),
    }).catch(() => undefined);
}

/** Brings in what was chosen, one after the other; what is wrong with one is said, and it changes nothing. */
export async function takeFiles(): Promise<void> {
  const wanted = (useIntake.getState().groups ?? []).flatMap(({ files, as }) => (as ? [{ files, as }] : []));
  leaveAll();
  const [first] = wanted;
  if (!first) return;
  await nameBefore(first.files[0].name);
  for (const { files, as } of wanted) {
    const { bring } = TAKINGS[as];
    // Sounds and palettes tell of themselves.
    await underway(files.length, (signal) =>
      bring(files, signal, (done, of) => {
        setReferences({ coming: { done, of } });
      }),
    );
  }
}
