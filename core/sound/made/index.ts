/** Every sound that is made by code. A new one is a file beside these and a line here. */
import { burst } from './burst.ts';
import { roar } from './roar.ts';
import { strike } from './strike.ts';
import type { MadeSound } from './sound-kind.ts';

export const MADE_SOUNDS = { roar, strike, burst } as const satisfies Record<string, MadeSound>;
export type MadeSoundName = keyof typeof MADE_SOUNDS;

export { MADE_RATE } from './sound-kind.ts';
