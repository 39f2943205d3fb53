import type { Smear } from '@tallow/core/document';
import type { Current } from '../../selection/current.ts';
export function AfterSection({ now, smear }: { now: Current; smear: Smear | null }) {
  return now && smear ? null : null;
}
