/** What is laid again by itself, and how. */
import { betweensAgain } from '../state/between.ts';
import { starterAgain } from '../state/laying.ts';
import { toneAgain } from '../state/tone.ts';
import type { Followers } from './follow.ts';

export const FOLLOWERS: Followers = {
  starter: { name: 'starter', lay: starterAgain },
  between: { name: 'in-betweens', lay: betweensAgain },
  tone: { name: 'tone', lay: toneAgain },
};
