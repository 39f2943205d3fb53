/** Every starter there is. */
import type { Effect } from '../document/index.ts';
import { BOLT } from './bolt.ts';
import { BURST } from './burst.ts';
import { COVER } from './cover.ts';
import { FIRE } from './fire.ts';
import { IMPACT } from './impact.ts';
import { LIQUID } from './liquid.ts';
import { RIPPLE, SHOCK_RING } from './rings.ts';
import { SMOKE } from './smoke.ts';
import { SPARKS } from './sparks.ts';
import { SPEED_LINES } from './speed-lines.ts';
import type { StarterKind } from './starter.ts';
import { TIED } from './tied.ts';
import { WAVE } from './wave.ts';

const KINDS: Readonly<Record<Effect, StarterKind>> = {
  fire: FIRE,
  smoke: SMOKE,
  bolt: BOLT,
  burst: BURST,
  liquid: LIQUID,
  sparks: SPARKS,
  ring: SHOCK_RING,
  ripple: RIPPLE,
  speed: SPEED_LINES,
  wave: WAVE,
  tied: TIED,
  impact: IMPACT,
  cover: COVER,
};

export const STARTERS: readonly StarterKind[] = Object.values(KINDS);

/** The starter of an effect. */
export const starterOf = (effect: Effect): StarterKind => KINDS[effect];
