/** Drawn frames kept for a second pass over them. */
import { ByteCache } from '@tallow/core/render';
import { deflateRawSync, inflateRawSync } from 'node:zlib';

/**
 * Keeps pixels as they are, and packed once there is no more room: packed and unpacked again they take half as long as drawn anew.
 * None is given up for another, as all of them are asked for once more, in the same order.
 */
export class KeptFrames {
  private readonly plain: ByteCache<Uint8Array>;
  private readonly packed: ByteCache<Uint8Array>;

  /** @param bounds bytes kept at most. */
  constructor(private readonly bounds: { readonly plain: number; readonly packed: number }) {
    this.plain = new ByteCache(bounds.plain);
    this.packed = new ByteCache(bounds.packed);
  }

  /** Keeps pixels where there is room. */
  keep(key: string, pixels: Uint8Array): void {
    if (this.plain.bytes + pixels.length <= this.bounds.plain) {
      this.plain.set(key, pixels, pixels.length);
      return;
    }
    const packed = deflateRawSync(pixels, { level: 1 });
    if (this.packed.bytes + packed.length <= this.bounds.packed) this.packed.set(key, packed, packed.length);
  }

  /** What is kept; null where there was no room. */
  of(key: string): Uint8Array | null {
    const plain = this.plain.get(key);
    if (plain) return plain;
    const packed = this.packed.get(key);
    return packed ? inflateRawSync(packed) : null;
  }
}
