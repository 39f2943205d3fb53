/** How colours compare to the eye. Colours are `#rrggbb` in sRGB. */

/** Red, green and blue of a colour, 0 to 255. */
export function channels(colour: string): [number, number, number] {
  const value = Number.parseInt(colour.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}

/** A channel of 0 to 255 as light, 0 to 1 (sRGB, IEC 61966-2-1). */
export const asLight = (channel: number): number => {
  const c = channel / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
};

/** Relative luminance, 0 to 1, of red, green and blue from 0 to 255 (WCAG 2.2). */
export const luminance = (red: number, green: number, blue: number): number =>
  0.2126 * asLight(red) + 0.7152 * asLight(green) + 0.0722 * asLight(blue);

/** Contrast ratio of two luminances, 1 to 21 (WCAG 2.2). */
export const contrast = (a: number, b: number): number => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

/** Lightness and two colour axes in Oklab, where distances are about as large as they look (B. Ottosson, 2020). */
export function oklab(colour: string): [number, number, number] {
  const [r, g, b] = channels(colour).map(asLight) as [number, number, number];
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

/** How different two colours look; 0 is the same. */
export function distance(a: string, b: string): number {
  const [p, q] = [oklab(a), oklab(b)];
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}
