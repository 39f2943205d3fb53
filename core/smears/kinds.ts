/** Every kind of smear there is. A new one is a file beside these and a line here. */
import type { SmearForm } from '../document/index.ts';
import { COPIES } from './copies.ts';
import type { SmearKind } from './scene.ts';
import { LINES } from './speed-lines.ts';
import { STRETCH } from './stretch.ts';
import { SWATH } from './swath.ts';
import { TRAIL } from './trail.ts';

const KINDS: Readonly<Record<SmearForm, SmearKind>> = {
  stretch: STRETCH,
  swath: SWATH,
  trail: TRAIL,
  copies: COPIES,
  lines: LINES,
};

export const SMEARS: readonly SmearKind[] = Object.values(KINDS);

/** The kind of a form of smear. */
export const smearOf = (form: SmearForm): SmearKind => KINDS[form];
