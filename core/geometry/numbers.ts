/** Small arithmetic that is needed everywhere. */

/** The remainder that is never negative: frames and angles going round. @param by above 0 */
export const modulo = (value: number, by: number): number => ((value % by) + by) % by;

/** From 0 to 1, gently at both ends: Hermite's cubic, 3 t^2 - 2 t^3. @param t 0 to 1 */
export const gently = (t: number): number => t * t * (3 - 2 * t);
