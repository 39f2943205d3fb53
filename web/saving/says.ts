/** How far the work is saved, in the header's words. */
import type { Saving } from '../shot/document.ts';
import type { Bad, Unsaved } from './unsaved.ts';

/** What the server refuses, in words for the user. */
function nameOf({ entity, why }: Bad): string {
  const name = entity && 'name' in entity ? `“${entity.name}”` : `A ${entity?.kind ?? 'deletion'}`;
  return `${name}: ${why}`;
}

/**
 * What the header says, from what the page, this browser and the server have.
 * @param server why the server does not have it. @param browser why this browser cannot keep it. @param onlyHere whether nobody
 * but this page has it.
 * @param landing how many strokes wait for the drawing they were drawn on.
 */
export function savingOf(
  { waiting, bad }: Pick<Unsaved, 'waiting' | 'bad'>,
  landing: number,
  server: string | null,
  browser: string | null,
  onlyHere: boolean,
): Saving {
  const refused = [...bad.values()].map(nameOf);
  const why = server ?? (waiting > 0 && refused.length === waiting ? 'The server does not take it' : null);
  const inMemory = browser !== null && onlyHere;
  const state =
    landing > 0 ? 'memory' : waiting === 0 ? 'saved' : why === null ? 'saving' : inMemory ? 'memory' : 'unsaved';
  return { state, waiting, landing, server: why, browser, refused };
}
