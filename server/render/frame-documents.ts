/** Documents for drawing a shot frame by frame, each with the drawings that frame shows: however long the shot is, few are in memory. */
import { readEntity, type Drawing, type Id, type ShotDocument } from '@tallow/core/document';
import { ByteCache } from '@tallow/core/render';
import { drawingsOn } from '@tallow/core/assembly';
import type { FramePictures } from '../assets/frame-pictures.ts';

/** Bytes of drawings kept from frame to frame, as they are stored. */
const BYTES = 32 * 1024 * 1024;

export class FrameDocuments {
  private readonly kept = new ByteCache<Drawing>(BYTES);

  /**
   * @param outline the shot without its drawings.
   * @param fetch bodies of some of them.
   * @param pictures of plates, which are brought to hand with the drawings.
   */
  constructor(
    private readonly outline: ShotDocument,
    private readonly fetch: (ids: readonly Id[]) => Promise<readonly unknown[]>,
    private readonly pictures?: FramePictures,
  ) {}

  /** The document with what a frame of the shot shows. @throws naming the body that cannot be read. */
  async at(frame: number): Promise<ShotDocument> {
    await this.pictures?.at(frame);
    const ids = [...new Set(drawingsOn(this.outline, frame))];
    const here = new Map<Id, Drawing>();
    for (const id of ids) {
      const drawing = this.kept.get(id);
      if (drawing) here.set(id, drawing);
    }
    const absent = ids.filter((id) => !here.has(id));
    for (const body of absent.length > 0 ? await this.fetch(absent) : []) {
      const read = readEntity(body);
      if ('problems' in read)
        throw new Error(`A drawing cannot be read: ${read.problems[0]?.field} ${read.problems[0]?.message}`);
      if (read.ok.kind !== 'drawing') continue;
      here.set(read.ok.id, read.ok);
      this.kept.set(read.ok.id, read.ok, JSON.stringify(body).length);
    }
    return { ...this.outline, entities: { ...this.outline.entities, ...Object.fromEntries(here) } };
  }
}
