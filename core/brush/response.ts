/** The answer to pressure: a curve through five heights, evenly spaced, that never overshoots between them. */

/** Heights of the curve at pressures 0, 1/4, 1/2, 3/4 and 1, each 0 to 1. */
export type Response = readonly [number, number, number, number, number];
export const STRAIGHT: Response = [0, 0.25, 0.5, 0.75, 1];

/**
 * The pressure a stroke keeps for what the pen was pressed with, both 0 to 1.
 * Method: F. N. Fritsch and R. E. Carlson, "Monotone Piecewise Cubic Interpolation", 1980, with the slopes of
 * M. Steffen, "A simple method for monotonic interpolation in one dimension", 1990.
 */
export function answered(response: Response, pressure: number): number {
  const at = Math.min(1, Math.max(0, pressure)) * 4;
  const i = Math.min(3, Math.floor(at));
  const t = at - i;
  const rise = (k: number) => response[k + 1]! - response[k]!;
  const slope = (k: number): number => {
    if (k === 0) return rise(0);
    if (k === 4) return rise(3);
    const [a, b] = [rise(k - 1), rise(k)];
    if (a * b <= 0) return 0;
    return Math.sign(a) * Math.min(Math.abs(a) * 2, Math.abs(b) * 2, Math.abs(a + b) / 2);
  };
  const [y0, y1, m0, m1] = [response[i]!, response[i + 1]!, slope(i), slope(i + 1)];
  const [t2, t3] = [t * t, t * t * t];
  return (2 * t3 - 3 * t2 + 1) * y0 + (t3 - 2 * t2 + t) * m0 + (3 * t2 - 2 * t3) * y1 + (t3 - t2) * m1;
}
