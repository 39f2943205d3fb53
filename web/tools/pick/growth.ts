/** The path whose ticks say how a change grows over drawings: the selected one in Plan, else the first of the element. */
import { findAll, type Path } from '@tallow/core/document';
import { ticksOf } from '@tallow/core/plan';
import { plan } from '../../plan/plan.ts';
import { current } from '../../selection/current.ts';

export function growthPath(): Path | undefined {
  const now = current();
  const paths = now ? findAll(now.doc, 'path', now.element.paths) : [];
  return paths.find(({ id }) => id === plan().hand?.id) ?? paths[0];
}

/** Its ticks, shares of its way; null where the element has no path. */
export function growthTicks(): readonly number[] | null {
  const path = growthPath();
  return path ? ticksOf(path) : null;
}
