/** The user's own variants of brushes, which stand on the shelf. */
import type { KeptWhat } from '@tallow/core/shelf';
import { toolState, setToolState, takeBrush } from '../hand/tool-state.ts';
import { BRUSH_NAMES, type BrushState, type BrushName } from '../hand/brushes.ts';
import { keep } from '../shelf/kept.ts';

/** Keeps the active brush as it is under a name, in place of one of the same name. */
export function keepBrush(name: string): Promise<boolean> {
  const { brushName: tool, brushes } = toolState();
  const { width, opacity, pressure, steadying, flow, taper, tilt, response, tip, finish, tolerance } = brushes[tool];
  const brush = { width, opacity, pressure, steadying, flow, tilt, tip, finish, tolerance };
  return keep('brush', name, { tool, brush: { ...brush, taper: [...taper], response: [...response] } });
}

const isBrush = (name: string): name is BrushName => (BRUSH_NAMES as readonly string[]).includes(name);

/** Makes a variant active; one of a brush that is no more is left where it is. */
export function takeVariant({ tool, brush }: KeptWhat<'brush'>): void {
  if (!isBrush(tool)) return;
  const { brushes } = toolState();
  const variant: BrushState = brush;
  takeBrush(tool);
  setToolState({ brushes: { ...brushes, [tool]: { ...brushes[tool], ...variant } } });
}
