/** What is laid again by itself, and how. */
import { betweensAgain } from '../time/between.ts';
import { starterAgain } from '../plan/laying.ts';
import { toneAgain } from '../tone/tone.ts';
import { smearAgain } from '../smears/smear.ts';
import type { Followers } from './follow.ts';

export const FOLLOWERS: Followers = {
  starter: { name: 'starter', lay: starterAgain },
  between: { name: 'in-betweens', lay: betweensAgain },
  smear: { name: 'smear', lay: smearAgain },
  tone: { name: 'tone', lay: toneAgain },
};
