/** How pictures meet what lies under them. */

/** Names of the W3C compositing standard, `lighter` being add. */
export const BLENDS = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
  'lighter',
] as const;
export type Blend = (typeof BLENDS)[number];

/** The canvas's own word for a blend. */
export const operationOf = (blend: Blend): string => (blend === 'normal' ? 'source-over' : blend);
