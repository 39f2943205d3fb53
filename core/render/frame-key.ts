/** What tells frames apart that do not look alike. */
import type { Drawing } from '../document/index.ts';
import type { Lying, ItemLook, DrawItem } from './draw-item.ts';

type ContentOf = (drawing: Drawing) => string;
const lyingKey = (lying: Lying | null, of: ContentOf): string =>
  lying ? `${of(lying.drawing)}@${lying.matrix.join(',')}` : '';
const lookKey = (look: ItemLook | null): string =>
  look
    ? JSON.stringify([
        look.looks,
        look.axis,
        look.motion,
        look.looks.map(({ swatch }) => swatch && look.colourOf(swatch)),
      ])
    : '';

/**
 * The same text for frames that show the same drawings in the same way, within one document.
 * @param of what tells drawings apart; by their ids alone, unless the text is kept when they change.
 */
export function frameKey(items: readonly DrawItem[], of: ContentOf = ({ id }) => id): string {
  return items
    .map(
      (s) =>
        `${lyingKey(s, of)}@${lyingKey(s.within, of)}@${s.tint}@${s.opacity}@${s.blend}@${s.group?.id}@${s.group?.opacity}@${lookKey(s.group?.look ?? null)}@${lookKey(s.look)}@${s.recolour}@${s.asset}${s.lies?.bend?.join() ?? ''}@${s.wholes.map(({ place, opacity, look, lights, air, matte }) => `${place}${opacity}${lookKey(look)}${lights ? JSON.stringify([lights, air]) : ''}${matte ? `${matte.within}${frameKey(matte.items, of)}` : ''}`).join(';')}@${s.cuts.map((cut) => `${lyingKey(cut, of)}${cut.inverted}`).join(';')}`,
    )
    .join('|');
}
