/** Where a layer or a folder is put over time. */
import { z } from 'zod';
import { place } from './fields.ts';
import { value } from './value-check.ts';
import { constant, type Value } from './value.ts';

/** Moved, scaled and turned about the element's anchor. */
export interface Shift {
  /** px. */
  readonly x: Value;
  readonly y: Value;
  /** Above 0; 1 is as drawn. */
  readonly scale: Value;
  /** Radians, clockwise. */
  readonly angle: Value;
}

/** Put where it was drawn. */
export const AT_HOME: Shift = { x: constant(0), y: constant(0), scale: constant(1), angle: constant(0) };

const shift = () =>
  z.strictObject({
    x: value(place),
    y: value(place),
    scale: value(z.number().min(0.001).max(1000)),
    angle: value(z.number().min(-1000).max(1000)),
  });

/** The field of a body; where it is absent, what it belongs to is where it was drawn. */
export const shiftAtHome = z.lazy(() =>
  shift().default(() => structuredClone(AT_HOME) as z.infer<ReturnType<typeof shift>>),
);

/** The shift with each of its values changed. */
export const shiftValues = ({ x, y, scale, angle }: Shift, change: (value: Value) => Value): Shift => ({
  x: change(x),
  y: change(y),
  scale: change(scale),
  angle: change(angle),
});
