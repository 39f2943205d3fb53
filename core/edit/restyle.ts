/** Marks that take another look and stay the same marks: the same strokes, in another swatch, width, taper or brush. */
import type { BrushSettings, Id, Mark, ShotDocument } from '../document/index.ts';
import { changeMarks, type MarkSets } from './marks.ts';

/** What marks take; what is left out stays as it was. */
export interface Style {
  readonly swatch?: Id;
  /** px of element space at full pressure. */
  readonly width?: number;
  /** Lengths of the tapers at begin and end, px of element space. */
  readonly taper?: readonly [number, number];
  /** All of how a stroke is drawn, width and tapers with it. */
  readonly brush?: BrushSettings;
}

function withTaper({ taper: _, ...brush }: BrushSettings, taper: readonly [number, number]): BrushSettings {
  return taper[0] > 0 || taper[1] > 0 ? { ...brush, taper: [taper[0], taper[1]] } : brush;
}

/** A mark in another style. Shapes take the swatch alone; what rubs out takes all but swatch and brush. */
export function restyled(mark: Mark, { swatch, width, taper, brush }: Style): Mark {
  if (mark.kind === 'shape') return swatch === undefined || swatch === mark.swatch ? mark : { ...mark, swatch };
  let own = mark.kind === 'stroke' ? (brush ?? mark.brush) : mark.brush;
  if (width !== undefined && width !== own.width) own = { ...own, width };
  if (taper) own = withTaper(own, taper);
  const drawn = own === mark.brush ? mark : { ...mark, brush: own };
  return drawn.kind === 'stroke' && swatch !== undefined && swatch !== drawn.swatch ? { ...drawn, swatch } : drawn;
}

/** Has marks take a style. */
export const restyle = (doc: ShotDocument, sets: MarkSets, style: Style): ShotDocument =>
  changeMarks(doc, sets, (mark) => restyled(mark, style));
