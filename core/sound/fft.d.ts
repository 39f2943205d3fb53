/** What of the package `fft.js`, which has no types of its own, is used. */
declare module 'fft.js' {
  export default class FFT {
    /** @param size a power of two. */
    constructor(size: number);
    createComplexArray(): number[];
    /** Fills the lower half of a complex array: real and imaginary parts by turns. */
    realTransform(out: number[], data: readonly number[]): void;
  }
}
