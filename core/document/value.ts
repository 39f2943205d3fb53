/** Anything that may come to change over time: opacity, position, a radius. So far always one number. */
export interface Value {
  readonly constant: number;
}

/** A value that stays the same on every frame. */
export const constant = (number: number): Value => ({ constant: number });

/** What a value is on a frame of its element. */
export function valueAt(value: Value, _frame: number): number {
  return value.constant;
}
