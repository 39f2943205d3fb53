import type { Id, ShotDocument } from '@tallow/core/document';
import { shotOf } from '@tallow/core/document';
import { ByteCache, drawFrame } from '@tallow/core/render';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { FramePictures, picturesIn } from '../assets/frame-pictures.ts';
import { DATABASE } from '../db/database.ts';
import { FrameDocuments } from '../render/frame-documents.ts';
import { directRendering, makeSurface, pngOf } from '../render/canvas.ts';
import { ShotsService } from '../shots/shots.service.ts';

const CARD = { width: 480, height: 270 };
const KEPT_BYTES = 32 * 1024 * 1024;

/** Small pictures of shots for their cards, kept until the shot changes. */
@Injectable()
export class PicturesService {
  private readonly cards = new ByteCache<Buffer>(KEPT_BYTES);

  constructor(
    private readonly shots: ShotsService,
    @Inject(DATABASE) private readonly database: Knex,
  ) {}

  /** The first frame on which the shot shows most of itself, as a PNG that fits a card. */
  async card(id: Id): Promise<Buffer> {
    const { revision } = await this.shots.one(id);
    const key = `${id}@${revision}`;
    const kept = this.cards.get(key);
    if (kept) return kept;
    const png = await this.ofShot(id);
    this.cards.set(key, png, png.byteLength);
    return png;
  }

  /** The same of a shot as it is now; no more of its drawings is read than the picture shows. */
  ofShot(id: Id): Promise<Buffer> {
    return this.shots.atOneMoment(id, async ({ outline, drawings }) =>
      this.of(await new FrameDocuments(outline, drawings).at(0)),
    );
  }

  /** The same of a document that is at hand. */
  async of(doc: ShotDocument): Promise<Buffer> {
    const { width, height } = shotOf(doc);
    const scale = Math.min(CARD.width / width, CARD.height / height);
    const surface = makeSurface(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)));
    const rendering = directRendering(doc);
    const pictures = new FramePictures(doc, picturesIn(this.database));
    await pictures.at(0);
    drawFrame(surface, doc, 0, [scale, 0, 0, scale, 0, 0], rendering, {
      guides: false,
      background: true,
      assets: pictures.picture,
    });
    return pngOf(surface);
  }
}
