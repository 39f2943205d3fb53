/** Rendering that keeps what it drew: pictures of drawings, and what looks came to. */
import type { SurfacePool } from '../canvas/index.ts';
import type { ShotDocument } from '../document/index.ts';
import { ByteCache } from './cache.ts';
import type { Rasters } from './rasters.ts';
import type { PlacedPart, RenderContext } from './render-context.ts';

/** What looks came to, by everything it was worked out from, the longest unused given up first. */
export class KeptParts {
  private readonly known: ByteCache<readonly PlacedPart[]>;

  /** @param pool that their surfaces come from. @param bytes kept at most; with 0 nothing is. */
  constructor(
    private readonly pool: SurfacePool,
    bytes: number,
  ) {
    this.known = new ByteCache(bytes, (parts) => {
      this.giveBack(parts);
    });
  }

  of(key: string, make: () => readonly PlacedPart[]): readonly PlacedPart[] {
    const known = this.known.get(key);
    if (known) return known;
    const made = make();
    for (const { picture } of made) this.pool.keep(picture);
    const bytes = made.reduce((sum, { picture }) => sum + picture.width * picture.height * 4, 0);
    if (!this.known.set(key, made, bytes)) this.giveBack(made);
    return made;
  }

  clear(): void {
    this.known.clear();
  }

  private giveBack(parts: readonly PlacedPart[]): void {
    for (const surface of new Set(parts.map(({ picture }) => picture))) this.pool.giveBack(surface);
  }
}

/** @param docNow the document that is drawn, as it is now. @param rasters pictures of its drawings, of surfaces of the pool. */
export const keptRendering = (
  docNow: () => ShotDocument,
  pool: SurfacePool,
  rasters: Rasters,
  parts: KeptParts,
): Required<Pick<RenderContext, 'make' | 'during' | 'pictureOf' | 'kept'>> => ({
  make: pool.make,
  during: (work) => pool.during(work),
  pictureOf: (item, matrix, width, height) => rasters.drawing(docNow(), item, { width, height, matrix }),
  kept: (item, key, make) =>
    parts.of(`${rasters.stamp(item.drawing.id)}|${item.layerId}|${item.tint}|${item.recolour}|${key}`, make),
});
