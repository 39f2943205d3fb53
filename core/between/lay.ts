/** In-betweens from their settings: what is computed when they are laid, and when they are laid again. */
import type { Between, Drawing, NewId, Path } from '../document/index.ts';
import { mix, type Point } from '../geometry/index.ts';
import { wayOf } from '../plan/index.ts';
import { betweenAt } from './between.ts';
import { matchMarks, waysCome, type Pairing } from './match.ts';

type Marks = Pick<Drawing, 'marks' | 'order'>;

/** All that in-betweens are computed from. */
export interface BetweenWork {
  readonly from: Marks;
  readonly to: Marks;
  /** The drawing before the first, where pieces are to go on as they came; null where each stays itself. */
  readonly before: Marks | null;
  readonly path: Pick<Path, 'nodes' | 'closed'> | null;
  readonly settings: Pick<Between, 'shares' | 'way' | 'ties'>;
}

/** How far a path leads off the straight line between its ends, by share of the way. */
function bendOf(path: Pick<Path, 'nodes' | 'closed'>): (share: number) => Point {
  const way = wayOf(path);
  const [start, end] = [way.at(0), way.at(1)];
  return (share) => {
    const at = way.at(share);
    return { x: at.x - mix(start.x, end.x, share), y: at.y - mix(start.y, end.y, share) };
  };
}

/** Which marks become which. */
export const pairingsOf = ({ from, to, before, settings: { ties } }: BetweenWork): Pairing[] =>
  matchMarks(from, to, { ties, ...(before ? { expected: waysCome(before, from) } : {}) });

/** The marks of each in-between. */
export function computeBetweens(work: BetweenWork, newId: NewId): Marks[] {
  const { from, to, path, settings } = work;
  const pairings = pairingsOf(work);
  const bend = path && settings.way === 'path' ? { bend: bendOf(path) } : {};
  return settings.shares.map((share) => betweenAt(from, to, pairings, share, { way: settings.way, ...bend }, newId));
}
