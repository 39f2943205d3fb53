/** What each brush that is drawn on a rough ground takes of it. */
import type { BrushKind } from '../document/index.ts';
import type { Shade } from './deposit.ts';
import { dryBrush, prepareBristles } from './dry-brush.ts';
import { graphite, preparePaper } from './graphite.ts';

export { paperAt } from './graphite.ts';

/** None for brushes that need no ground. */
export const SHADES: Readonly<Partial<Record<BrushKind, Shade>>> = { pencil: graphite, grain: dryBrush };

/** Works out the grounds of brushes, which takes some ten ms each, so that the first stroke need not. Each call does one; false when all are there. */
export const prepareGround = (): boolean => preparePaper() || prepareBristles();
