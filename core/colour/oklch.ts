/** Colours as lightness, chroma and hue, where equal steps look about equal (CSS Color 4). */
import { clampChroma, converter, formatHex } from 'culori';

export interface Oklch {
  /** 0 (black) to 1 (white). */
  readonly l: number;
  /** 0 (grey) to about 0.37. */
  readonly c: number;
  /** Degrees, 0 to 360; of no meaning for greys. */
  readonly h: number;
}

/** The largest chroma a colour of sRGB has. */
export const MAX_CHROMA = 0.37;

const toOklch = converter('oklch');

/** A colour `#rrggbb` by lightness, chroma and hue. */
export function oklchOf(colour: string): Oklch {
  const found = toOklch(colour);
  return { l: found?.l ?? 0, c: found?.c ?? 0, h: found?.h ?? 0 };
}

const toRgb = converter('rgb');
/** Half a level of 255: a colour of sRGB's very edge may come out so far beyond it, and is rounded back. */
const ROUNDED = 1 / 510;

/** The nearest `#rrggbb` of a hue and lightness: chroma is taken back to what sRGB can show. */
export function hexOf({ l, c, h }: Oklch): string {
  const wanted = { mode: 'oklch', l: Math.min(1, Math.max(0, l)), c: Math.max(0, c), h } as const;
  const { r, g, b } = toRgb(wanted);
  const isShown = [r, g, b].every((channel) => channel >= -ROUNDED && channel <= 1 + ROUNDED);
  return formatHex(isShown ? wanted : clampChroma(wanted, 'oklch')) ?? '#000000';
}

/** A colour with its hue turned, its chroma times a factor and its lightness moved. */
export function shifted(colour: string, by: { hue: number; chroma: number; lightness: number }): string {
  const { l, c, h } = oklchOf(colour);
  return hexOf({ l: l + by.lightness, c: c * by.chroma, h: (((h + by.hue) % 360) + 360) % 360 });
}
