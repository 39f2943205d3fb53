/** Named versions of the open shot: stages to go back to, or to go on from elsewhere. */
import { entitiesOf, find, randomId, type Id } from '@tallow/core/document';
import { create } from 'zustand';
import { bringBack, pasteParts, type PartsClip } from '@tallow/core/edit';
import { request } from '../api/client.ts';
import { readBodies } from '../api/read-bodies.ts';
import type { ShotSummary, Version } from '../api/types.ts';
import { openSaver } from '../saving/open-shot.ts';
import { atOpening } from '../shot/opening.ts';
import { withDrawings } from '../saving/drawings.ts';
import { current } from '../selection/current.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, say, useDocument } from '../shot/document.ts';

interface Versions {
  readonly shown: boolean;
  /** Newest first; null until they have been asked for. */
  readonly list: readonly Version[] | null;
  readonly trouble: string | null;
  /** Bytes of the shot as it is, and of what is kept of it as it was; null until asked for. */
  readonly room: { readonly now: number; readonly before: number } | null;
}

const FRESH: Versions = { shown: false, list: null, trouble: null, room: null };
export const useVersions = create<Versions>(() => FRESH);
const setVersions = useVersions.setState;
atOpening(() => {
  setVersions(FRESH);
});

const inWords = (error: unknown): string => (error instanceof Error ? error.message : String(error));

async function loadVersions(): Promise<void> {
  const { doc } = useDocument.getState();
  if (!doc) return;
  try {
    setVersions({ list: await request<Version[]>('GET', `/shots/${doc.shotId}/versions`), trouble: null });
    setVersions({ room: await request<NonNullable<Versions['room']>>('GET', `/shots/${doc.shotId}/room`) });
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

/** What there is in a version: elements with their layers. */
export interface VersionPart {
  readonly id: Id;
  readonly name: string;
  readonly layers: readonly { readonly id: Id; readonly name: string }[];
}

export const partsOf = ({ id }: Pick<Version, 'id'>): Promise<VersionPart[]> =>
  request<VersionPart[]>('GET', `/versions/${id}/contents`);

async function clipOf(version: Pick<Version, 'id' | 'name'>, root: Id): Promise<PartsClip | null> {
  try {
    const clip = await request<PartsClip>('GET', `/versions/${version.id}/parts?of=${root}`);
    return { ...clip, entities: readBodies(clip.entities, version.name) };
  } catch (error) {
    say(inWords(error));
    return null;
  }
}

/** Makes one element as it was; everything else stays as it is. */
export async function bringElementBack(
  version: Pick<Version, 'id' | 'name'>,
  { id, name }: VersionPart,
): Promise<void> {
  const clip = await clipOf(version, id);
  const { doc } = useDocument.getState();
  if (!clip || !doc) return;
  const layers = entitiesOf(doc, 'layer').filter(({ elementId }) => elementId === id);
  withDrawings(
    layers.flatMap(({ slots }) => Object.values(slots)),
    () => {
      edit(`${name} as it was`, (now) => bringBack(now, clip));
      setSelection({ elementId: id, layerId: null, selectedRuns: null });
      say(`“${name}” is as it was in “${version.name}”. Everything else stays.`);
    },
  );
}

/** Lays one layer as it was over what it is now. */
export async function bringLayerBeside(
  version: Pick<Version, 'id' | 'name'>,
  layer: VersionPart['layers'][number],
): Promise<void> {
  const clip = await clipOf(version, layer.id);
  const { doc } = useDocument.getState();
  const over = doc && (find(doc, 'layer', layer.id)?.id ?? current()?.active?.layer.id);
  if (!clip) return;
  if (!over) {
    say('There is no layer to lay it over: add one first.');
    return;
  }
  let made: Id | null = null;
  edit(`${layer.name} as it was`, (now) => {
    const pasted = pasteParts(now, clip, over, randomId);
    made = pasted.copies.get(layer.id) ?? null;
    return pasted.doc;
  });
  setSelection({ layerId: made, selectedRuns: null });
  say(`“${layer.name}” of “${version.name}” lies over it.`);
}
