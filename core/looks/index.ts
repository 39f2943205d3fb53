/** Every look there is, in the order in which it is offered. A new one is a file beside these and a line here. */
import { blur } from './blur.ts';
import { fade } from './fade.ts';
import { feather } from './feather.ts';
import { glow } from './glow.ts';
import { innerGlow } from './inner-glow.ts';
import { lineColour } from './line-colour.ts';
import type { Look } from './look.ts';
import { texture } from './texture.ts';
import { tint } from './tint.ts';
import { waver } from './waver.ts';

const ALL = {
  glow,
  tint,
  blur,
  waver,
  fade,
  feather,
  'inner glow': innerGlow,
  texture,
  'line colour': lineColour,
};

export type LookKind = keyof typeof ALL;
export const LOOKS: Readonly<Record<LookKind, Look>> = ALL;
export const lookKinds = (): LookKind[] => Object.keys(LOOKS) as LookKind[];

export type { Look, LookField, LookNow, LookPlace, Part } from './look.ts';
export { waverOf } from './waver.ts';
