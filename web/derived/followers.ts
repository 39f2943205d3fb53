/** What is laid again by itself, and how. */
import { betweensAgain } from '../time/between.ts';
import { starterAgain } from '../plan/laying.ts';
import { toneAgain } from '../tone/tone.ts';
import { randomId, type Ride, type ShotDocument } from '@tallow/core/document';
import { relayRide } from '@tallow/core/edit';
import { smearAgain } from '../smears/smear.ts';
import type { Followers } from './follow.ts';

/** Quick enough to be laid where it is asked for. */
const rideAgain = (_: ShotDocument, { id }: Ride) =>
  Promise.resolve((latest: ShotDocument) => relayRide(latest, id, randomId));

export const FOLLOWERS: Followers = {
  starter: { name: 'starter', lay: starterAgain },
  between: { name: 'in-betweens', lay: betweensAgain },
  ride: { name: 'ride', lay: rideAgain },
  smear: { name: 'smear', lay: smearAgain },
  tone: { name: 'tone', lay: toneAgain },
};
