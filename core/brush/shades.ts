/** What each brush that is drawn on a rough ground takes of it. */
import type { BrushKind } from '../document/index.ts';
import type { Shade } from './deposit.ts';
import { bristleGround, dryBrush, takeBristles } from './dry-brush.ts';
import { graphite, paperGround, takePaper } from './graphite.ts';
import type { Ground } from './ground.ts';

export { paperAt } from './graphite.ts';

/** None for brushes that need no ground. */
export const SHADES: Readonly<Partial<Record<BrushKind, Shade>>> = { pencil: graphite, grain: dryBrush };

/** The grounds of all brushes that have one. */
export interface Grounds {
  readonly paper: Ground;
  readonly bristles: Ground;
}

/** Makes the grounds, which takes a tenth of a second or more: in a worker, so that no stroke waits for it. */
export const makeGrounds = (): Grounds => ({ paper: paperGround(), bristles: bristleGround() });

/** Takes grounds that another thread has made; where a stroke was quicker, what it made stays: they are equal. */
export function takeGrounds({ paper, bristles }: Grounds): void {
  takePaper(paper);
  takeBristles(bristles);
}
