export { asLight, channels, contrast, distance, luminance, oklab } from './contrast.ts';
export { COLOUR_PAIRS, type ColourPair, farthestPair } from './pairs.ts';
export { flashesPerSecond, SAFE_FLASHES } from './flashes.ts';
export { hexOf, MAX_CHROMA, type Oklch, oklchOf, shifted } from './oklch.ts';
