/** Colours on the desk: those used lately, and what is asked of the whole palette. */
import { find, randomId, readEntity, shotOf, type Id, type Swatch } from '@tallow/core/document';
import { addSwatches, type LooseSwatch } from '@tallow/core/edit';
import { readPalette } from '@tallow/core/formats';
import { create } from 'zustand';
import { request } from '../api/client.ts';
import type { ShotStructure } from '../api/types.ts';
import { toolState, setToolState } from '../hand/tool-state.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { recall, remember } from '../memory/memory.ts';
import { madeBy, BRUSH_NAMES } from '../hand/brushes.ts';

const NAME = 'tallow-colours';
/** Colours remembered. */
const MAX = 14;

function kept(): string[] {
  const read = recall(NAME);
  return Array.isArray(read) ? read.filter((c): c is string => /^#[0-9a-f]{6}$/.test(String(c))) : [];
}

/** Colours used lately, the last first; and the one under the pen while it takes one from the picture. */
export const useColours = create<{ recent: readonly string[]; under: string | null }>(() => ({
  recent: kept(),
  under: null,
}));

/** Notes a colour as used. */
export function noteColour(colour: string): void {
  const { recent } = useColours.getState();
  if (recent[0] === colour) return;
  const next = [colour, ...recent.filter((each) => each !== colour)].slice(0, MAX);
  useColours.setState({ recent: next });
  remember(NAME, next);
}

/** Takes an active swatch; what rubs out draws again. */
export function takeSwatch(swatchId: Id): void {
  const { brushName } = toolState();
  setToolState({ swatchId, brushName: madeBy(brushName) === 'rub' ? BRUSH_NAMES[0] : brushName });
}

/** Adds swatches to the palette, and says how many were new. */
export function bring(swatches: readonly LooseSwatch[], from: string): void {
  const before = useDocument.getState().doc;
  if (!before) return;
  const had = shotOf(before).swatches.length;
  edit('copy palette', (doc) => addSwatches(doc, swatches, randomId));
  const now = useDocument.getState().doc!;
  const count = shotOf(now).swatches.length - had;
  say(count > 0 ? `${count} ${count === 1 ? 'swatch' : 'swatches'} from ${from}.` : `All of ${from} is here already.`);
}

/** Copies the palette of another shot. */
export async function bringFromShot(shotId: Id, name: string): Promise<void> {
  try {
    const { entities } = await request<ShotStructure>('GET', `/shots/${shotId}`);
    const read = entities.flatMap((body) => {
      const entity = readEntity(body);
      return 'ok' in entity ? [entity.ok] : [];
    });
    const shot = read.find(({ kind }) => kind === 'shot');
    const order = shot?.kind === 'shot' ? shot.swatches : [];
    const swatches = order.flatMap((id) => read.find((e): e is Swatch => e.kind === 'swatch' && e.id === id) ?? []);
    bring(swatches, `“${name}”`);
  } catch {
    say('The other shot could not be read: the server cannot be reached.');
  }
}

/** Reads a palette file, or says what is wrong with it. */
export async function bringFromFile(file: File): Promise<void> {
  if (file.size > 1_000_000) {
    say(`“${file.name}” is larger than any palette: ${Math.round(file.size / 1000)} kB.`);
    return;
  }
  const read = readPalette(await file.text());
  if ('problem' in read) say(`“${file.name}” was not read. ${read.problem}`);
  else bring(read.ok, `“${file.name}”`);
}

/** The active swatch, which the settings are of. */
export const swatchNow = (): Swatch | undefined => {
  const { doc } = useDocument.getState();
  return doc ? find(doc, 'swatch', toolState().swatchId) : undefined;
};
