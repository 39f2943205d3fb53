/** Pictures of plates, fetched once and kept for drawing. */
import { findAll, shotOf, type AssetId, type ShotDocument } from '@tallow/core/document';
import { ByteCache, platesAt, type Picture } from '@tallow/core/render';

const BYTES = 256 * 1024 * 1024;

export class Assets {
  private readonly kept = new ByteCache<ImageBitmap>(BYTES, (bitmap) => {
    bitmap.close();
  });
  private readonly coming = new Map<AssetId, Promise<void>>();

  /** The picture of an asset, if it is here. */
  readonly picture = (asset: AssetId): Picture | null => this.kept.get(asset) ?? null;

  /** Fetches what a frame needs. What cannot be had is left out, and asked for again with the next picture. */
  async ready(doc: ShotDocument, shotFrame: number): Promise<void> {
    if (findAll(doc, 'shot', [doc.shotId]).length === 0 || shotOf(doc).plates.length === 0) return;
    await Promise.all(platesAt(doc, shotFrame, true).map(({ asset }) => this.fetched(asset)));
  }

  private fetched(asset: AssetId): Promise<void> {
    if (this.kept.get(asset)) return Promise.resolve();
    const under = this.coming.get(asset);
    if (under) return under;
    const coming = (async () => {
      try {
        const answer = await fetch(`/api/assets/${asset}`);
        if (!answer.ok) return;
        const bitmap = await createImageBitmap(await answer.blob());
        this.kept.set(asset, bitmap, bitmap.width * bitmap.height * 4);
      } catch {
        // Without the server there is no picture; the next one asks again.
      } finally {
        this.coming.delete(asset);
      }
    })();
    this.coming.set(asset, coming);
    return coming;
  }
}
