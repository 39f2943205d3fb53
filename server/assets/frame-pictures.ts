/** Pictures of plates for drawing a shot frame by frame: of a sequence few are in memory, however long it is. */
import { entitiesOf, findAll, shotOf, type AssetId, type Plate, type ShotDocument } from '@tallow/core/document';
import { ByteCache, platesAt, type AssetPicture } from '@tallow/core/render';
import { loadImage, type Image } from '@napi-rs/canvas';
import type { Knex } from 'knex';

/** Bytes of decoded pictures kept from frame to frame. */
const BYTES = 256 * 1024 * 1024;

/** Fetches a picture's bytes as they are kept; null where it is not there. */
type Fetch = (sha256: AssetId) => Promise<Buffer | null>;

/** The pictures of a database. */
export const picturesIn =
  (database: Knex): Fetch =>
  async (sha256) => {
    const row = await database<{ sha256: string; content: Buffer }>('assets')
      .where({ sha256 })
      .whereLike('type', 'image/%')
      .first('content');
    return row?.content ?? null;
  };

export class FramePictures {
  private readonly kept: ByteCache<Image>;
  /** What the frame shows that is drawn now; it stays however large it is. */
  private here = new Map<AssetId, Image>();
  /** Sequences that hide something by all that they have passed over so far: any frame before may be needed. */
  private readonly passed: readonly Plate[];

  /** @param bytes of decoded pictures kept beyond those of the frame. */
  constructor(
    private readonly outline: ShotDocument,
    private readonly fetch: Fetch,
    bytes = BYTES,
  ) {
    this.kept = new ByteCache(bytes);
    const passing = new Set(
      [...entitiesOf(outline, 'placement'), ...entitiesOf(outline, 'plate')].flatMap(({ cut }) =>
        cut?.passed ? [cut.by] : [],
      ),
    );
    this.passed = entitiesOf(outline, 'plate').filter(({ id, assets }) => assets.length > 1 && passing.has(id));
  }

  /** The picture of an asset that the frame asked for last needs. */
  readonly picture: AssetPicture = (asset) => this.here.get(asset) ?? null;

  /** Has at hand what a frame of the shot shows. Those that are not there are left out. */
  async at(frame: number): Promise<void> {
    if (findAll(this.outline, 'plate', shotOf(this.outline).plates).length === 0) return;
    const here = new Map<AssetId, Image>();
    for (const asset of this.wanted(frame)) {
      const image = this.here.get(asset) ?? this.kept.get(asset) ?? (await this.decoded(asset));
      if (!image) continue;
      here.set(asset, image);
      this.kept.set(asset, image, image.width * image.height * 4);
    }
    this.here = here;
  }

  private wanted(frame: number): Set<AssetId> {
    const wanted = new Set(platesAt(this.outline, frame, false).map(({ asset }) => asset));
    for (const { assets, span } of this.passed)
      for (const asset of assets.slice(0, Math.max(0, frame - (span?.from ?? 0) + 1))) wanted.add(asset);
    return wanted;
  }

  private async decoded(asset: AssetId): Promise<Image | null> {
    const content = await this.fetch(asset);
    return content && loadImage(content);
  }
}
