declare module 'gifenc' {
  type Rgb = [number, number, number];
  interface FrameOptions {
    palette?: Rgb[];
    /** Milliseconds; written as whole hundredths of a second. */
    delay?: number;
    transparent?: boolean;
    transparentIndex?: number;
    /** 0 repeats for ever. */
    repeat?: number;
    /** 1 leaves the picture, 2 clears it before the next. */
    dispose?: number;
  }
  interface Encoder {
    writeFrame(index: Uint8Array, width: number, height: number, options?: FrameOptions): void;
    finish(): void;
    bytes(): Uint8Array;
  }
  const gifenc: {
    GIFEncoder(): Encoder;
    quantize(rgba: Uint8Array, maxColors: number, options?: { format?: 'rgb565' | 'rgb444' }): Rgb[];
    applyPalette(rgba: Uint8Array, palette: Rgb[], format?: 'rgb565' | 'rgb444'): Uint8Array;
  };
  export default gifenc;
}
