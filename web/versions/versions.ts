/** Named versions of the open shot: stages to go back to, or to go on from elsewhere. */
import { randomId, type Id } from '@tallow/core/document';
import { create } from 'zustand';
import { request } from '../api/client.ts';
import type { ShotSummary, Version } from '../api/types.ts';
import { openSaver } from '../saving/open-shot.ts';
import { atOpening } from '../shot/opening.ts';
import { say, useDocument } from '../shot/document.ts';

interface Versions {
  readonly shown: boolean;
  /** Newest first; null until they have been asked for. */
  readonly list: readonly Version[] | null;
  readonly trouble: string | null;
}

const FRESH: Versions = { shown: false, list: null, trouble: null };
export const useVersions = create<Versions>(() => FRESH);
const setVersions = useVersions.setState;
atOpening(() => {
  setVersions(FRESH);
});

const inWords = (error: unknown): string => (error instanceof Error ? error.message : String(error));

export async function loadVersions(): Promise<void> {
  const { doc } = useDocument.getState();
  if (!doc) return;
  try {
    setVersions({ list: await request<Version[]>('GET', `/shots/${doc.shotId}/versions`), trouble: null });
  } catch (error) {
    setVersions({ trouble: inWords(error) });
  }
}

export const showVersions = (shown: boolean): void => {
  setVersions({ shown });
  if (shown) void loadVersions();
};

/** Why a version can be neither made nor gone back to now, or null: the server has what is saved. */
export const whyNotNow = (): string | null =>
  useDocument.getState().saving.state === 'saved' ? null : 'Wait until everything is saved.';

/** Does something on the server and looks again; what went wrong is said. @returns what it answered, or null. */
async function done<T>(work: Promise<T>): Promise<T | null> {
  let answer: T | null = null;
  try {
    answer = await work;
  } catch (error) {
    say(inWords(error));
  }
  await loadVersions();
  return answer;
}

export async function nameVersion(name: string): Promise<void> {
  const { doc } = useDocument.getState();
  if (!doc) return;
  const made = await done(request<Version>('POST', `/shots/${doc.shotId}/versions`, { id: randomId(), name }));
  if (made) say(`The shot as it is now is kept as “${made.name}”.`);
}

export const renameVersion = (id: Id, name: string): Promise<unknown> =>
  done(request('PATCH', `/versions/${id}`, { name }));

export const letVersionGo = (id: Id): Promise<unknown> => done(request('DELETE', `/versions/${id}`));

/** Makes the shot as it was; where it is now gets a name by itself. */
export async function goBackTo({ id, name }: Pick<Version, 'id' | 'name'>): Promise<void> {
  const shot = await done(request<ShotSummary>('POST', `/versions/${id}/restore`));
  if (!shot) return;
  openSaver()?.tryNow();
  say(`The shot is as it was in “${name}”. What came after is among the versions.`);
}

/** A new shot that goes on from it. @returns its id, or null. */
export async function branchFrom({ id }: Pick<Version, 'id'>): Promise<Id | null> {
  const shot = await done(request<ShotSummary>('POST', `/versions/${id}/branch`, { id: randomId() }));
  if (shot) say(`“${shot.name}” goes on from it, beside this shot.`);
  return shot?.id ?? null;
}
